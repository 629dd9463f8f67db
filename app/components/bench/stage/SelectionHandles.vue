<script setup lang="ts">
import { valuesOf } from '#core/card/parts'
import { computed } from 'vue'
import { shiftPiece } from '#core/edit/arrange'
import { moveAnchor } from '#core/edit/grouping'
import { writeValue } from '#core/edit/values'
import type { Card, Piece } from '#core/card/schema'
import type { Parameters } from '#core/values/parameter-kinds'
import { PIECE_KINDS } from '#core/pieces/table'
import { PLACE_PARAMETERS } from '#core/pieces/place'
import { valueAt } from '#core/values/evaluated'
import type { PieceOutlook } from '#core/frame/outlook'
import { place, unplace } from '#core/outline/outline'
import { directionOf, distanceBetween } from '#core/outline/measure'
import { snapPoint } from '#core/stage/snap'
import type { Point } from '#core/units'
import { usePullSides } from '~/composables/pull-sides'
import type { StageHand } from '~/composables/stage-hand'
import { momentIn } from '#core/time/clock'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const ribbon = useRibbon()

const { onScreen } = props.hand
const chosen = computed(() => props.hand.selected.value)
const single = computed(() => (chosen.value.length === 1 ? chosen.value[0]! : null))
const outlineOf = (entry: PieceOutlook) => entry.corners.map((p) => `${onScreen(p).x},${onScreen(p).y}`).join(' ')

/** The corners that the handles stand on: the piece's own, or those around all that is selected. */
const corners = computed<Point[]>(() => {
  if (single.value) return single.value.corners
  const box = props.hand.around.value
  if (!box) return []
  const { left, top, right, bottom } = box
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ]
})
const middles = computed(() => corners.value.map((a, i) => middle(a, corners.value[(i + 1) % 4]!)))
const middle = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
/** Whether the sides can be pulled: the form has a width and a height. */
const sized = computed(
  () => single.value !== null && bench.piece !== null && 'width' in bench.piece && 'height' in bench.piece,
)
/** Type with a text box: its sides are those of the box. */
const boxed = computed(() => single.value !== null && bench.piece?.kind === 'type' && bench.piece.width !== 0)

/** Where the handle for turning stands: above the middle of the upper edge. */
const turner = computed(() => {
  if (corners.value.length === 0) return null
  const [a, , , d] = corners.value.map(onScreen) as [Point, Point, Point, Point]
  const from = onScreen(middles.value[0]!)
  const length = Math.max(1, Math.hypot(a.x - d.x, a.y - d.y))
  const way = length > 2 ? { x: (a.x - d.x) / length, y: (a.y - d.y) / length } : { x: 0, y: -1 }
  return { from, to: { x: from.x + way.x * 26, y: from.y + way.y * 26 } }
})

const present = (piece: Piece, name: 'scale' | 'rotation' | 'width' | 'height') => {
  const at = { ...momentIn(bench.card!, piece.id, ribbon.frame), bare: true }
  const parameters: Parameters = { ...PLACE_PARAMETERS, ...PIECE_KINDS[piece.kind].parameters }
  return valueAt(parameters[name]!, valuesOf(piece)[name], at) as number
}

const pieceOf = (id: string) => bench.pieces.find((piece) => piece.id === id)!
const distance = distanceBetween
/** Where a point lies from another one; anticlockwise, as the card measures. */
const angle = (a: Point, b: Point) => directionOf(b, a)

/** One step from the card as it was when the hand took hold. */
function fromHere(label: string): (change: (card: Card) => Card) => void {
  const base = bench.card!
  const mark = `${label}/${bench.selection.join(' ')}`
  return (change) => bench.edit(label, () => change(base), mark)
}

/** What is selected, apart from pieces whose group is selected as well: those go along. */
const loose = () => chosen.value

const puller = usePullSides(props.hand, { single, sized, boxed, present, pieceOf, fromHere })

/** Where a corner's scaling starts from. */
const pivotOf = (index: number) => (single.value ? single.value.place : corners.value[(index + 2) % 4]!)

/** Begins to scale all that is selected; gives what follows the hand: how often as large it is now. */
function scaler(pivot: Point): (factor: number) => void {
  const put = fromHere('Scale')
  const before = loose().map((entry) => ({ entry, scale: present(pieceOf(entry.id), 'scale') }))
  return (factor) =>
    put((card) =>
      before.reduce((next, { entry, scale }) => {
        const grown = writeValue(next, `${entry.id}/scale`, ribbon.frame, tenths(scale * factor))
        return shiftPiece(grown, entry, from(pivot, entry.place, factor), ribbon.frame)
      }, card),
    )
}

