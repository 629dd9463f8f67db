<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { writeValue } from '#core/edit/values'
import { PATH_PARAMETERS } from '#core/pieces/path'
import { valueAt } from '#core/values/evaluated'
import { isPathData, readPathData } from '#core/outline/svg-path'
import type { Placement } from '#core/outline/outline'
import { place, unplace } from '#core/outline/outline'
import type { PathContour, PointPlace } from '#core/outline/path-points'
import {
  insertPoint,
  moveHandle,
  movePoint,
  nearestOn,
  pointsOf,
  removePoint,
  toggleSmooth,
  writePoints,
} from '#core/outline/path-points'
import { snapPoint } from '#core/stage/snap'
import type { Point } from '#core/units'
import type { StoredValue } from '#core/values/moving'
import type { Held, StageHand } from '~/composables/stage-hand'
import { useRibbon } from '~/stores/ribbon'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useStage } from '~/stores/stage'

/** The points of a path where it stands: that of a piece, or of a mask. */
const props = defineProps<{
  hand: StageHand
  /** The piece that the path belongs to. */
  piece: string
  address: string
  /** As it is stored. */
  path: StoredValue
  /** From the path's own space to the card. */
  placement: Placement
  /** What Escape and Enter do; by default they are left to others. */
  leave?: () => void
}>()
const bench = useBench()
const ribbon = useRibbon()
const stage = useStage()

type Side = 'before' | 'after'
const chosen = ref<PointPlace | null>(null)
const { base } = useMoment(() => props.piece)
const data = computed(() => valueAt(PATH_PARAMETERS.path, props.path, base.value) as string)
const contours = computed(() => (isPathData(data.value) ? pointsOf(readPathData(data.value, props.address)) : []))
const toScreen = (p: Point) => props.hand.onScreen(place(props.placement, p))
const isChosen = (contour: number, point: number) => chosen.value?.contour === contour && chosen.value.point === point

function put(label: string, next: readonly PathContour[], mark = '') {
  const text = writePoints(next)
  bench.edit(label, (card) => writeValue(card, props.address, ribbon.frame, text), mark)
}

/** The pointer in the path's own space; it rests on lines and on the grid unless Ctrl is held. */
function own(point: Point, event: Held): Point {
  if (event.ctrlKey) return unplace(props.placement, point)
  const snapped = snapPoint(point, props.hand.linesFor([props.piece]), props.hand.reach.value, stage.grid)
  props.hand.showGuides(snapped.guides)
  return unplace(props.placement, { x: point.x + snapped.by.x, y: point.y + snapped.by.y })
}

function dragPoint(event: PointerEvent, at: PointPlace) {
  chosen.value = at
  if (event.altKey) {
    put('Corner or smooth', toggleSmooth(contours.value, at))
    return
  }
  props.hand.drag(event, pointMover(at))
}

/** Begins to move a point, or one of its handles; gives what follows the hand. */
function pointMover(at: PointPlace): (point: Point, event: Held) => void {
  const start = contours.value
  return (point, next) => put('Move a point', movePoint(start, at, own(point, next)), `${props.address}/point`)
}

function handleMover(at: PointPlace, side: Side): (point: Point, event: Held) => void {
  const start = contours.value
  // Alt breaks the line between the two handles.
  return (point, next) =>
    put('Bend', moveHandle(start, at, side, unplace(props.placement, point), !next.altKey), `${props.address}/bend`)
}

const dragHandle = (event: PointerEvent, at: PointPlace, side: Side) => props.hand.drag(event, handleMover(at, side))
const onCard = (point: Point) => place(props.placement, point)
function nudgePoint(event: KeyboardEvent, at: PointPlace, point: Point) {
  if (event.key === ' ') {
    event.preventDefault()
    event.stopPropagation()
    put('Corner or smooth', toggleSmooth(contours.value, at))
  } else props.hand.nudge(event, onCard(point), pointMover(at))
}

/** A new point where the path was pressed. */
function addPoint(event: PointerEvent) {
  const point = unplace(props.placement, props.hand.cardPoint(event))
  const nearest = nearestOn(contours.value, point)
  if (!nearest || nearest.t <= 0 || nearest.t >= 1) return
  put('Add a point', insertPoint(contours.value, nearest.at, nearest.t))
  chosen.value = { contour: nearest.at.contour, point: nearest.at.point + 1 }
}

