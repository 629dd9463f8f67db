<script setup lang="ts">
import { mdiClose, mdiRecordCircleOutline } from '@mdi/js'
import { useElementSize } from '@vueuse/core'
import { line, scaleLinear } from 'd3'
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { easeKey, moveKey, removeKey, stopMoving, toggleKey } from '#core/card/edit/values'
import type { Moving } from '#core/card/moving'
import { writeColour } from '#core/card/colour'
import { isEasing, STANDARD_EASINGS } from '#core/time/easing'
import { colourAt, numberAt } from '#core/time/keyframes'
import { perSecond, ribbonTime } from '#core/time/rate'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const NAMES = 210
const LANE = 30
/** Frames beyond the seam that are shown, as a share of the loop. */
const BEYOND = 0.05

const bench = useBench()
const ribbon = useRibbon()
const track = ref<HTMLElement>()
const { width } = useElementSize(track)
const length = computed(() => bench.card?.length ?? 1)
const lanes = computed(() => bench.lanes)
const x = computed(() =>
  scaleLinear()
    .domain([-length.value * BEYOND, length.value * (1 + BEYOND)])
    .range([NAMES, Math.max(NAMES + 10, width.value)]),
)

/** Whole seconds, as many as can be read. */
const marks = computed(() => {
  if (!bench.card) return []
  const rate = perSecond(bench.card.rate)
  const total = length.value / rate
  const step = [0.2, 0.5, 1, 2, 5, 10, 30, 60, 300].find((s) => x.value(s * rate) - x.value(0) >= 52) ?? 600
  return Array.from({ length: Math.floor(total / step + 1e-9) + 1 }, (_, i) => Math.round(i * step * rate))
})

const moving = (lane: ParameterPlace) => lane.value as Moving<number | string>
const isColour = (lane: ParameterPlace) => typeof moving(lane).keys[0]!.value === 'string'
const shownKeys = (lane: ParameterPlace) => moving(lane).keys.filter((key) => key.frame <= length.value)

/** The value over the loop and a little beyond the seam on both sides. */
function curve(lane: ParameterPlace): string {
  const samples = Array.from(
    { length: 121 },
    (_, i) => x.value.domain()[0]! + (i / 120) * length.value * (1 + 2 * BEYOND),
  )
  const turn = (frame: number) => ((frame % length.value) + length.value) % length.value
  const values = samples.map((frame) => numberAt(lane.value as Moving<number>, turn(frame), length.value))
  const low = Math.min(...values)
  const high = Math.max(...values)
  const y = scaleLinear()
    .domain(high > low ? [low, high] : [low - 1, low + 1])
    .range([LANE - 6, 6])
  return line<number>((_, i) => x.value(samples[i]!), y)(values) ?? ''
}

function colours(lane: ParameterPlace): string {
  const at = (i: number) => writeColour(colourAt(lane.value as Moving<string>, (i / 24) * length.value, length.value))
  return `linear-gradient(90deg, ${Array.from({ length: 25 }, (_, i) => at(Math.min(i, 23.99))).join(', ')})`
}

const frameAt = (event: PointerEvent) => {
  const bounds = track.value!.getBoundingClientRect()
  return Math.round(x.value.invert(event.clientX - bounds.left))
}

function follow(event: PointerEvent, move: (frame: number) => void) {
  followPointer(
    event,
    (next) => move(frameAt(next)),
    () => bench.settle(),
  )
}

function scrub(event: PointerEvent) {
  ribbon.playing = false
  ribbon.go(frameAt(event), length.value)
  follow(event, (frame) => ribbon.go(frame, length.value))
}

/** Keys stay within the loop; a moved key replaces one that it is put on. */
function dragKey(event: PointerEvent, lane: ParameterPlace, from: number) {
  ribbon.selectedKey = { address: lane.address, frame: from }
  bench.settle()
  const before = bench.card!
  let last = from
  follow(event, (frame) => {
    const to = Math.min(length.value - 1, Math.max(0, frame))
    if (to === last) return
    last = to
    bench.dragging = true
    // From where it began each time, so that keys passed over on the way are not lost.
    bench.edit(
      `Move a key of ${lane.label}`,
      () => moveKey(before, lane.address, from, to),
      `key/${lane.address}/${from}`,
    )
    ribbon.selectedKey = { address: lane.address, frame: to }
  })
}

