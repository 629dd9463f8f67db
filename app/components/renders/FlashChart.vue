<script setup lang="ts">
import { line, scaleLinear } from 'd3'
import { computed } from 'vue'
import type { Flashes } from '#core/judge/measures/flashes'

// How bright a card is over time, and where that changes as a flash does.

const props = defineProps<{ flashes: Flashes }>()

const WIDTH = 300
const HEIGHT = 170
const EDGE = 8

const across = computed(() => scaleLinear([0, Math.max(1, props.flashes.luminance.length - 1)], [EDGE, WIDTH - EDGE]))
const up = scaleLinear([0, 1], [HEIGHT - EDGE, EDGE])
const course = computed(
  () =>
    line<number>(
      (_, i) => across.value(i),
      (value) => up(value),
    )(props.flashes.luminance) ?? '',
)
const changes = computed(() =>
  props.flashes.changes.flatMap((change, frame) => (change === 0 ? [] : [{ frame, change }])),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" aria-label="Luminance over time">
    <rect :width="WIDTH" :height="HEIGHT" rx="4" />
    <line v-for="level in [0, 0.5, 1]" :key="level" :x1="EDGE" :x2="WIDTH - EDGE" :y1="up(level)" :y2="up(level)" />
    <path :d="course" />
    <circle
      v-for="{ frame, change } in changes"
      :key="frame"
      :cx="across(frame)"
      :cy="up(flashes.luminance[frame]!)"
      r="3.5"
      :class="change > 0 ? 'brighter' : 'darker'"
    >
      <title>frame {{ frame }}, {{ change > 0 ? 'brighter' : 'darker' }}</title>
    </circle>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
rect {
  fill: var(--paper-2);
}
line {
  stroke: var(--line);
}
path {
  fill: none;
  stroke: var(--teal);
  stroke-width: 1.5;
}
circle {
  fill: var(--wax);
}
</style>