function remove() {
  if (!chosen.value) return
  const left = removePoint(contours.value, chosen.value)
  if (left.length > 0) put('Take a point away', left)
  chosen.value = null
}

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if ((event.target as HTMLElement).matches('input:not([type=range]), textarea, select')) return
    const isDelete = event.key === 'Delete' || event.key === 'Backspace'
    if (isDelete && chosen.value) remove()
    else if (props.leave && (event.key === 'Escape' || event.key === 'Enter')) props.leave()
    else return
    event.preventDefault()
    event.stopImmediatePropagation()
  },
  { capture: true },
)

/** The outline in screen pixels, for pressing on it. */
const drawn = computed(() =>
  contours.value
    .map(({ closed, points }) => {
      const text = (p: Point) => `${toScreen(p).x} ${toScreen(p).y}`
      const edges = closed ? points.length : points.length - 1
      const parts = Array.from({ length: edges }, (_, i) => {
        const [a, b] = [points[i]!, points[(i + 1) % points.length]!]
        return `C ${text(a.after ?? a)} ${text(b.before ?? b)} ${text(b)}`
      })
      return `M ${text(points[0]!)} ${parts.join(' ')}`
    })
    .join(' '),
)
</script>

<template>
  <g v-if="contours.length > 0" class="path">
    <path class="under" :d="drawn" />
    <path class="line" :d="drawn" />
    <path class="press" :d="drawn" @pointerdown.stop="addPoint"><title>Press to add a point</title></path>
    <template v-for="({ points }, c) in contours" :key="c">
      <template v-for="(point, i) in points" :key="i">
        <template v-for="side in ['before', 'after'] as const" :key="side">
          <template v-if="point[side] && isChosen(c, i)">
            <line
              :x1="toScreen(point).x"
              :y1="toScreen(point).y"
              :x2="toScreen(point[side]!).x"
              :y2="toScreen(point[side]!).y"
            />
            <circle
              class="bend"
              :cx="toScreen(point[side]!).x"
              :cy="toScreen(point[side]!).y"
              r="4"
              tabindex="0"
              role="button"
              :aria-label="`Bend ${side} point ${i + 1}: arrows move it`"
              @pointerdown.stop="dragHandle($event, { contour: c, point: i }, side)"
              @keydown="hand.nudge($event, onCard(point[side]!), handleMover({ contour: c, point: i }, side))"
            >
              <title>Bend; Alt moves one side alone</title>
            </circle>
          </template>
        </template>
        <rect
          class="point"
          :class="{ on: isChosen(c, i) }"
          :x="toScreen(point).x - 4.5"
          :y="toScreen(point).y - 4.5"
          width="9"
          height="9"
          :rx="point.before || point.after ? 5 : 1"
          tabindex="0"
          role="button"
          :aria-label="`Point ${i + 1} of ${points.length}: arrows move it, Space makes it a corner or smooth`"
          @focus="chosen = { contour: c, point: i }"
          @pointerdown.stop="dragPoint($event, { contour: c, point: i })"
          @keydown="nudgePoint($event, { contour: c, point: i }, point)"
          @dblclick.stop="put('Corner or smooth', toggleSmooth(contours, { contour: c, point: i }))"
        >
          <title>Move; double-click for a corner or a bend; Delete takes it away</title>
        </rect>
      </template>
    </template>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke-width: 1.4;
}
.under {
  stroke: #0009;
  stroke-width: 3.4;
}
.line {
  stroke: #cfe0dc;
}
.press {
  cursor: copy;
  pointer-events: stroke;
  stroke: transparent;
  stroke-width: 12;
}
line {
  stroke: #cfe0dc;
}
.point {
  cursor: move;
  fill: #f6f1e7;
  stroke: #1e6b6a;
  stroke-width: 1.6;
}
.point.on {
  fill: #1e6b6a;
  stroke: #f6f1e7;
}
.bend {
  cursor: move;
  fill: #cfe0dc;
  stroke: #1e6b6a;
  stroke-width: 1.4;
}
</style>