function scaleAll(event: PointerEvent, index: number) {
  scaleFrom(event, pivotOf(index))
}

/** How far a point goes when everything grows about a pivot. */
const from = (pivot: Point, point: Point, factor: number): Point => ({
  x: (point.x - pivot.x) * (factor - 1),
  y: (point.y - pivot.y) * (factor - 1),
})
const tenths = (value: number) => Math.round(value * 10) / 10

/** What all that is selected turns about. */
const hub = computed<Point | null>(() => {
  const box = props.hand.around.value
  if (single.value) return single.value.place
  return box ? { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 } : null
})

/** Begins to turn all that is selected; gives what follows the hand: by how many degrees, in steps of so many. */
function spinner(pivot: Point): (by: number, step: number) => void {
  const put = fromHere('Rotate')
  const before = loose().map((entry) => ({ entry, rotation: present(pieceOf(entry.id), 'rotation') }))
  return (by, step) =>
    put((card) =>
      before.reduce((c, { entry, rotation }) => {
        // One piece comes to rest at whole steps of its own; several turn by whole steps.
        const to = single.value ? Math.round((rotation + by) / step) * step : rotation + Math.round(by / step) * step
        const turned = writeValue(c, `${entry.id}/rotation`, ribbon.frame, to)
        const around = place(
          { scale: 1, rotation: to - rotation, ...pivot },
          {
            x: entry.place.x - pivot.x,
            y: entry.place.y - pivot.y,
          },
        )
        return shiftPiece(turned, entry, { x: around.x - entry.place.x, y: around.y - entry.place.y }, ribbon.frame)
      }, card),
    )
}

function turn(event: PointerEvent) {
  const pivot = hub.value
  if (!pivot) return
  const start = angle(props.hand.cardPoint(event), pivot)
  const spin = spinner(pivot)
  props.hand.drag(event, (point, next) => {
    let by = angle(point, pivot) - start
    by -= 360 * Math.round(by / 360)
    spin(by, next.shiftKey ? 15 : 1)
  })
}

/** Left and up turn it anticlockwise by a degree, right and down clockwise. */
function turnByKey(event: KeyboardEvent) {
  const by = props.hand.arrow(event)
  if (by && hub.value) spinner(hub.value)(-(by.x + by.y), 1)
}

/** Right and up make it larger by 1 %, left and down smaller; a side goes by px. */
function growByKey(event: KeyboardEvent, index: number) {
  if (sized.value || (single.value && event.ctrlKey)) {
    const [sx, sy] = CORNER_SIDES[index]!
    sideByKey(event, corners.value[index]!, sx, sy)
    return
  }
  const by = props.hand.arrow(event)
  if (!by) return
  const scale = single.value ? present(pieceOf(single.value.id), 'scale') : 100
  scaler(pivotOf(index))(Math.max(0.01, scale + by.x - by.y) / scale)
}

function sideByKey(event: KeyboardEvent, at: Point, sx: number, sy: number) {
  const pull = puller(sx, sy)
  if (pull) props.hand.nudge(event, at, pull)
}

function resize(event: PointerEvent, sx: number, sy: number) {
  // Held the other way round: a side scales, a corner stretches.
  if (!sized.value && sx * sy === 0 && event.ctrlKey) scaleFrom(event, single.value!.place)
  else {
    const pull = puller(sx, sy)
    if (pull) props.hand.drag(event, pull)
  }
}

function scaleFrom(event: PointerEvent, pivot: Point) {
  const start = distance(props.hand.cardPoint(event), pivot)
  if (start === 0) return
  const scale = scaler(pivot)
  props.hand.drag(event, (point) => scale(distance(point, pivot) / start))
}

/** With Alt only: it often stands in the middle, where a piece is taken to be moved. */
function dragAnchor(event: PointerEvent) {
  if (!event.altKey) return
  event.stopPropagation()
  const entry = single.value!
  const put = fromHere('Anchor')
  // It comes to rest on the corners, the middles of the sides and the middle of the piece.
  const stops = [...entry.corners, ...middles.value, middle(entry.corners[0], entry.corners[2])]
  const lines = { x: stops.map(({ x }) => x), y: stops.map(({ y }) => y) }
  props.hand.drag(event, (raw, next) => {
    const { by } = snapPoint(raw, lines, next.ctrlKey ? 0 : props.hand.reach.value)
    const point = unplace(entry.placement, { x: raw.x + by.x, y: raw.y + by.y })
    put((card) => moveAnchor(card, entry.id, { x: tenths(point.x), y: tenths(point.y) }, ribbon.frame))
  })
}

