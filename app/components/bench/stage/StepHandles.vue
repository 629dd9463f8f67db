<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { writeValue } from '#core/edit/values'
import { MeasuredStrand } from '#core/outline/strand'
import { place, unplace } from '#core/outline/outline'
import { stepOf } from '#core/steps/table'
import type { Point } from '#core/units'
import { valueAt } from '#core/values/evaluated'
import type { Length } from '#core/values/moving'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'
import HandleLine from './HandleLine.vue'

/** Hands on what an outline step has on the stage: the ends of what is drawn, how far bands go, how far it is bent. */
const props = defineProps<{ hand: StageHand; engineName: string }>()
const bench = useBench()
const ribbon = useRibbon()
const { base } = useMoment()
const { onScreen } = props.hand

const step = computed(() => bench.step!)
const definition = computed(() => stepOf(step.value.kind))
const entry = computed(() => props.hand.outlook().find(({ id }) => id === bench.piece?.id))
const now = (name: string) => valueAt(definition.value.parameters[name]!, step.value[name], base.value)
const px = (length: Length) =>
  typeof length === 'number' ? length : (length.value / 100) * (entry.value?.reference ?? 0)

function put(label: string, values: Record<string, number>) {
  const address = `${bench.piece!.id}/${step.value.id}`
  bench.edit(
    `${label} of ${definition.value.label.toLowerCase()}`,
    (card) =>
      Object.entries(values).reduce((next, [name, value]) => {
        const parameter = definition.value.parameters[name]!
        const cut = 'min' in parameter ? Math.min(parameter.max, Math.max(parameter.min, value)) : value
        return writeValue(next, `${address}/${name}`, ribbon.frame, Math.round(cut * 10) / 10)
      }, card),
    `${address}/hand`,
  )
}

/** A length as it is stored: in % where it was in %. */
const stored = (name: string, value: number) =>
  typeof now(name) === 'number' ? value : (value / Math.max(1, entry.value?.reference ?? 1)) * 100

// The lines that are drawn on: the ends of the part are dragged along the longest of them.
const lines = ref<{ points: number[]; closed: boolean }[]>([])
watch(
  [step, () => bench.card, () => ribbon.frame],
  async () => {
    if (step.value.kind !== 'draw-on' || bench.dragging) return
    const [piece, id] = [bench.piece!.id, step.value.id]
    lines.value = await onEngine(
      (face) => face.linesInto(props.engineName, piece, id, ribbon.frame),
      () => [],
    )
  },
  { immediate: true },
)
const strand = computed(() => {
  if (step.value.kind !== 'draw-on') return null
  const all = lines.value.map(({ points, closed }) => new MeasuredStrand({ points, closed, smooth: [] }))
  return all.reduce<MeasuredStrand | null>((most, one) => (most && most.length >= one.length ? most : one), null)
})
/** Where along the line a share of the part stands, and back. */
const forward = computed(() => now('from') !== 'end')
const ends = computed(() => {
  const line = strand.value
  if (!line || now('from') === 'centre') return []
  const shift = Number(now('shift')) / 100
  return (['start', 'end'] as const).map((name) => {
    const share = Number(now(name)) / 100
    const at = shift + (forward.value ? share : 1 - share)
    const turned = line.strand.closed && at !== 1 ? at - Math.floor(at) : Math.min(1, Math.max(0, at))
    return { name, at: line.at(turned * line.length) }
  })
})

function moveEnd(name: 'start' | 'end') {
  return (point: Point) => {
    const line = strand.value!
    const shift = Number(now('shift')) / 100
    const at = nearest(line, point) / line.length - shift
    const share = line.strand.closed ? at - Math.floor(at) : Math.min(1, Math.max(0, at))
    // At the seam of a closed line the hand stays on the side that it comes from.
    const before = Number(now(name)) / 100
    const own = forward.value ? share : 1 - share
    put(name === 'start' ? 'Start' : 'End', {
      [name]: (line.strand.closed && Math.abs(own - before) > 0.7 ? Math.round(before) : own) * 100,
    })
  }
}

/** The length along a line that is nearest to a point. */
function nearest(line: MeasuredStrand, { x, y }: Point): number {
  let best = { distance: Infinity, at: 0 }
  const look = (at: number) => {
    const p = line.at(at)
    const distance = Math.hypot(p.x - x, p.y - y)
    if (distance < best.distance) best = { distance, at }
  }
  const steps = 400
  for (let i = 0; i <= steps; i++) look((line.length * i) / steps)
  const around = best.at
  for (let i = -10; i <= 10; i++) look(Math.min(line.length, Math.max(0, around + (line.length * i) / steps / 10)))
  return best.at
}

