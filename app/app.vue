<script setup lang="ts">
import NoticeBar from '~/components/shell/NoticeBar.vue'
</script>

<template>
  <VApp>
    <NuxtPage />
    <NoticeBar />
  </VApp>
</template>