const chosen = computed(() => {
  const key = ribbon.selectedKey
  const lane = key && lanes.value.find(({ address }) => address === key.address)
  const found = lane && moving(lane).keys.find(({ frame }) => frame === key.frame)
  return lane && found ? { lane, key: found } : null
})
const easing = computed(() => chosen.value?.key.easing ?? 'linear')
const isOwn = computed(() => !STANDARD_EASINGS.includes(easing.value as 'linear'))

function ease(text: string) {
  if (!chosen.value || !isEasing(text)) return
  const { lane, key } = chosen.value
  bench.edit(`Ease ${lane.label}`, (card) => easeKey(card, lane.address, key.frame, text.trim()))
}

function remove() {
  if (!chosen.value) return
  const { lane, key } = chosen.value
  bench.edit(`Take a key of ${lane.label} away`, (card) => removeKey(card, lane.address, key.frame))
  ribbon.selectedKey = null
}

const key = (lane: ParameterPlace) =>
  bench.edit(`Key: ${lane.label}`, (card) => toggleKey(card, lane.address, ribbon.frame))
const still = (lane: ParameterPlace) =>
  bench.edit(`${lane.label} stands still`, (card) => stopMoving(card, lane.address, ribbon.frame))

function choose(lane: ParameterPlace) {
  if (lane.piece) bench.select(lane.piece, lane.coat)
}
</script>

<template>
  <div class="ribbon">
    <div class="top">
      <template v-if="chosen">
        <b>{{ chosen.lane.label }}</b>
        <span class="quiet">key at {{ ribbonTime(chosen.key.frame, bench.card!.rate) }}, then</span>
        <select
          :value="isOwn ? 'own' : easing"
          aria-label="Easing"
          @change="ease(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="name in STANDARD_EASINGS" :key="name" :value="name">{{ name }}</option>
          <option v-if="isOwn" value="own">its own</option>
        </select>
        <input
          class="easing"
          :value="easing"
          aria-label="Easing as CSS text"
          spellcheck="false"
          title="CSS easing: cubic-bezier(…), steps(…), linear(…)"
          @change="ease(($event.target as HTMLInputElement).value)"
        />
        <button class="plain-button" @click="remove">Take away</button>
      </template>
      <span v-else-if="lanes.length > 0" class="quiet">Choose a key to ease what follows it; drag it to move it</span>
    </div>
    <div ref="track" class="track" :style="{ '--names': `${NAMES}px` }">
      <svg class="ruler" :width="width" height="24" @pointerdown="scrub">
        <rect class="strip" :x="NAMES" width="100%" height="24" />
        <text v-for="frame in marks" :key="frame" :x="x(frame) + 4" y="16">
          {{ ribbonTime(frame, bench.card!.rate) }}
        </text>
        <line v-for="frame in marks" :key="`l${frame}`" :x1="x(frame)" :x2="x(frame)" y1="15" y2="24" />
      </svg>
      <div class="lanes">
        <p v-if="lanes.length === 0" class="empty quiet">
          Nothing moves yet. Press the small circle beside a value to set its first key, go to another frame, and change
          it.
        </p>
        <div
          v-for="lane in lanes"
          :key="lane.address"
          class="lane"
          :class="{ on: lane.coat ? lane.coat === bench.selectedCoat : lane.piece === bench.selectedPiece }"
        >
          <div class="name">
            <button :title="lane.label" @click="choose(lane)">{{ lane.label }}</button>
            <button
              class="icon-button tool"
              aria-label="Key here"
              title="Set or take away a key at the playhead"
              @click="key(lane)"
            >
              <VIcon :icon="mdiRecordCircleOutline" size="14" />
            </button>
            <button
              class="icon-button tool"
              aria-label="Stand still"
              title="Stop moving; the present value stays"
              @click="still(lane)"
            >
              <VIcon :icon="mdiClose" size="14" />
            </button>
          </div>
          <svg :width="width" :height="LANE" @pointerdown.self="scrub">
            <foreignObject
              v-if="isColour(lane)"
              :x="x(0)"
              :y="9"
              :width="x(length) - x(0)"
              height="12"
              pointer-events="none"
            >
              <div class="colours" :style="{ background: colours(lane) }" />
            </foreignObject>
            <path v-else class="curve" :d="curve(lane)" />
            <circle
              v-for="{ frame } in shownKeys(lane)"
              :key="frame"
              class="key"
              :class="{ on: chosen?.lane.address === lane.address && chosen.key.frame === frame }"
              :cx="x(frame)"
              :cy="LANE / 2"
              r="5.5"
              tabindex="0"
              role="button"
              :aria-label="`Key of ${lane.label} at frame ${frame}`"
              @pointerdown.stop="dragKey($event, lane, frame)"
              @keydown.enter="ribbon.selectedKey = { address: lane.address, frame }"
              @keydown.delete.stop="remove"
            />
          </svg>
        </div>
      </div>
      <svg v-if="width > 0" class="over" :width="width" height="100%" aria-hidden="true">
        <rect class="beyond" :x="NAMES" :width="Math.max(0, x(0) - NAMES)" height="100%" />
        <rect class="beyond" :x="x(length)" :width="Math.max(0, width - x(length))" height="100%" />
        <line class="seam" :x1="x(0)" :x2="x(0)" y2="100%" />
        <line class="seam" :x1="x(length)" :x2="x(length)" y2="100%" />
        <line class="head" :x1="x(ribbon.frame)" :x2="x(ribbon.frame)" y2="100%" />
        <path class="head" :d="`M${x(ribbon.frame) - 7} 0h14l-7 9z`" />
      </svg>
    </div>
  </div>
