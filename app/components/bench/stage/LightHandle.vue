<script setup lang="ts">
import { computed } from 'vue'
import { writeValue } from '#core/edit/values'
import { lightOf } from '#core/card/light'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const ribbon = useRibbon()

/** The sun goes round the middle of the frame: at the rim it lies on the horizon, in the middle right above. */
const middle = computed(() => ({ x: bench.card!.frame.width / 2, y: bench.card!.frame.height / 2 }))
const rim = computed(() => Math.min(middle.value.x, middle.value.y) * 0.86)
const { base } = useMoment(() => null)
const light = computed(() => lightOf(bench.card!, base.value))
const sun = computed(() => {
  const turn = (light.value.azimuth * Math.PI) / 180
  const reach = rim.value * Math.cos((light.value.elevation * Math.PI) / 180)
  return { x: middle.value.x + Math.cos(turn) * reach, y: middle.value.y - Math.sin(turn) * reach }
})
const rays = Array.from({ length: 8 }, (_, i) => (i * Math.PI) / 4)

function drag(event: PointerEvent) {
  props.hand.drag(event, (point, next) => {
    const [dx, dy] = [point.x - middle.value.x, middle.value.y - point.y]
    const reach = Math.min(1, Math.hypot(dx, dy) / rim.value)
    const step = next.shiftKey ? 15 : 1
    const azimuth = Math.round((Math.atan2(dy, dx) * 180) / Math.PI / step) * step
    const elevation = Math.round((Math.acos(reach) * 180) / Math.PI / step) * step
    put(azimuth, elevation)
  })
}

function put(azimuth: number, elevation: number) {
  bench.edit(
    'Key light',
    (card) =>
      writeValue(writeValue(card, 'light/azimuth', ribbon.frame, azimuth), 'light/elevation', ribbon.frame, elevation),
    'key-light',
  )
}

/** Left and right turn it, up and down raise and lower it, by whole degrees. */
function turnSun(event: KeyboardEvent) {
  const by = props.hand.arrow(event)
  if (!by) return
  const { azimuth, elevation } = light.value
  put(Math.round(azimuth - by.x), Math.min(90, Math.max(0, Math.round(elevation - by.y))))
}

const at = computed(() => props.hand.onScreen(sun.value))
const centre = computed(() => props.hand.onScreen(middle.value))
</script>

<template>
  <g class="light">
    <circle class="rim" :cx="centre.x" :cy="centre.y" :r="rim * hand.zoom()" />
    <line :x1="at.x" :y1="at.y" :x2="centre.x" :y2="centre.y" />
    <g
      class="sun"
      tabindex="0"
      role="button"
      :aria-label="`Key light from ${Math.round(light.azimuth)}°, ${Math.round(light.elevation)}° high: arrows move it`"
      @pointerdown.stop="drag"
      @keydown="turnSun"
    >
      <circle :cx="at.x" :cy="at.y" r="17" class="area" />
      <line
        v-for="turn in rays"
        :key="turn"
        class="ray"
        :x1="at.x + Math.cos(turn) * 11"
        :y1="at.y + Math.sin(turn) * 11"
        :x2="at.x + Math.cos(turn) * 15"
        :y2="at.y + Math.sin(turn) * 15"
      />
      <circle :cx="at.x" :cy="at.y" r="8" class="disc" />
      <title>Key light: {{ Math.round(light.azimuth) }}°, {{ Math.round(light.elevation) }}° high</title>
    </g>
  </g>
</template>

<style scoped>
.rim {
  pointer-events: none;
  fill: none;
  stroke: #fff6ee66;
  stroke-dasharray: 2 5;
}
line {
  pointer-events: none;
  stroke: #fff6eeaa;
  stroke-dasharray: 3 3;
}
.ray {
  stroke: #ffe7b8;
  stroke-width: 2;
  stroke-dasharray: none;
  filter: drop-shadow(0 0 1px #000a);
}
.sun {
  cursor: grab;
}
.area {
  fill: transparent;
}
.disc {
  fill: #fff3d6;
  stroke: #9b2d26;
  stroke-width: 2;
}
</style>
