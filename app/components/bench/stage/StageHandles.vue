<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { shiftPiece } from '#core/edit/arrange'
import type { PathPiece } from '#core/card/schema'
import { switchValue } from '#core/values/evaluated'
import { allPieces, pathTo, holdsPieces } from '#core/card/tree'
import { momentOf } from '#core/time/ring'
import type { PieceOutlook } from '#core/frame/outlook'
import { SAFE_AREAS, safeRect } from '#core/judge/safe-areas'
import { snapShift } from '#core/stage/snap'
import type { Point, Rect } from '#core/units'
import { followPointer } from '~/composables/follow-pointer'
import { usePatientKeys } from '~/composables/patient-keys'
import { useStageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'
import { onEngine } from '~/workers/engine-pool'
import DrawingHand from './DrawingHand.vue'
import FinishHandles from './FinishHandles.vue'
import FitLinks from './FitLinks.vue'
import GradientHandles from './GradientHandles.vue'
import LightHandle from './LightHandle.vue'
import PaintingHand from './PaintingHand.vue'
import PathHandles from './PathHandles.vue'
import RouteHandles from './RouteHandles.vue'
import SelectionHandles from './SelectionHandles.vue'
import MaskHandles from './MaskHandles.vue'
import StepHandles from './StepHandles.vue'
import WeaveHandles from './WeaveHandles.vue'
import WordsHand from './WordsHand.vue'

const props = defineProps<{ outlook: PieceOutlook[]; isPlaced: boolean; zoom: number; engineName: string }>()

const bench = useBench()
const ribbon = useRibbon()
const stage = useStage()
const brush = useBrush()
const svg = ref<SVGSVGElement>()
const hand = useStageHand(
  svg,
  () => props.zoom,
  () => props.outlook,
)
const { guides, onScreen } = hand
usePatientKeys(svg, () => props.isPlaced)

const net = ref<{ from: Point; to: Point } | null>(null)
const frame = computed(() => bench.card!.frame)
const edited = computed(() => {
  const piece = bench.piece
  return piece?.kind === 'path' && stage.editedPath === piece.id ? (piece as PathPiece) : null
})
const editedPlacement = computed(() => props.outlook.find(({ id }) => id === edited.value?.id)?.placement ?? null)
const written = computed(() => {
  const piece = bench.piece
  return piece?.kind === 'type' && stage.editedWords === piece.id ? piece : null
})
/** A piece that is woven shows the letters, as long as nothing else of it is in hand. */
const woven = computed(() =>
  bench.pieces.length === 1 && !bench.selectedPart && bench.piece?.weave ? bench.piece : null,
)
/**
 * The sun is there while the light is what is worked on: on the card itself, or on a coat that follows it. Where a form of fields
 * stands beside the stage, the picture is to be seen as it will be.
 */
const lit = computed(
  () =>
    (!bench.piece && bench.card?.fields.length === 0) || bench.coat?.kind === 'bevel' || bench.coat?.kind === 'depth',
)
const gridLines = computed(() => {
  const step = stage.grid
  if (!step || step * props.zoom < 5) return { x: [], y: [] }
  const lines = (side: number) => Array.from({ length: Math.floor(side / step) }, (_, i) => (i + 1) * step)
  return { x: lines(frame.value.width), y: lines(frame.value.height) }
})
const areas = computed(() => SAFE_AREAS.map((area) => ({ ...area, rect: safeRect(frame.value, area.share) })))

// Whoever selects something outside of the opened group has left it.
watch(
  () => bench.selection,
  (ids) => {
    const open = allPieces(bench.card?.pieces ?? []).find(({ id }) => id === stage.openGroup)
    if (holdsPieces(open) && ids.length > 0 && !ids.every((id) => pathTo(open.pieces, id))) stage.openGroup = null
    if (bench.selectedPiece !== stage.editedPath) stage.editedPath = null
    if (bench.selectedPiece !== stage.editedWords) stage.editedWords = null
  },
)

const pickAt = (point: Point, group: string | null) =>
  onEngine(
    (face) => face.pick(props.engineName, ribbon.frame, point, group),
    () => null,
  )

/** The answer to the last press; a double click that comes before it waits. */
let picking: Promise<void> = Promise.resolve()

/** Looks what lies under the pointer, and follows the hand meanwhile: a drag that has begun is not lost. */
function press(event: PointerEvent) {
  if (event.button !== 0 || ribbon.playing) return
  const start = hand.cardPoint(event)
  if (stage.colourWanted) {
    void takeColour(start)
    return
  }
  stage.editedPath = null
  stage.editedWords = null
  let last = event
  let moved = false
  let released = false
  let goOn: ((point: Point, event: PointerEvent) => void) | null = null
  const base = bench.card!
  bench.endStep()
  followPointer(
    event,
    (next) => {
      last = next
      moved ||= Math.hypot(next.clientX - event.clientX, next.clientY - event.clientY) > 3
      if (moved) goOn?.(hand.cardPoint(next), next)
    },
    () => {
      released = true
      guides.value = { x: [], y: [] }
      if (net.value) endNet(event.shiftKey)
      bench.endStep()
    },
  )
  picking = pickAt(start, stage.openGroup).then((hit) => {
    if (event.shiftKey) {
      if (hit) bench.toggleSelected(hit)
    } else if (hit === null) bench.select(null)
    else if (!bench.isSelected(hit)) bench.select(hit)
    if (released && !moved) {
      // A click on one of several leaves it alone.
      if (hit && !event.shiftKey && bench.selection.length > 1) bench.select(hit)
      return
    }
    goOn = hit ? mover(base, start) : (point) => (net.value = { from: start, to: point })
    if (!moved) return
    // The hand moved before it was known what it holds; it may even have let go again.
    goOn(hand.cardPoint(last), last)
    if (!released) return
    if (net.value) endNet(event.shiftKey)
    guides.value = { x: [], y: [] }
    bench.endStep()
  })
}

/** Moves all that is selected; Shift keeps to one direction, Ctrl lets nothing hold it. */
function mover(base: NonNullable<typeof bench.card>, start: Point) {
  const ids = [...bench.selection]
  // A piece whose group is selected as well goes along with it.
  const entries = hand.selected.value.filter(({ id }) => !inSelectedGroup(id, ids))
  const around = hand.around.value
  const lines = hand.linesFor(ids)
  const label = ids.length > 1 ? `Move ${ids.length} pieces` : 'Move'
  return (point: Point, event: PointerEvent) => {
    const by = { x: point.x - start.x, y: point.y - start.y }
    if (event.shiftKey) {
      if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0
      else by.x = 0
    }
    const held = event.ctrlKey || !around ? null : snapShift(around, by, lines, hand.reach.value, stage.grid)
    guides.value = held?.guides ?? { x: [], y: [] }
    const shift = tidied(held?.by ?? by)
    bench.dragging = true
    bench.edit(
      label,
      () => entries.reduce((card, entry) => shiftPiece(card, entry, shift, ribbon.frame), base),
      `${label}/${ids.join(' ')}`,
    )
  }
}

const tidied = ({ x, y }: Point): Point => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 })

