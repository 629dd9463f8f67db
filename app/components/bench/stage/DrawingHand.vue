<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { drawForm, drawPath, squared } from '#core/edit/draw'
import type { FreehandPoint } from '#core/edit/freehand'
import { drawFreehand, freehandArea } from '#core/edit/freehand'
import { writeValue } from '#core/edit/values'
import { unplace } from '#core/outline/outline'
import { PIECE_KINDS } from '#core/pieces/table'
import type { PathPoint } from '#core/outline/path-points'
import { snapPoint } from '#core/stage/snap'
import type { Point } from '#core/units'
import { followPointer } from '~/composables/follow-pointer'
import { penPoints, useMaskSpace } from '~/composables/mask-space'
import { useRibbonTime } from '~/composables/ribbon-time'
import type { StageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import type { DrawnKind } from '~/stores/stage'
import { useStage } from '~/stores/stage'

/** Draws a new piece: forms by dragging, paths point by point or in one go. */
const props = defineProps<{ hand: StageHand; kind: DrawnKind }>()
const bench = useBench()
const stage = useStage()
const { onScreen } = props.hand
const space = useMaskSpace(props.hand)
const { frame } = useRibbonTime()

const form = ref<{ from: Point; to: Point } | null>(null)
const points = ref<PathPoint[]>([])
const pointer = ref<Point | null>(null)
/** How near to the first point, on the screen, a press closes the path. */
const HOME = 9

function rest(point: Point, event: PointerEvent): Point {
  if (event.ctrlKey) return point
  const { by, guides } = snapPoint(point, props.hand.linesFor([]), props.hand.reach.value, stage.grid)
  props.hand.showGuides(guides)
  return { x: point.x + by.x, y: point.y + by.y }
}

function press(event: PointerEvent) {
  const at = rest(props.hand.cardPoint(event), event)
  if (props.kind === 'path') addPoint(event, at)
  else if (props.kind === 'freehand' || props.kind === 'mask') drawOn(event)
  else drawFrom(event, at)
}

function drawFrom(event: PointerEvent, from: Point) {
  form.value = { from, to: from }
  followPointer(
    event,
    (next) => {
      let to = rest(props.hand.cardPoint(next), next)
      if (next.shiftKey) to = props.kind === 'line' ? squared(from, to) : even(from, to)
      form.value = { from, to }
    },
    () => finishForm(),
  )
}

/** As high as wide. */
function even(from: Point, to: Point): Point {
  const side = Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y))
  return { x: from.x + side * Math.sign(to.x - from.x || 1), y: from.y + side * Math.sign(to.y - from.y || 1) }
}

function finishForm() {
  const drawn = form.value
  form.value = null
  props.hand.showGuides({ x: [], y: [] })
  const kind = props.kind as Exclude<DrawnKind, 'path' | 'freehand' | 'mask'>
  if (!drawn || Math.hypot(drawn.to.x - drawn.from.x, drawn.to.y - drawn.from.y) < 2) return
  put(kind, (card) => drawForm(card, kind, drawn.from, drawn.to))
}

const line = ref<FreehandPoint[]>([])
/** Screen px that a fitted path may lie beside the hand's own line. */
const LOOSE = 2.5

/** A pen tells how hard it is pressed; without one the speed of the hand does. */
function drawOn(event: PointerEvent) {
  const seen = (next: PointerEvent) => penPoints(props.hand, next)
  line.value = seen(event)
  followPointer(
    event,
    (next) => (line.value = [...line.value, ...seen(next)]),
    () => {
      const drawn = line.value
      line.value = []
      if (props.kind === 'mask') return drawMask(drawn)
      let id = ''
      bench.edit('Draw freehand', (card) => {
        const made = drawFreehand(card, drawn, LOOSE / props.hand.zoom())
        id = made?.id ?? ''
        return made?.card ?? card
      })
      if (!id) return
      stage.drawing = null
      bench.select(id)
    },
  )
}

/** The area of the selected mask, in its own space, at the playhead's frame. */
function drawMask(drawn: readonly FreehandPoint[]) {
  const { piece, mask } = bench
  const path = freehandArea(
    drawn.map((point) => ({ ...point, ...unplace(space.value, point) })),
    LOOSE / props.hand.zoom() / space.value.scale,
  )
  if (!piece || !mask || !path) return
  stage.drawing = null
  bench.edit('Draw the mask', (card) => writeValue(card, `${piece.id}/${mask.id}/path`, frame.value, path))
}

function put(
  kind: Exclude<DrawnKind, 'freehand' | 'mask'>,
  make: (card: NonNullable<typeof bench.card>) => { card: typeof card; id: string },
) {
  let id = ''
  bench.edit(`Draw ${PIECE_KINDS[kind].label.toLowerCase()}`, (card) => {
    const made = make(card)
    id = made.id
    return made.card
  })
  stage.drawing = null
  bench.select(id)
}

