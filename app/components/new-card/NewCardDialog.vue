<script setup lang="ts">
import { defineAsyncComponent } from 'vue'
import type { Card } from '#core/card/schema'

/** Its sheet, with all designs, comes when it is first opened: the shelf does without it. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ create: [card: Card] }>()
const NewCardSheet = defineAsyncComponent(() => import('./NewCardSheet.vue'))

function create(card: Card) {
  emit('create', card)
  open.value = false
}
</script>

<template>
  <VDialog v-model="open" max-width="1240" width="96vw">
    <NewCardSheet @create="create" @close="open = false" />
  </VDialog>
</template>
