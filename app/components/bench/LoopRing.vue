<script setup lang="ts">
import { mdiPause, mdiPlay } from '@mdi/js'
import { arc } from 'd3'
import { computed, ref } from 'vue'
import { isMoving } from '#core/values/moving'
import { frameOutOf } from '#core/time/clock'
import { zonesOf } from '#core/time/held'
import { ribbonTime } from '#core/values/rate'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const bench = useBench()
const ribbon = useRibbon()
const dial = ref<SVGSVGElement>()
const length = computed(() => bench.card?.length ?? 1)
const turn = (frame: number) => (frame / length.value) * 2 * Math.PI

const RADIUS = 50
const band = (from: number, to: number, inner = 42, outer = 57) =>
  arc()({ innerRadius: inner, outerRadius: outer, startAngle: turn(from), endAngle: turn(to) }) ?? ''

const ready = computed(() => ribbon.readyRuns.map(([from, to]) => band(from, to, 60, 62)))
const zones = computed(() => (bench.card ? zonesOf(bench.card) : null))
const at = (frame: number, radius = RADIUS) => ({
  x: Math.sin(turn(frame)) * radius,
  y: -Math.cos(turn(frame)) * radius,
})
const keys = computed(() => {
  const frames = bench.lanes.flatMap(({ piece, value }) =>
    isMoving(value)
      ? value.keys.flatMap(({ frame }) =>
          // Of what runs by a clock, when the card shows it.
          frame >= length.value ? [] : (frameOutOf(bench.card!, piece, frame, frame) ?? []),
        )
      : [],
  )
  return [...new Set(frames)]
})

function scrub(event: PointerEvent) {
  const target = dial.value!
  ribbon.playing = false
  const move = (next: PointerEvent) => {
    const bounds = target.getBoundingClientRect()
    const x = next.clientX - bounds.left - bounds.width / 2
    const y = next.clientY - bounds.top - bounds.height / 2
    // Clockwise from the seam at the top; over the seam it simply goes on.
    ribbon.go((Math.atan2(x, -y) / (2 * Math.PI)) * length.value, length.value)
  }
  move(event)
  followPointer(event, move)
}

function nudge(event: KeyboardEvent) {
  const steps: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }
  const step = steps[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  ribbon.go(ribbon.frame + step * (event.shiftKey ? 10 : 1), length.value)
}
</script>

<template>
  <div class="ring">
    <svg
      ref="dial"
      viewBox="-66 -66 132 132"
      role="slider"
      tabindex="0"
      aria-label="Frame"
      aria-valuemin="0"
      :aria-valuemax="length - 1"
      :aria-valuenow="ribbon.frame"
      @pointerdown="scrub"
      @keydown="nudge"
    >
      <path class="track" :d="band(0, length)" />
      <path v-if="zones" class="hold" :d="band(zones.hold, zones.out, 38, 41)" />
      <path class="gone" :d="band(0, ribbon.frame)" />
      <path v-for="(run, i) in ready" :key="i" class="ready" :d="run" />
      <circle
        v-for="frame in keys"
        :key="frame"
        class="key"
        v-bind="{ cx: at(frame, 37).x, cy: at(frame, 37).y }"
        r="2"
      />
      <line class="seam" y1="-38" y2="-62" />
      <circle class="head" :cx="at(ribbon.frame).x" :cy="at(ribbon.frame).y" r="8.5" />
      <text class="now" y="0">{{ bench.card ? ribbonTime(ribbon.frame, bench.card.rate) : '' }}</text>
      <text class="of" y="15">of {{ bench.card ? ribbonTime(length, bench.card.rate) : '' }}</text>
    </svg>
    <div class="buttons">
      <button
        class="play"
        :aria-label="ribbon.playing ? 'Stop' : 'Play the loop'"
        @click="ribbon.playing = !ribbon.playing"
      >
        <VIcon :icon="ribbon.playing ? mdiPause : mdiPlay" size="20" />
      </button>
      <button
        v-if="zones"
        class="plain-button holding"
        :aria-pressed="ribbon.holding"
        aria-label="Play the hold again and again"
        @click="ribbon.holding = !ribbon.holding"
      >
        Hold
        <VTooltip activator="parent" text="Comes in, then plays the hold again and again" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.ring {
  display: grid;
  /* In a low ribbon the dial gives way, never the button. */
  grid-template-rows: minmax(0, 136px) auto;
  gap: 8px;
  align-content: center;
  justify-items: center;
  height: 100%;
  min-height: 0;
  padding: 6px 0;
  border-right: 1px solid var(--line);
}
.ring > svg {
  height: 100%;
  cursor: grab;
  touch-action: none;
  border-radius: 50%;
}
.track {
  fill: var(--paper-3);
}
.gone,
.ready {
  fill: var(--teal);
}
.ready {
  opacity: 0.45;
}
.key {
  fill: var(--wax);
}
.seam {
  stroke: var(--ink);
  stroke-width: 2;
}
.head {
  fill: var(--wax);
  stroke: var(--paper);
  stroke-width: 2;
}
text {
  fill: var(--ink);
  text-anchor: middle;
}
.now {
  font-size: 18px;
  font-weight: 650;
}
.of {
  font-size: 11px;
  fill: var(--ink-2);
}
.hold {
  fill: var(--teal);
}
.buttons {
  display: flex;
  gap: 6px;
}
.holding {
  border-radius: 15px;
}
.holding[aria-pressed='true'] {
  font-weight: 650;
  background: var(--teal-soft);
  border-color: var(--teal);
}
.play {
  display: grid;
  place-items: center;
  width: 80px;
  height: 30px;
  color: var(--paper);
  cursor: pointer;
  background: var(--ink);
  border: 0;
  border-radius: 15px;
}
</style>