</template>

<style scoped>
.ribbon {
  display: grid;
  grid-template-rows: 34px 1fr;
  min-width: 0;
  min-height: 0;
}
.top {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 12px;
  white-space: nowrap;
  border-bottom: 1px solid var(--line);
}
.top select,
.easing {
  height: 24px;
  padding: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
.easing {
  width: 230px;
}
.top .plain-button {
  height: 24px;
}
.track {
  position: relative;
  display: grid;
  grid-template-rows: 24px 1fr;
  min-height: 0;
}
.ruler {
  display: block;
  cursor: ew-resize;
  touch-action: none;
  border-bottom: 1px solid var(--line);
}
.strip {
  fill: var(--paper-2);
}
.ruler text {
  font-size: 11px;
  fill: var(--ink-2);
}
.ruler line {
  stroke: var(--line-strong);
}
.lanes {
  min-height: 0;
  overflow: hidden auto;
}
.lane {
  position: relative;
  height: 30px;
  border-bottom: 1px solid var(--line);
}
.lane.on .name {
  background: var(--teal-soft);
}
.lane > svg {
  position: absolute;
  inset: 0;
  touch-action: none;
}
.name {
  position: absolute;
  z-index: 1;
  display: flex;
  align-items: center;
  width: var(--names);
  height: 100%;
  padding-left: 12px;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
.name > button:first-child {
  flex: 1;
  overflow: hidden;
  font: inherit;
  color: inherit;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
  background: none;
  border: 0;
}
.tool {
  width: 22px;
  opacity: 0;
}
.lane:hover .tool,
.lane:focus-within .tool {
  opacity: 1;
}
.curve {
  pointer-events: none;
  fill: none;
  stroke: var(--teal);
  stroke-width: 1.6;
}
.colours {
  height: 12px;
  border-radius: 6px;
}
.key {
  cursor: ew-resize;
  fill: var(--wax);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.key.on {
  stroke: var(--ink);
  stroke-width: 2;
}
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.beyond {
  fill: var(--ink);
  opacity: 0.1;
}
.seam {
  stroke: var(--ink);
}
line.head {
  stroke: var(--wax);
  stroke-width: 2;
}
path.head {
  fill: var(--wax);
}
.empty {
  padding: 14px 12px 14px calc(var(--names) + 60px);
  margin: 0;
}
</style>
