<script setup lang="ts">
import { COMMON_RATES, rateLabel } from '#core/values/rate'
import type { FrameChoice } from './frame-sizes'
import { FRAME_SIZES } from './frame-sizes'

/** The frame that a new card gets: one press for its size, one choice for its rate. */
const frame = defineModel<FrameChoice>({ required: true })

const isChosen = (size: (typeof FRAME_SIZES)[number]) =>
  frame.value.width === size.width && frame.value.height === size.height
</script>

<template>
  <div class="frame" role="group" aria-label="Frame">
    <button
      v-for="size in FRAME_SIZES"
      :key="size.label"
      type="button"
      :aria-pressed="isChosen(size)"
      :title="`${size.width}×${size.height}`"
      @click="frame = { ...frame, width: size.width, height: size.height }"
    >
      <span class="shape" :style="{ aspectRatio: `${size.width} / ${size.height}` }" />{{ size.label }}
    </button>
    <select v-model.number="frame.rate" class="plain-field" aria-label="Frames a second">
      <option v-for="(rate, i) in COMMON_RATES" :key="i" :value="i">{{ rateLabel(rate) }} fps</option>
    </select>
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
button {
  display: flex;
  gap: 7px;
  align-items: center;
  height: 30px;
  padding: 0 10px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
button[aria-pressed='true'] {
  background: var(--teal-soft);
  border-color: var(--teal);
}
.shape {
  height: 15px;
  max-width: 22px;
  background: var(--paper-3);
  border: 1px solid var(--line-strong);
  border-radius: 2px;
}
select {
  height: 30px;
}
</style>
