<script setup lang="ts">
import { area, line, scaleLinear } from 'd3'
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { lightOf } from '#core/card/light'
import { switchValue } from '#core/values/evaluated'
import { momentOf } from '#core/time/ring'
import type { Section } from '#core/frame/section'
import type { Rgba } from '#core/units'
import { coatTitle } from '~/composables/coat-words'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'
import SectionHandles from './SectionHandles.vue'

/**
 * What lies at each distance from the edge of the selected piece. The engine lays the coats on a straight edge, so the
 * chart says what the picture shows; its handles are the coats' own lengths.
 */
const props = defineProps<{ engineName: string }>()
const bench = useBench()
const ribbon = useRibbon()

const HEIGHT = 118
const BASE = 92
const STRIP = 13
const WAIT = 90

const box = ref<HTMLElement>()
const { width } = useElementSize(box)
const section = shallowRef<Section | null>(null)
const shadeSide = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
let turn = 0

watch(
  [() => bench.card, () => bench.selectedPiece, () => ribbon.frame, shadeSide],
  () => {
    if (ribbon.playing) return
    clearTimeout(timer)
    timer = setTimeout(() => void renew(), WAIT)
  },
  { immediate: true },
)

async function renew() {
  const mine = ++turn
  const { card, selectedPiece: piece } = bench
  if (!card || !piece) return
  const facing = lightOf(card, momentOf(card, ribbon.frame)).azimuth + (shadeSide.value ? 180 : 0)
  const made = await onEngine(
    (face) => face.section(props.engineName, piece, ribbon.frame, facing),
    () => null,
  )
  if (mine === turn) section.value = made as Section | null
}

/** Farthest from the edge that anything shows, with some air; the same on both sides only as far as needed. */
const range = computed<[number, number]>(() => {
  const { value } = section
  if (!value) return [-20, 20]
  const shown = value.distances.filter((_, i) => value.whole[i]![3] > 0.004)
  const marks = value.coats.flatMap((coat) => coat.marks.map(({ at }) => at))
  const outer = Math.max(6, ...shown.slice(-1), ...marks) * 1.12
  const slopes = value.coats.flatMap((coat) => {
    const first = coat.colours.findIndex((c, i) => c[3] > 0.004 && differs(coat.colours, i))
    return first < 0 ? [] : [value.distances[first]!]
  })
  const inner = Math.min(-6, -outer * 0.55, ...marks.map((at) => at * 1.12), ...slopes)
  return [Math.max(inner, value.distances[0]!), Math.min(outer, value.distances.at(-1)!)]
})
/** Deep inside every coat is what it is in the middle of the face: only where that changes is there something to see. */
const differs = (colours: readonly Rgba[], i: number) =>
  Math.max(...colours[i]!.map((v, c) => Math.abs(v - colours[0]![c]!))) > 0.02

const x = computed(() =>
  scaleLinear()
    .domain(range.value)
    .range([0, Math.max(10, width.value)]),
)
const y = scaleLinear().domain([0, 1]).range([BASE, 20])

interface Shape {
  id: string
  title: string
  selected: boolean
  path: string
  stops: { offset: string; colour: string }[]
}

/** Back to front, so that what lies in front is drawn last. */
const shapes = computed<Shape[]>(() => {
  const { value } = section
  if (!value || !bench.piece) return []
  const [low, high] = range.value
  const shown = value.distances.flatMap((d, i) => (d >= low - 1 && d <= high + 1 ? [i] : []))
  const outline = area<number>()
    .x((i) => x.value(value.distances[i]!))
    .y0(BASE)
  const coats = [...bench.piece.coats.face, ...bench.piece.coats.behind]
  const now = momentOf(bench.card!, ribbon.frame)
  return [...value.coats].reverse().flatMap((coat) => {
    const own = coats.find(({ id }) => id === coat.id)
    if (!own || !switchValue(own.on, now) || !coat.colours.some((c) => c[3] > 0)) return []
    const path = outline.y1((i) => y(coat.colours[i]![3]))(shown)
    const step = Math.max(1, Math.floor(shown.length / 60))
    const stops = shown
      .filter((_, k) => k % step === 0)
      .map((i) => ({
        offset: `${(x.value(value.distances[i]!) / Math.max(1, width.value)) * 100}%`,
        colour: css(coat.colours[i]!),
      }))
    return path ? [{ id: coat.id, title: coatTitle(own), selected: bench.selectedPart === coat.id, path, stops }] : []
  })
})

const css = ([r, g, b]: Rgba) => `rgb(${[r, g, b].map((v) => Math.round(v * 255)).join(' ')})`

/** What all coats make together, as the eye sees it. */
const strip = computed(() => {
  const { value } = section
  if (!value) return 'none'
  const [low, high] = range.value
  const shown = value.distances.flatMap((d, i) => (d >= low && d <= high ? [i] : []))
  const step = Math.max(1, Math.floor(shown.length / 90))
  const stops = shown
    .filter((_, k) => k % step === 0)
    .map((i) => {
      const [r, g, b, a] = value.whole[i]!
      return `rgb(${[r, g, b].map((v) => Math.round(v * 255)).join(' ')} / ${a}) ${x.value(value.distances[i]!)}px`
    })
  return `linear-gradient(90deg, ${stops.join(', ')})`
})

/** Heights of the selected bevel, or of the first one. */
const height = computed(() => {
  const { value } = section
  const bevels = value?.coats.filter((coat) => coat.height) ?? []
  const coat = bevels.find(({ id }) => id === bench.selectedPart) ?? bevels[0]
  if (!coat?.height || !value) return null
  const most = Math.max(1, ...coat.height.map(Math.abs))
  const scale = scaleLinear()
    .domain([-most, most])
    .range([BASE + 10, 20])
  const draw = line<number>()
    .x((i) => x.value(value.distances[i]!))
    .y((i) => scale(coat.height![i]!))
  const [low, high] = range.value
  return draw(value.distances.flatMap((d, i) => (d >= low && d <= high ? [i] : [])))
})

