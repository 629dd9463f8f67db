<script setup lang="ts">
import { line, scaleLinear } from 'd3'
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { easeKeys } from '#core/edit/keys'
import type { Moving } from '#core/values/moving'
import { actingKeys } from '#core/values/keyframes'
import { bezierOf, bezierText } from '#core/values/easing-shapes'
import { momentOf } from '#core/time/ring'
import { motoredNumber } from '#core/values/moved'
import { perSecond } from '#core/values/rate'
import { followPointer } from '~/composables/follow-pointer'
import type { RibbonView } from '~/composables/ribbon-view'
import { NAMES } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const props = defineProps<{ view: RibbonView; width: number }>()

const VALUE = { top: 10, bottom: 108 }
const SPEED = { top: 124, bottom: 182 }
const COLOURS = ['var(--teal)', 'var(--wax)', '#8a6d1d', '#5b4a8a', '#3d6b2f']

const bench = useBench()
const ribbon = useRibbon()
const x = computed(() => props.view.x.value)

/** The lanes of the selected keys; without any those of the selected piece, coat or finish. */
const lanes = computed<ParameterPlace[]>(() => {
  const numbers = bench.lanes.filter(({ parameter }) => parameter.type === 'number' || parameter.type === 'length')
  const chosen = new Set(ribbon.keys.map(({ address }) => address))
  if (chosen.size > 0) return numbers.filter(({ address }) => chosen.has(address))
  const own = numbers.filter(({ piece, part }) =>
    bench.selectedPart ? part === bench.selectedPart : piece === bench.selectedPiece,
  )
  return own.slice(0, COLOURS.length)
})

interface Chart {
  lane: ParameterPlace
  colour: string
  value: string
  speed: string
  y: (value: number) => number
  invert: (y: number) => number
  range: [number, number]
  fastest: number
}

/** Each lane on its own scale: what counts is the form. */
const charts = computed<Chart[]>(() =>
  lanes.value.map((lane, i) => {
    const [from, to] = x.value.domain() as [number, number]
    const samples = Array.from({ length: 361 }, (_, k) => from + (k / 360) * (to - from))
    const at = motoredNumber(lane.value as Moving<number>, momentOf(bench.card!, 0))
    const values = samples.map(at)
    const rate = perSecond(bench.card!.rate)
    const h = Math.min(0.25, (to - from) / 1440)
    const speeds = samples.map((frame) => ((at(frame + h) - at(frame - h)) / (2 * h)) * rate)
    const [low, high] = [Math.min(...values), Math.max(...values)]
    const y = scaleLinear()
      .domain(high > low ? [low, high] : [low - 1, low + 1])
      .range([VALUE.bottom, VALUE.top])
    // A jump has no speed that could be drawn; the rest keeps its scale.
    const sorted = speeds.map(Math.abs).sort((a, b) => a - b)
    const fastest = Math.max(1e-9, sorted[Math.floor(sorted.length * 0.985)]!)
    const v = scaleLinear().domain([-fastest, fastest]).range([SPEED.bottom, SPEED.top]).clamp(true)
    const draw = (list: number[], scale: (n: number) => number) =>
      line<number>((_, k) => x.value(samples[k]!), scale)(list) ?? ''
    return {
      lane,
      colour: COLOURS[i % COLOURS.length]!,
      value: draw(values, y),
      speed: draw(speeds, v),
      y: (n: number) => y(n),
      invert: (n: number) => y.invert(n),
      range: [low, high] as [number, number],
      fastest,
    }
  }),
)

interface Handle {
  id: string
  chart: Chart
  frame: number
  end: 0 | 1
  /** Where the way starts and ends. */
  from: { frame: number; value: number }
  to: { frame: number; value: number }
  x: number
  y: number
}

/** The two handles of each way that starts at a selected key and is a curve. */
const handles = computed<Handle[]>(() =>
  charts.value.flatMap((chart) => {
    const moving = chart.lane.value as Moving<number>
    const keys = actingKeys(moving, props.view.length.value)
    return keys.flatMap((key, i) => {
      if (!ribbon.isChosen(chart.lane.address, key.frame)) return []
      const bezier = bezierOf(key.easing ?? 'linear')
      const isLast = i === keys.length - 1
      if (!bezier || keys.length < 2 || (isLast && moving.loop === false)) return []
      const next = keys[isLast ? 0 : i + 1]!
      const to = { frame: next.frame + (isLast ? props.view.length.value : 0), value: next.value }
      const place = (px: number, py: number) => ({
        x: x.value(key.frame + px * (to.frame - key.frame)),
        y: chart.y(key.value + py * (to.value - key.value)),
      })
      const shared = { chart, frame: key.frame, from: { frame: key.frame, value: key.value }, to }
      return [
        { ...shared, id: `${chart.lane.address} ${key.frame} 0`, end: 0 as const, ...place(bezier[0], bezier[1]) },
        { ...shared, id: `${chart.lane.address} ${key.frame} 1`, end: 1 as const, ...place(bezier[2], bezier[3]) },
      ]
    })
  }),
)

const anchorOf = ({ chart, end, from, to }: Handle) => {
  const key = end === 0 ? from : to
  return { x: x.value(key.frame), y: chart.y(key.value) }
}

