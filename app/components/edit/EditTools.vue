<script setup lang="ts">
import { computed, ref } from 'vue'
import { chosenFiles } from '~/composables/chosen-file'
import type { EditLook } from '~/composables/edit-picture'
import { EDIT_LOOKS } from '~/composables/edit-picture'
import { FOOTAGE } from '#core/formats/footage'

// What is shown of a delivered file, and over which footage.

const props = defineProps<{
  /** What has no transparency covers the footage: there is nothing to hold it against. */
  solid: boolean
  /** The largest difference that is shown; null where none is. */
  difference: number | null
  /** How far the file has been read; nothing when all of it has. */
  reading: string
}>()
const emit = defineEmits<{ footage: [id: string]; bring: [file: File] }>()
const look = defineModel<EditLook>({ required: true })
const footage = ref<string>(FOOTAGE[0].id)
const picker = ref<HTMLInputElement>()
const looks = computed(() => (props.solid ? EDIT_LOOKS.slice(0, 1) : EDIT_LOOKS))

function choose(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value === 'own') {
    picker.value?.click()
    // Until there is some it stays as it was.
    select.value = footage.value
    return
  }
  footage.value = select.value
  emit('footage', select.value)
}

function brought(event: Event) {
  const [file] = chosenFiles(event)
  if (!file) return
  footage.value = 'own'
  emit('bring', file)
}
</script>

<template>
  <div class="tools">
    <div class="looks" role="radiogroup" aria-label="What is shown">
      <button
        v-for="one in looks"
        :key="one.id"
        type="button"
        role="radio"
        :aria-checked="look === one.id"
        :title="one.help"
        @click="look = one.id"
      >
        {{ one.label }}
      </button>
    </div>
    <span v-if="difference !== null" class="quiet" role="status">
      {{ difference === 0 ? 'This frame is the same, over this footage' : `Off by ${difference} of 255 at most` }}
    </span>
    <span v-else-if="solid" class="quiet">This file has no transparency: it covers the footage.</span>
    <span v-else-if="reading" class="quiet" role="status">{{ reading }}</span>
    <span class="gap" />
    <label
      >Over
      <select class="plain-field" :value="footage" @change="choose">
        <option v-for="one in FOOTAGE" :key="one.id" :value="one.id">{{ one.label }}</option>
        <option value="own">Footage of my own…</option>
      </select>
    </label>
    <input ref="picker" type="file" accept="video/*" hidden data-test="footage" @change="brought" />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 7px 14px;
}
.looks {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.looks button {
  height: 28px;
  padding: 0 12px;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: var(--raised);
  border: 0;
}
.looks button + button {
  border-left: 1px solid var(--line);
}
.looks button[aria-checked='true'] {
  font-weight: 650;
  color: var(--ink);
  background: var(--teal-soft);
}
.gap {
  flex: 1;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
  white-space: nowrap;
}
</style>
