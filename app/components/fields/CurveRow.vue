<script setup lang="ts">
import { line } from 'd3'
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import type { CurveName, CurvePoint, StoredCurve } from '#core/curves/curve'
import { CURVE_SHAPES, pointsOf, readCurve } from '#core/curves/curve'
import { followPointer } from '~/composables/follow-pointer'
import { useParameter } from '~/composables/parameter'
import { useBench } from '~/stores/bench'
import KeyDot from './KeyDot.vue'
import HintText from './HintText.vue'

const props = defineProps<{ place: ParameterPlace }>()
const bench = useBench()
const { value, moving, keyHere, write, key } = useParameter(() => props.place)

const W = 168
const H = 92
const stored = computed(() => value.value as StoredCurve)
const drawn = computed(() => typeof stored.value !== 'string')
const points = computed(() => (drawn.value ? pointsOf(stored.value) : []))
const chosen = ref<number | null>(null)
const help = computed(() => CURVE_SHAPES.find(({ name }) => name === stored.value)?.help ?? 'A curve of your own')
const path = computed(() => {
  const curve = readCurve(stored.value)
  const samples = Array.from({ length: 129 }, (_, i) => i / 128)
  return line<number>(
    (x) => x * W,
    (x) => H - curve(x) * H,
  )(samples)!
})

function choose(name: string) {
  chosen.value = null
  write(name === 'own' ? { points: pointsOf(stored.value) } : (name as CurveName), '')
}

function put(next: CurvePoint[], mark?: string) {
  write({ points: next }, mark)
}

const unit = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000

function at(event: PointerEvent | MouseEvent, target: Element): { x: number; y: number } {
  const bounds = target.getBoundingClientRect()
  return {
    x: unit((event.clientX - bounds.left) / bounds.width),
    y: unit(1 - (event.clientY - bounds.top) / bounds.height),
  }
}

/** Pressing the chart adds a point; a shape that is ready-made becomes one of points first. */
function press(event: PointerEvent) {
  const svg = event.currentTarget as SVGSVGElement
  const spot = at(event, svg)
  const start = pointsOf(stored.value)
  if (start.length >= 32 || start.some(({ x }) => Math.abs(x - spot.x) < 0.02)) return
  const next = [...start, spot].sort((a, b) => a.x - b.x)
  put(next, '')
  drag(event, next.indexOf(spot), svg)
}

function drag(event: PointerEvent, index: number, svg = (event.currentTarget as Element).closest('svg')!) {
  chosen.value = index
  bench.endStep()
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      const spot = at(next, svg)
      const others = points.value
      const low = index > 0 ? others[index - 1]!.x + 0.005 : 0
      const high = index < others.length - 1 ? others[index + 1]!.x - 0.005 : 1
      const x = unit(Math.min(high, Math.max(low, spot.x)))
      put(others.map((other, i) => (i === index ? { ...other, x, y: spot.y } : other)))
    },
    () => bench.endStep(),
  )
}

function remove(index: number) {
  if (points.value.length > 2)
    put(
      points.value.filter((_, i) => i !== index),
      '',
    )
  chosen.value = null
}

function turn(index: number) {
  const joint = points.value[index]!.joint === 'corner' ? 'smooth' : 'corner'
  put(
    points.value.map((other, i) => (i === index ? { ...other, joint } : other)),
    '',
  )
}

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-0.01, 0],
  ArrowRight: [0.01, 0],
  ArrowUp: [0, 0.01],
  ArrowDown: [0, -0.01],
}

function nudge(event: KeyboardEvent, index: number) {
  if (event.key === 'Delete' || event.key === 'Backspace') remove(index)
  else if (event.key === 'Enter') turn(index)
  else if (STEPS[event.key]) {
    const [dx, dy] = STEPS[event.key]!
    const others = points.value
    const low = index > 0 ? others[index - 1]!.x + 0.005 : 0
    const high = index < others.length - 1 ? others[index + 1]!.x - 0.005 : 1
    const moved = (p: CurvePoint) => ({ ...p, x: unit(Math.min(high, Math.max(low, p.x + dx))), y: unit(p.y + dy) })
    put(others.map((other, i) => (i === index ? moved(other) : other)))
  } else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="curve">
    <span class="label">
      {{ place.parameter.label }}
      <HintText :text="place.parameter.help" />
      <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
    </span>
    <div class="field">
      <select
        class="plain-field"
        :value="drawn ? 'own' : stored"
        :aria-label="place.label"
        :title="help"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="shape in CURVE_SHAPES" :key="shape.name" :value="shape.name">{{ shape.label }}</option>
        <option value="own">Own points</option>
      </select>
      <svg
        :viewBox="`-6 -6 ${W + 12} ${H + 12}`"
        role="group"
        :aria-label="`${place.label}, chart`"
        @pointerdown.prevent="press"
      >
        <rect class="ground" :width="W" :height="H" rx="3" />
        <path class="grid" :d="`M0 ${H / 2}H${W}M${W / 2} 0V${H}`" />
        <path class="under" :d="`${path}L${W} ${H}L0 ${H}Z`" />
        <path class="line" :d="path" />
        <component
          :is="point.joint === 'corner' ? 'rect' : 'circle'"
          v-for="(point, i) in points"
          :key="i"
          class="point"
          :class="{ chosen: i === chosen }"
          tabindex="0"
          role="button"
          :aria-label="`Point ${i + 1}: ${point.x}, ${point.y}`"
          v-bind="
            point.joint === 'corner'
              ? { x: point.x * W - 4.5, y: H - point.y * H - 4.5, width: 9, height: 9 }
              : { cx: point.x * W, cy: H - point.y * H, r: 5 }
          "
          @pointerdown.stop.prevent="drag($event, i)"
          @dblclick.stop="turn(i)"
          @keydown="nudge($event, i)"
        >
          <title>Drag; double-click for a corner; Delete takes it away</title>
        </component>
      </svg>
    </div>
  </div>
</template>

<style scoped>
.curve {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 8px;
  padding: 3px 0;
}
.label {
  padding-top: 5px;
  color: var(--ink-2);
}
.field {
  display: grid;
  gap: 5px;
}
svg {
  width: 100%;
  touch-action: none;
  cursor: crosshair;
}
.ground {
  fill: var(--raised);
  stroke: var(--line);
}
.grid {
  stroke: var(--line);
}
.under {
  opacity: 0.14;
  fill: var(--teal);
}
.line {
  fill: none;
  stroke: var(--teal);
  stroke-width: 2;
}
.point {
  cursor: grab;
  fill: var(--paper);
  stroke: var(--teal);
  stroke-width: 2;
}
.point.chosen {
  fill: var(--teal);
}
</style>
