<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ name: string; saveState: string }>()
const emit = defineEmits<{ rename: [name: string] }>()

const said = computed(() => ({ saved: 'saved', failed: 'not saved yet' })[props.saveState] ?? 'saving…')

/** Without a letter it keeps the name that it had. */
function take(event: Event) {
  const field = event.target as HTMLInputElement
  const name = field.value.trim()
  field.value = name || props.name
  if (name && name !== props.name) emit('rename', name)
}
</script>

<template>
  <div class="name">
    <input :value="name" maxlength="200" aria-label="Name of the roster" @change="take" />
    <span class="quiet" role="status" data-test="save-state">{{ said }}</span>
  </div>
</template>

<style scoped>
.name {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-width: 0;
  margin: 0 auto;
}
input {
  width: 320px;
  font: inherit;
  font-weight: 650;
  color: inherit;
  text-align: center;
  background: none;
  border: 1px solid transparent;
  border-radius: 5px;
}
input:hover,
input:focus {
  border-color: var(--line-strong);
}
</style>
