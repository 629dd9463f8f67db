<script setup lang="ts">
import { ref } from 'vue'

/** Asks for a name. */
defineProps<{ name: string | null; title: string }>()
const emit = defineEmits<{ take: [name: string]; close: [] }>()
const field = ref<HTMLInputElement>()

function take() {
  const name = field.value?.value.trim() ?? ''
  if (name) emit('take', name)
  emit('close')
}
</script>

<template>
  <VDialog :model-value="name !== null" max-width="380" @update:model-value="!$event && emit('close')">
    <form class="dialog-sheet" :aria-label="title" @submit.prevent="take">
      <label>{{ title }}<input ref="field" class="plain-field" :value="name ?? ''" maxlength="80" autofocus /></label>
      <div class="foot">
        <button type="button" class="plain-button" @click="emit('close')">Not now</button>
        <button class="wax-button">Keep</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
form,
label {
  display: grid;
  gap: 10px;
}
input {
  height: 30px;
}
</style>
