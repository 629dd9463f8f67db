<script setup lang="ts">
import type { Point } from '#core/units'

/** A thin light line between two handles, over a dark one, so that it is seen on every picture. In screen pixels. */
defineProps<{ from: Point; to: Point }>()
</script>

<template>
  <g class="handle-line">
    <line class="under" :x1="from.x" :y1="from.y" :x2="to.x" :y2="to.y" />
    <line :x1="from.x" :y1="from.y" :x2="to.x" :y2="to.y" />
  </g>
</template>

<style scoped>
line {
  pointer-events: none;
  stroke: #fff6ee;
  stroke-width: 1.4;
}
.under {
  stroke: #0009;
  stroke-width: 3;
}
</style>