function inSelectedGroup(id: string, ids: readonly string[]): boolean {
  return allPieces(bench.card!.pieces).some(
    (piece) => holdsPieces(piece) && piece.id !== id && ids.includes(piece.id) && pathTo(piece.pieces, id) !== null,
  )
}

function endNet(adding: boolean) {
  const { from, to } = net.value!
  net.value = null
  const box: Rect = {
    left: Math.min(from.x, to.x),
    top: Math.min(from.y, to.y),
    right: Math.max(from.x, to.x),
    bottom: Math.max(from.y, to.y),
  }
  const group = allPieces(bench.card!.pieces).find(({ id }) => id === stage.openGroup)
  const list = holdsPieces(group) ? group.pieces : bench.card!.pieces
  const found = list
    .filter(({ on, locked }) => switchValue(on, momentOf(bench.card!, ribbon.frame)) && !locked)
    .filter(({ id }) => {
      const bounds = props.outlook.find((entry) => entry.id === id)?.bounds
      return (
        bounds &&
        bounds.left < box.right &&
        bounds.right > box.left &&
        bounds.top < box.bottom &&
        bounds.bottom > box.top
      )
    })
    .map(({ id }) => id)
  bench.selectAll(adding ? [...new Set([...bench.selection, ...found])] : found)
}

/** Opens what was hit: a group to its pieces, a path to its points. */
async function open(event: MouseEvent) {
  if (stage.drawing || ribbon.playing) return
  const point = hand.cardPoint(event)
  await picking
  const hit = allPieces(bench.card!.pieces).find(({ id }) => id === bench.selectedPiece)
  if (holdsPieces(hit)) {
    stage.openGroup = hit.id
    const inner = await pickAt(point, hit.id)
    if (inner) bench.select(inner)
  } else if (hit?.kind === 'path') stage.editedPath = hit.id
  else if (hit?.kind === 'type') stage.editedWords = hit.id
}

