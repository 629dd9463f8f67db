<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'

/** A name being written: Enter or leaving it takes it, Escape lets it be. */
defineProps<{ value: string; label: string }>()
const emit = defineEmits<{ name: [name: string]; close: [] }>()
const field = useTemplateRef<HTMLInputElement>('field')
// Taken away, the field loses the focus as well: that is no second answer.
let ended = false

function end(taken: boolean) {
  if (ended) return
  ended = true
  if (taken) emit('name', field.value!.value.trim())
  emit('close')
}

onMounted(() => field.value!.select())
</script>

<template>
  <input
    ref="field"
    :value="value"
    :aria-label="label"
    @keydown.enter="end(true)"
    @keydown.escape.stop="end(false)"
    @blur="end(true)"
  />
</template>