const CORNER_SIDES = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const
const EDGE_SIDES = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
] as const

function grab(event: PointerEvent, i: number) {
  const [sx, sy] = CORNER_SIDES[i]!
  if (sized.value || (single.value && event.ctrlKey)) resize(event, sx, sy)
  else scaleAll(event, i)
}
</script>

<template>
  <g v-if="chosen.length > 0">
    <polygon v-for="entry in chosen" :key="entry.id" class="bounds" :points="outlineOf(entry)" />
    <rect
      v-if="!single && hand.around.value"
      class="bounds around"
      :x="onScreen(corners[0]!).x"
      :y="onScreen(corners[0]!).y"
      :width="onScreen(corners[2]!).x - onScreen(corners[0]!).x"
      :height="onScreen(corners[2]!).y - onScreen(corners[0]!).y"
    />
    <template v-if="turner">
      <line class="stem" :x1="turner.from.x" :y1="turner.from.y" :x2="turner.to.x" :y2="turner.to.y" />
      <circle
        class="grip turn"
        :cx="turner.to.x"
        :cy="turner.to.y"
        r="5.5"
        tabindex="0"
        role="button"
        aria-label="Turn what is selected: arrows turn it"
        @pointerdown.stop="turn"
        @keydown="turnByKey"
      >
        <title>Turn; Shift in steps of 15°</title>
      </circle>
    </template>
    <template v-if="single">
      <rect
        v-for="(point, i) in middles"
        :key="`side-${i}`"
        class="grip side"
        :x="onScreen(point).x - 4"
        :y="onScreen(point).y - 4"
        width="8"
        height="8"
        tabindex="0"
        role="button"
        :aria-label="`${['Upper', 'Right', 'Lower', 'Left'][i]} side: arrows pull it`"
        @pointerdown.stop="resize($event, EDGE_SIDES[i]![0], EDGE_SIDES[i]![1])"
        @keydown="sideByKey($event, point, EDGE_SIDES[i]![0], EDGE_SIDES[i]![1])"
      >
        <title>
          {{
            sized
              ? 'Pull the side; Alt keeps the middle'
              : boxed && EDGE_SIDES[i]![1] === 0
                ? 'Pull the side of the text box'
                : 'Stretch; Alt keeps the anchor, Ctrl scales'
          }}
        </title>
      </rect>
    </template>
    <circle
      v-for="(corner, i) in corners"
      :key="i"
      class="grip"
      :cx="onScreen(corner).x"
      :cy="onScreen(corner).y"
      r="5"
      tabindex="0"
      role="button"
      :aria-label="`${['Upper left', 'Upper right', 'Lower right', 'Lower left'][i]} corner: arrows ${sized ? 'pull' : 'scale'} it`"
      @pointerdown.stop="grab($event, i)"
      @keydown="growByKey($event, i)"
    >
      <title>{{ sized ? 'Size; Shift keeps the proportions, Alt the middle' : 'Scale; Ctrl stretches' }}</title>
    </circle>
    <g v-if="single" class="anchor" @pointerdown="dragAnchor">
      <circle :cx="onScreen(single.place).x" :cy="onScreen(single.place).y" r="9" class="area" />
      <path :d="`M${onScreen(single.place).x - 7} ${onScreen(single.place).y}h14m-7-7v14`" />
      <circle :cx="onScreen(single.place).x" :cy="onScreen(single.place).y" r="3.5" class="ring" />
      <title>Anchor: the piece turns and grows about it; Alt and drag moves it</title>
    </g>
  </g>
</template>

<style scoped>
.bounds {
  pointer-events: none;
  fill: none;
  stroke: #cfe0dc;
  stroke-width: 1.2;
  filter: drop-shadow(0 0 1px #0008);
}
.around {
  stroke-dasharray: 5 4;
}
.grip {
  cursor: nwse-resize;
  fill: #f6f1e7;
  stroke: #1e6b6a;
  stroke-width: 2;
}
.side {
  cursor: move;
  stroke-width: 1.5;
}
.turn {
  cursor: grab;
  fill: #1e6b6a;
  stroke: #f6f1e7;
}
.stem {
  pointer-events: none;
  stroke: #cfe0dc;
}
.anchor {
  cursor: move;
}
.anchor path,
.ring {
  fill: none;
  stroke: #f6f1e7;
  stroke-width: 1.4;
  filter: drop-shadow(0 0 1px #000a);
}
.area {
  fill: transparent;
}
</style>