/** What is held by one point of the piece's own space: where it stands, and what it means there. */
interface Grip {
  label: string
  from: Point
  at: Point
  move(own: Point): void
}

const grips = computed<Grip[]>(() => {
  if (!entry.value) return []
  const { left, top, right, bottom } = entry.value.own
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2]
  if (step.value.kind === 'slices') {
    const angle = (Number(now('angle')) * Math.PI) / 180
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const [along, across] = [px(now('along') as Length), px(now('across') as Length)]
    const from = { x: cx, y: top }
    return [
      {
        label: 'How far bands go',
        from,
        at: { x: from.x + along * c + across * s, y: from.y - along * s + across * c },
        move: ({ x, y }) => {
          const [dx, dy] = [x - from.x, y - from.y]
          put('Way', { along: stored('along', dx * c - dy * s), across: stored('across', dx * s + dy * c) })
        },
      },
    ]
  }
  if (step.value.kind !== 'warp') return []
  const form = now('form')
  if (form === 'arc') {
    // The ends go down by as much as the middle of the arc stands above them.
    const bend = Number(now('bend'))
    const half = (right - left) / 2
    const sag = (b: number) => (b === 0 ? 0 : (half * 360 * (1 - Math.cos((b * Math.PI) / 360))) / (Math.PI * b))
    const from = { x: right, y: cy }
    return [
      {
        label: 'Bend',
        from,
        at: { x: right, y: cy + sag(bend) },
        move: ({ y }) => {
          let [low, high] = [-260, 260]
          for (let i = 0; i < 30; i++) {
            const middle = (low + high) / 2
            if (sag(middle) < y - cy) low = middle
            else high = middle
          }
          put('Bend', { bend: (low + high) / 2 })
        },
      },
    ]
  }
  if (form === 'wave') {
    const from = { x: left, y: cy }
    return [
      {
        label: 'Length and height',
        from,
        at: { x: left + px(now('length') as Length), y: cy - px(now('height') as Length) },
        move: ({ x, y }) =>
          put('Wave', {
            length: stored('length', Math.max(5, x - left)),
            height: stored('height', Math.max(0, cy - y)),
          }),
      },
    ]
  }
  if (form === 'swell') {
    const half = (bottom - top) / 2
    return [
      {
        label: 'Swell',
        from: { x: cx, y: top },
        at: { x: cx, y: cy - half * (1 + Number(now('swell')) / 100) },
        move: ({ y }) => put('Swell', { swell: ((cy - y) / Math.max(1, half) - 1) * 100 }),
      },
    ]
  }
  return []
})
const onCard = (point: Point) => place(entry.value!.placement, point)
const grip = (one: Grip) => (point: Point) => one.move(unplace(entry.value!.placement, point))
</script>

<template>
  <g class="step">
    <circle
      v-for="end in ends"
      :key="end.name"
      class="end"
      :class="end.name"
      :cx="onScreen(end.at).x"
      :cy="onScreen(end.at).y"
      r="7"
      tabindex="0"
      role="button"
      :aria-label="`${end.name === 'start' ? 'Start' : 'End'} of what is drawn, on the stage: arrows move it along`"
      @pointerdown.stop="hand.drag($event, moveEnd(end.name))"
      @keydown="hand.nudge($event, end.at, moveEnd(end.name))"
    >
      <title>{{ end.name === 'start' ? 'Where it begins' : 'Where it ends' }}</title>
    </circle>
    <template v-for="one in grips" :key="one.label">
      <HandleLine :from="onScreen(onCard(one.from))" :to="onScreen(onCard(one.at))" />
      <rect
        class="grip"
        :x="onScreen(onCard(one.at)).x - 6"
        :y="onScreen(onCard(one.at)).y - 6"
        width="12"
        height="12"
        rx="3"
        tabindex="0"
        role="button"
        :aria-label="`${one.label}, on the stage: arrows move it`"
        @pointerdown.stop="hand.drag($event, grip(one))"
        @keydown="hand.nudge($event, onCard(one.at), grip(one))"
      >
        <title>{{ one.label }}</title>
      </rect>
    </template>
  </g>
</template>

<style scoped>
.end,
.grip {
  cursor: move;
  fill: #9b2d26;
  stroke: #fff6ee;
  stroke-width: 1.8;
}
.end.start {
  fill: #2b2420;
}
</style>