async function takeColour(point: Point) {
  const rgba = await onEngine(
    (face) => face.colourAt(props.engineName, ribbon.frame, point),
    () => null,
  )
  const give = stage.colourWanted
  stage.colourWanted = null
  if (rgba && rgba[3]! > 0) give?.(`#${rgba.slice(0, 3).map(hexByte).join('')}`)
}
const hexByte = (v: number) => v.toString(16).padStart(2, '0').toUpperCase()

const netBox = computed(() => {
  if (!net.value) return null
  const [a, b] = [onScreen(net.value.from), onScreen(net.value.to)]
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return { x, y, width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) }
})
</script>

<template>
  <svg
    ref="svg"
    class="handles"
    :class="{ dropper: stage.colourWanted }"
    aria-label="Stage"
    role="application"
    @pointerdown="press"
    @dblclick="open"
  >
    <g v-if="stage.grid" class="grid">
      <line v-for="x in gridLines.x" :key="`x${x}`" :x1="x * zoom" :x2="x * zoom" y1="0" :y2="frame.height * zoom" />
      <line v-for="y in gridLines.y" :key="`y${y}`" :y1="y * zoom" :y2="y * zoom" x1="0" :x2="frame.width * zoom" />
    </g>
    <template v-if="stage.safeAreas">
      <g v-for="{ id, label, rect } in areas" :key="id" class="safe">
        <rect
          :x="rect.left * zoom"
          :y="rect.top * zoom"
          :width="(rect.right - rect.left) * zoom"
          :height="(rect.bottom - rect.top) * zoom"
        />
        <text
          :x="rect.left * zoom + 6"
          :y="(id === 'action' ? rect.top : rect.bottom) * zoom + (id === 'action' ? 12 : -5)"
        >
          {{ label }}
        </text>
      </g>
    </template>
    <template v-if="!ribbon.playing">
      <line v-for="x in guides.x" :key="`gx${x}`" class="guide" :x1="x * zoom" :x2="x * zoom" y1="0" y2="100%" />
      <line v-for="y in guides.y" :key="`gy${y}`" class="guide" :y1="y * zoom" :y2="y * zoom" x1="0" x2="100%" />
      <WeaveHandles v-if="woven" :hand="hand" :piece="woven" />
      <PathHandles
        v-if="edited && editedPlacement"
        :hand="hand"
        :piece="edited.id"
        :address="`${edited.id}/path`"
        :path="edited.path"
        :placement="editedPlacement"
        :leave="() => (stage.editedPath = null)"
      />
      <template v-else-if="!written && !bench.mask && !(brush.taken && brush.target)">
        <SelectionHandles :hand="hand" />
        <RouteHandles v-if="stage.routes" :hand="hand" />
      </template>
      <GradientHandles :hand="hand" />
      <FitLinks v-if="bench.piece && bench.pieces.length === 1" :hand="hand" :piece="bench.piece" />
      <FinishHandles v-if="bench.finish" :hand="hand" />
      <MaskHandles v-if="bench.mask && !(brush.taken && brush.target)" :key="bench.mask.id" :hand="hand" />
      <StepHandles v-if="bench.step" :key="bench.step.id" :hand="hand" :engine-name="engineName" />
      <WordsHand v-if="written" :key="written.id" :hand="hand" :piece="written" />
      <LightHandle v-if="lit" :hand="hand" />
      <rect v-if="netBox" class="net" v-bind="netBox" />
      <DrawingHand v-if="stage.drawing" :hand="hand" :kind="stage.drawing" />
      <PaintingHand v-else-if="brush.taken && brush.target" :hand="hand" :target="brush.target" />
    </template>
  </svg>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
}
.dropper {
  cursor: crosshair;
}
.guide {
  pointer-events: none;
  stroke: #e5564b;
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.net {
  fill: #cfe0dc2e;
  stroke: #cfe0dc;
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
.grid line {
  pointer-events: none;
  stroke: #fff;
  stroke-width: 1;
  stroke-opacity: 0.18;
  shape-rendering: crispedges;
}
.safe {
  pointer-events: none;
}
.safe rect {
  fill: none;
  stroke: #fff;
  stroke-dasharray: 6 5;
  stroke-opacity: 0.65;
  filter: drop-shadow(0 0 1px #000a);
}
.safe text {
  font-size: 10px;
  fill: #fff;
  fill-opacity: 0.8;
  paint-order: stroke;
  stroke: #0008;
  stroke-width: 2px;
}
</style>