const depth = computed(() => section.value?.innerDepth ?? 0)
/** A slope or light that is wider than the piece is deep. */
const tooDeep = computed(() =>
  depth.value > 0
    ? (section.value?.coats.find((coat) => coat.marks.some((mark) => mark.deep && -mark.at > depth.value + 0.5)) ??
      null)
    : null,
)
const tooDeepTitle = computed(() => {
  const coats = bench.piece ? [...bench.piece.coats.face, ...bench.piece.coats.behind] : []
  const coat = coats.find(({ id }) => id === tooDeep.value?.id)
  return coat && switchValue(coat.on, momentOf(bench.card!, ribbon.frame)) ? coatTitle(coat) : ''
})

const ticks = computed(() => x.value.ticks(5))
</script>

<template>
  <section class="section" aria-label="Section across the edge">
    <div class="head">
      <span class="panel-title">Section</span>
      <button
        class="side"
        :aria-pressed="shadeSide"
        :title="shadeSide ? 'The edge faces away from the key light' : 'The edge faces the key light'"
        @click="shadeSide = !shadeSide"
      >
        {{ shadeSide ? 'shade side' : 'lit side' }}
      </button>
      <span v-if="depth" class="quiet depth" title="The largest distance from the edge inside the piece">
        inner depth {{ Math.round(depth * 10) / 10 }} px
      </span>
    </div>
    <div ref="box" class="chart">
      <div class="strip" :style="{ '--strip': strip, height: `${STRIP}px` }" aria-hidden="true" />
      <svg v-if="section && width > 0" :width="width" :height="HEIGHT">
        <defs>
          <linearGradient
            v-for="shape in shapes"
            :id="`section-${shape.id}`"
            :key="shape.id"
            gradientUnits="userSpaceOnUse"
            x1="0"
            :x2="width"
          >
            <stop v-for="(stop, i) in shape.stops" :key="i" :offset="stop.offset" :stop-color="stop.colour" />
          </linearGradient>
        </defs>
        <rect class="inside" x="0" y="16" :width="Math.max(0, x(0))" :height="BASE - 16" />
        <path
          v-for="shape in shapes"
          :key="shape.id"
          :d="shape.path"
          class="coat"
          :class="{ selected: shape.selected }"
          :fill="`url(#section-${shape.id})`"
          @click="bench.select(bench.selectedPiece, shape.id)"
        >
          <title>{{ shape.title }}</title>
        </path>
        <path v-if="height" class="height" :d="height" />
        <line class="edge" :x1="x(0)" :x2="x(0)" y1="14" :y2="BASE + 4" />
        <g v-if="depth > 0 && -depth > range[0]" class="inner-depth">
          <line :x1="x(-depth)" :x2="x(-depth)" y1="14" :y2="BASE + 4" />
        </g>
        <line class="ground" x1="0" :x2="width" :y1="BASE" :y2="BASE" />
        <text v-for="tick in ticks" :key="tick" class="tick" :x="x(tick)" :y="BASE + 16">{{ tick }}</text>
        <text class="word" x="3" y="28">inside</text>
        <text class="word end" :x="width - 3" y="28">outside</text>
        <SectionHandles :section="section" :x="x" :y="y" :width="width" :ground="BASE" />
      </svg>
    </div>
    <p v-if="tooDeepTitle" class="warning">
      {{ tooDeepTitle }} is wider than the piece is deep ({{ Math.round(depth * 10) / 10 }} px): it ends in a ridge.
    </p>
  </section>
</template>

<style scoped>
.section {
  padding: 8px 12px 6px;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding-bottom: 4px;
}
.side {
  padding: 0 6px;
  font: inherit;
  font-size: 12px;
  color: var(--teal);
  cursor: pointer;
  background: none;
  border: 1px solid var(--line);
  border-radius: 9px;
}
.depth {
  margin-left: auto;
  font-size: 12px;
}
.chart {
  position: relative;
  height: 118px;
}
.strip {
  position: absolute;
  inset: 0 0 auto;
  background:
    var(--strip),
    repeating-conic-gradient(#8a8a8a 0 25%, #747474 0 50%) 0 0 / 8px 8px;
  border-radius: 3px;
}
svg {
  position: absolute;
  inset: 0;
  overflow: hidden;
}
.inside {
  fill: var(--paper-3);
  fill-opacity: 0.7;
}
.coat {
  cursor: pointer;
  stroke: var(--ink);
  stroke-width: 0.5;
  stroke-opacity: 0.25;
  fill-opacity: 0.9;
}
.coat.selected {
  stroke: var(--teal);
  stroke-width: 1.6;
  stroke-opacity: 1;
}
.height {
  pointer-events: none;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.edge {
  stroke: var(--ink);
  stroke-dasharray: 3 3;
}
.ground {
  stroke: var(--line-strong);
}
.inner-depth line {
  stroke: var(--wax);
  stroke-width: 1.4;
}
.tick {
  font-size: 10.5px;
  fill: var(--ink-2);
  text-anchor: middle;
}
/* Read on coats of any colour. */
.word {
  font-size: 10.5px;
  pointer-events: none;
  fill: var(--ink-2);
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
  paint-order: stroke;
}
.word.end {
  text-anchor: end;
}
.warning {
  padding: 2px 0 0;
  margin: 0;
  font-size: 12px;
  color: var(--wax);
}
</style>