function addPoint(event: PointerEvent, at: Point) {
  const [first] = points.value
  if (first && points.value.length > 1) {
    const [a, b] = [onScreen(first), onScreen(at)]
    if (Math.hypot(a.x - b.x, a.y - b.y) < HOME) {
      finishPath(true)
      return
    }
  }
  const last = points.value.at(-1)
  const spot = event.shiftKey && last ? squared(last, at) : at
  const index = points.value.length
  points.value = [...points.value, { ...spot, before: null, after: null }]
  // Dragging from the new point bends the path there, evenly on both sides.
  followPointer(event, (next) => {
    const handle = props.hand.cardPoint(next)
    const far = Math.hypot(handle.x - spot.x, handle.y - spot.y) * props.hand.zoom() > 4
    const bent = far
      ? { ...spot, after: handle, before: { x: 2 * spot.x - handle.x, y: 2 * spot.y - handle.y } }
      : { ...spot, before: null, after: null }
    points.value = points.value.map((point, i) => (i === index ? bent : point))
  })
}

function finishPath(closed: boolean) {
  const drawn = points.value
  points.value = []
  pointer.value = null
  props.hand.showGuides({ x: [], y: [] })
  if (drawn.length < 2) {
    stage.drawing = null
    return
  }
  put('path', (card) => drawPath(card, { closed, points: drawn }))
  stage.editedPath = bench.selectedPiece
}

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if (event.key === 'Enter' && props.kind === 'path') finishPath(false)
    else if (event.key === 'Backspace' && points.value.length > 0) points.value = points.value.slice(0, -1)
    else if (event.key === 'Escape') {
      points.value = []
      stage.drawing = null
    } else return
    event.preventDefault()
    event.stopImmediatePropagation()
  },
  { capture: true },
)

const path = computed(() => {
  const text = (p: Point) => `${onScreen(p).x} ${onScreen(p).y}`
  const all: PathPoint[] = pointer.value
    ? [...points.value, { ...pointer.value, before: null, after: null }]
    : points.value
  return all
    .map((b, i) => {
      const a = all[i - 1]
      return a ? `C ${text(a.after ?? a)} ${text(b.before ?? b)} ${text(b)}` : `M ${text(b)}`
    })
    .join(' ')
})
const box = computed(() => {
  if (!form.value) return null
  const [a, b] = [onScreen(form.value.from), onScreen(form.value.to)]
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
    line: { a, b },
  }
})
</script>

<template>
  <g class="drawing">
    <rect
      class="ground"
      x="-10000"
      y="-10000"
      width="30000"
      height="30000"
      @pointerdown.stop="press"
      @pointermove="kind === 'path' && points.length > 0 && (pointer = rest(hand.cardPoint($event), $event))"
      @dblclick.stop="kind === 'path' && finishPath(false)"
    />
    <template v-if="box">
      <line v-if="kind === 'line'" :x1="box.line.a.x" :y1="box.line.a.y" :x2="box.line.b.x" :y2="box.line.b.y" />
      <ellipse
        v-else-if="kind === 'ellipse'"
        :cx="box.x + box.width / 2"
        :cy="box.y + box.height / 2"
        :rx="box.width / 2"
        :ry="box.height / 2"
      />
      <rect v-else :x="box.x" :y="box.y" :width="box.width" :height="box.height" class="form" />
      <text v-if="form" :x="box.x + box.width + 8" :y="box.y + box.height + 4">
        {{ Math.round(Math.abs(form.to.x - form.from.x)) }} × {{ Math.round(Math.abs(form.to.y - form.from.y)) }}
      </text>
    </template>
    <polyline v-if="line.length > 1" :points="line.map((p) => `${onScreen(p).x},${onScreen(p).y}`).join(' ')" />
    <template v-if="points.length > 0">
      <path :d="path" />
      <circle
        v-for="(point, i) in points"
        :key="i"
        :class="{ home: i === 0 && points.length > 1 }"
        :cx="onScreen(point).x"
        :cy="onScreen(point).y"
        :r="i === 0 ? 5 : 3.5"
      />
    </template>
  </g>
</template>

<style scoped>
.ground {
  cursor: crosshair;
  fill: transparent;
}
line,
ellipse,
path,
polyline,
.form {
  pointer-events: none;
  fill: #cfe0dc33;
  stroke: #f6f1e7;
  stroke-width: 1.4;
  filter: drop-shadow(0 0 1px #000a);
}
path,
polyline {
  fill: none;
}
circle {
  pointer-events: none;
  fill: #f6f1e7;
  stroke: #1e6b6a;
  stroke-width: 1.6;
}
.home {
  fill: #1e6b6a;
  stroke: #f6f1e7;
}
text {
  font-size: 12px;
  fill: #fff6ee;
  paint-order: stroke;
  stroke: #2b2420;
  stroke-width: 3px;
}
</style>
