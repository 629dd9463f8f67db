<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { WaxError } from '#core/errors'
import { readPathData } from '#core/outline/svg-path'
import { useParameter } from '~/composables/parameter'
import { useNotices } from '~/stores/notices'
import KeyDot from './KeyDot.vue'

/** SVG path data; what cannot be read is said and not taken. */
const props = defineProps<{ place: ParameterPlace }>()
const notices = useNotices()
const { value, moving, keyHere, write, key } = useParameter(() => props.place)

function take(event: Event) {
  const input = event.target as HTMLTextAreaElement
  const path = input.value.trim()
  try {
    readPathData(path, props.place.label)
    write(path, '')
  } catch (error) {
    input.value = String(value.value)
    if (error instanceof WaxError) notices.fault(error.fault)
  }
}
</script>

<template>
  <label class="path">
    <span>
      {{ place.parameter.label }}, as SVG path data
      <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
    </span>
    <textarea :value="String(value)" rows="4" spellcheck="false" :aria-label="place.label" @change="take" />
  </label>
</template>

<style scoped>
span {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.path {
  display: grid;
  gap: 3px;
  padding-bottom: 6px;
  color: var(--ink-2);
}
textarea {
  padding: 6px 8px;
  font:
    12px/1.4 ui-monospace,
    monospace;
  color: var(--ink);
  resize: vertical;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
</style>
