<script setup lang="ts">
import { mdiRedo, mdiUndo } from '@mdi/js'

/** Back and forth in a history, each step with its name. */
defineProps<{ past: readonly { label: string }[]; future: readonly { label: string }[] }>()
defineEmits<{ undo: []; redo: [] }>()
</script>

<template>
  <button class="icon-button" :disabled="past.length === 0" aria-label="Undo" @click="$emit('undo')">
    <VIcon :icon="mdiUndo" size="18" /><VTooltip activator="parent" :text="`Undo: ${past.at(-1)?.label ?? ''}`" />
  </button>
  <button class="icon-button" :disabled="future.length === 0" aria-label="Redo" @click="$emit('redo')">
    <VIcon :icon="mdiRedo" size="18" /><VTooltip activator="parent" :text="`Redo: ${future.at(-1)?.label ?? ''}`" />
  </button>
</template>
