<script setup lang="ts">
import { mdiPause, mdiPlay, mdiSkipNext, mdiSkipPrevious } from '@mdi/js'

// Playing a title over footage: to and fro by frames, the line of the programme, and where the title begins.

defineProps<{
  /** Frames of the programme, and those a second. */
  total: number
  rate: number
  /** Where the title is over the footage, as shares of the programme. */
  span: { from: number; to: number }
  /** Which of the title's frames is shown; null where it is footage alone. */
  place: number | null
}>()
defineEmits<{ step: [frames: number]; go: [frame: number] }>()
const now = defineModel<number>('now', { required: true })
const playing = defineModel<boolean>('playing', { required: true })
const inPoint = defineModel<number>('inPoint', { required: true })
const loops = defineModel<boolean>('loops', { required: true })

const numberOf = (event: Event) => (event.target as HTMLInputElement).valueAsNumber

function begin(event: Event) {
  const seconds = numberOf(event)
  inPoint.value = Number.isFinite(seconds) ? Math.min(60, Math.max(0, seconds)) : 0
}
</script>

<template>
  <footer>
    <button class="icon-button" aria-label="One frame back" @click="$emit('step', -1)">
      <VIcon :icon="mdiSkipPrevious" size="20" />
    </button>
    <button class="icon-button" :aria-label="playing ? 'Pause' : 'Play'" @click="playing = !playing">
      <VIcon :icon="playing ? mdiPause : mdiPlay" size="22" />
    </button>
    <button class="icon-button" aria-label="One frame on" @click="$emit('step', 1)">
      <VIcon :icon="mdiSkipNext" size="20" />
    </button>
    <span class="time">{{ (now / rate).toFixed(2) }} s</span>
    <span class="quiet frame">{{ place === null ? 'footage alone' : `frame ${place} of the file` }}</span>
    <div class="line">
      <span class="title" :style="{ left: `${span.from * 100}%`, right: `${(1 - span.to) * 100}%` }" />
      <input
        type="range"
        min="0"
        :max="total - 1"
        step="1"
        :value="now"
        aria-label="Moment"
        @pointerdown="playing = false"
        @input="$emit('go', numberOf($event))"
      />
    </div>
    <label title="At which second of the footage the title begins"
      >Begins at
      <input class="plain-field" type="number" min="0" max="60" step="0.04" :value="inPoint" @change="begin" /> s
    </label>
    <label><input v-model="loops" type="checkbox" /> loops</label>
  </footer>
</template>

<style scoped>
footer {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 7px 14px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
  white-space: nowrap;
}
input[type='number'] {
  width: 68px;
}
.time {
  min-width: 56px;
  font-weight: 650;
}
.frame {
  min-width: 118px;
}
.line {
  position: relative;
  flex: 1;
  height: 24px;
  background: var(--paper-3);
  border-radius: 4px;
}
.title {
  position: absolute;
  top: 0;
  height: 24px;
  pointer-events: none;
  background: var(--teal-soft);
  border-left: 3px solid var(--teal);
  border-radius: 3px;
}
.line input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 24px;
  margin: 0;
  cursor: pointer;
  appearance: none;
  background: none;
}
.line input::-webkit-slider-runnable-track {
  height: 24px;
}
.line input::-webkit-slider-thumb {
  width: 4px;
  height: 24px;
  appearance: none;
  background: var(--wax);
  border-radius: 2px;
}
.line input::-moz-range-thumb {
  width: 4px;
  height: 24px;
  background: var(--wax);
  border: 0;
  border-radius: 2px;
}
</style>