/** All selected keys get the same curve: several lanes are shaped together. */
function drag(event: PointerEvent, handle: Handle) {
  const svg = (event.currentTarget as Element).closest('svg')!
  const { chart, from, to, end } = handle
  // The scale stays as it was when the hand took hold.
  const { invert } = chart
  const place = x.value
  bench.endStep()
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      const bounds = svg.getBoundingClientRect()
      const px = (place.invert(next.clientX - bounds.left) - from.frame) / (to.frame - from.frame)
      const rise = to.value - from.value
      const py = rise === 0 ? end : (invert(next.clientY - bounds.top) - from.value) / rise
      put(handle, px, Math.min(4, Math.max(-3, py)))
    },
    () => bench.endStep(),
  )
}

/** The handles of a way as they are now; null for one that is no curve. */
function curveOf({ chart, frame }: Handle) {
  const lane = bench.lanes.find(({ address }) => address === chart.lane.address)
  const key = lane && (lane.value as Moving<number>).keys.find((one) => one.frame === frame)
  return key ? bezierOf(key.easing ?? 'linear') : null
}

function put(handle: Handle, px: number, py: number) {
  const old = curveOf(handle)
  if (!old) return
  const cut = Math.min(1, Math.max(0, px))
  const next = handle.end === 0 ? ([cut, py, old[2], old[3]] as const) : ([old[0], old[1], cut, py] as const)
  bench.edit('Shape the curve', (card) => easeKeys(card, ribbon.keys, bezierText(next)), 'curve')
}

/** By keyboard: a twentieth of the way. */
function step(event: KeyboardEvent, handle: Handle) {
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-0.05, 0],
    ArrowRight: [0.05, 0],
    ArrowUp: [0, 0.05],
    ArrowDown: [0, -0.05],
  }
  const move = by[event.key]
  const old = curveOf(handle)
  if (!move || !old) return
  event.preventDefault()
  event.stopPropagation()
  put(handle, old[handle.end * 2]! + move[0], old[handle.end * 2 + 1]! + move[1])
}

const tidy = (value: number) => String(Math.round(value * 100) / 100)
const zero = computed(() => (SPEED.top + SPEED.bottom) / 2)
</script>

<template>
  <div class="charts">
    <div class="legend">
      <p v-if="charts.length === 0" class="quiet">Choose keys, or a piece that moves, to see its curves.</p>
      <ul>
        <li v-for="chart in charts" :key="chart.lane.address" :style="{ '--own': chart.colour }">
          {{ chart.lane.label }}
          <small class="quiet">{{ tidy(chart.range[0]) }} to {{ tidy(chart.range[1]) }}</small>
        </li>
      </ul>
      <span class="axis quiet"
        >speed<template v-if="charts.length === 1">, up to {{ tidy(charts[0]!.fastest) }}/s</template></span
      >
    </div>
    <svg :width="width" height="190" role="group" aria-label="Curves of value and speed">
      <rect
        class="ground"
        :x="NAMES"
        :y="VALUE.top - 6"
        :width="Math.max(0, width - NAMES)"
        :height="VALUE.bottom - VALUE.top + 12"
      />
      <rect
        class="ground"
        :x="NAMES"
        :y="SPEED.top - 4"
        :width="Math.max(0, width - NAMES)"
        :height="SPEED.bottom - SPEED.top + 8"
      />
      <line class="zero" :x1="NAMES" x2="100%" :y1="zero" :y2="zero" />
      <g v-for="chart in charts" :key="chart.lane.address" class="lane" :style="{ '--own': chart.colour }">
        <path :d="chart.value" />
        <path class="speed" :d="chart.speed" />
        <circle
          v-for="key in (chart.lane.value as Moving<number>).keys"
          :key="key.frame"
          class="key"
          :class="{ on: ribbon.isChosen(chart.lane.address, key.frame) }"
          :cx="x(key.frame)"
          :cy="chart.y(key.value)"
          r="4.5"
          @pointerdown.stop="ribbon.choose({ address: chart.lane.address, frame: key.frame }, $event.shiftKey)"
        />
      </g>
      <g v-for="handle in handles" :key="handle.id" class="handle">
        <line :x1="anchorOf(handle).x" :y1="anchorOf(handle).y" :x2="handle.x" :y2="handle.y" />
        <circle
          :cx="handle.x"
          :cy="handle.y"
          r="5.5"
          tabindex="0"
          role="slider"
          :aria-label="`${handle.end === 0 ? 'Start' : 'End'} handle of ${handle.chart.lane.label}`"
          :aria-valuenow="Math.round(handle.y)"
          @pointerdown.stop="drag($event, handle)"
          @keydown="step($event, handle)"
        />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.charts {
  position: relative;
  overflow: hidden;
  border-top: 1px solid var(--line-strong);
}
.legend {
  position: absolute;
  z-index: 1;
  inset: 0 auto 0 0;
  width: var(--names);
  padding: 8px 10px;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
ul {
  max-height: 106px;
  padding: 0;
  margin: 0;
  overflow: hidden auto;
  list-style: none;
}
li {
  margin-bottom: 3px;
  font-size: 12px;
  border-left: 4px solid var(--own);
  padding-left: 7px;
}
li small {
  display: block;
}
.axis {
  position: absolute;
  bottom: 22px;
  left: 10px;
  font-size: 12px;
}
.ground {
  fill: var(--raised);
}
.zero {
  stroke: var(--line-strong);
  stroke-dasharray: 3 3;
}
.lane path {
  fill: none;
  stroke: var(--own);
  stroke-width: 1.8;
}
.lane .speed {
  stroke-width: 1.2;
}
.key {
  cursor: pointer;
  fill: var(--own);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.key.on {
  fill: var(--paper);
  stroke: var(--own);
  stroke-width: 3;
}
.handle line {
  stroke: var(--ink-2);
}
.handle circle {
  cursor: grab;
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.8;
}
</style>
