<script setup lang="ts">
import { computed, ref } from 'vue'
import { writeValue } from '#core/card/edit/values'
import type { Card } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/engine'
import { settleNumber } from '#core/card/settled'
import type { Point } from '#core/units'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const props = defineProps<{ outlook: PieceOutlook[]; zoom: number }>()

const bench = useBench()
const ribbon = useRibbon()
const svg = ref<SVGSVGElement>()
const guides = ref<{ x: number | null; y: number | null }>({ x: null, y: null })

/** Screen pixels within which a piece snaps. */
const SNAP = 6

const chosen = computed(() => props.outlook.find(({ id }) => id === bench.selectedPiece))
const shape = ({ corners }: PieceOutlook) => corners.map(({ x, y }) => `${x * props.zoom},${y * props.zoom}`).join(' ')
const at = ({ x, y }: Point) => ({ x: x * props.zoom, y: y * props.zoom })

/** Where the handle for turning stands: above the middle of the upper edge. */
const turner = computed(() => {
  const corners = chosen.value?.corners
  if (!corners) return null
  const [a, b, , d] = corners.map(at) as [Point, Point, Point, Point]
  const length = Math.max(1, Math.sqrt((a.x - d.x) ** 2 + (a.y - d.y) ** 2))
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  return { from: middle, to: { x: middle.x + ((a.x - d.x) / length) * 26, y: middle.y + ((a.y - d.y) / length) * 26 } }
})

function cardPoint(event: PointerEvent): Point {
  const bounds = svg.value!.getBoundingClientRect()
  return { x: (event.clientX - bounds.left) / props.zoom, y: (event.clientY - bounds.top) / props.zoom }
}

/** The foremost piece whose bounds hold a point. */
function pieceAt(point: Point): PieceOutlook | undefined {
  const on = new Set(bench.card!.pieces.filter((piece) => piece.on).map(({ id }) => id))
  return props.outlook.find(({ id, corners }) => on.has(id) && holds(corners, point))
}

function holds(corners: readonly Point[], { x, y }: Point): boolean {
  let inside = false
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const a = corners[i]!
    const b = corners[j]!
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}

/** Follows the pointer until it is let go; every move is part of one step. */
function follow(event: PointerEvent, move: (point: Point, event: PointerEvent) => void) {
  bench.settle()
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      move(cardPoint(next), next)
    },
    () => {
      guides.value = { x: null, y: null }
      bench.settle()
    },
  )
}

function press(event: PointerEvent) {
  const start = cardPoint(event)
  const hit = pieceAt(start)
  if (!hit) {
    bench.select(null)
    return
  }
  if (bench.selectedPiece !== hit.id) bench.select(hit.id)
  const { x, y } = hit.place
  const middle = { x: (hit.corners[0].x + hit.corners[2].x) / 2 - x, y: (hit.corners[0].y + hit.corners[2].y) / 2 - y }
  follow(event, (point, next) => {
    const wanted = { x: x + point.x - start.x, y: y + point.y - start.y }
    // Shift keeps to one direction.
    if (next.shiftKey) {
      if (Math.abs(point.x - start.x) > Math.abs(point.y - start.y)) wanted.y = y
      else wanted.x = x
    }
    const snapped = next.ctrlKey ? wanted : snap(wanted, middle, hit.id)
    put('Move', hit.id, { x: tidy(snapped.x), y: tidy(snapped.y) })
  })
}

/** To the middle of the frame, its safe areas, and the places of other pieces. Ctrl switches it off. */
function snap(wanted: Point, middle: Point, id: string): Point {
  const { width, height } = bench.card!.frame
  const others = props.outlook.filter((other) => other.id !== id).map(({ place }) => place)
  const x = nearest(wanted.x, [width / 2, ...others.map((place) => place.x)], middle.x, [width / 2])
  const y = nearest(wanted.y, [height / 2, ...others.map((place) => place.y)], middle.y, [height / 2])
  guides.value = { x: x.guide, y: y.guide }
  return { x: x.value, y: y.value }
}

function nearest(value: number, lines: number[], middle: number, middleLines: number[]) {
  const within = SNAP / props.zoom
  const candidates = [
    ...lines.map((line) => ({ value: line, guide: line })),
    ...middleLines.map((line) => ({ value: line - middle, guide: line })),
  ]
  const best = candidates.sort((a, b) => Math.abs(a.value - value) - Math.abs(b.value - value))[0]!
  return Math.abs(best.value - value) <= within ? best : { value, guide: null }
}

const tidy = (value: number) => Math.round(value * 10) / 10

function put(label: string, id: string, values: Record<string, number>) {
  const change = (card: Card) =>
    Object.entries(values).reduce((next, [name, value]) => writeValue(next, `${id}/${name}`, ribbon.frame, value), card)
  bench.edit(label, change, `${label}/${id}`)
}

const present = (name: 'scale' | 'rotation') =>
  settleNumber(bench.piece![name], { frame: ribbon.frame, length: bench.card!.length })

function scale(event: PointerEvent) {
  const { place, id } = chosen.value!
  const start = distance(cardPoint(event), place)
  const before = present('scale')
  follow(event, (point) => {
    if (start > 0) put('Scale', id, { scale: Math.max(0, Math.round((before * distance(point, place)) / start)) })
  })
}

function turn(event: PointerEvent) {
  const { place, id } = chosen.value!
  const start = angle(cardPoint(event), place)
  const before = present('rotation')
  follow(event, (point, next) => {
    const turned = before + angle(point, place) - start
    const step = next.shiftKey ? 15 : 1
    put('Rotate', id, { rotation: Math.round(turned / step) * step })
  })
}

const distance = (a: Point, b: Point) => Math.sqrt((a.x - b.x) ** 2 + (a.y - b.y) ** 2)
/** Anticlockwise, as the card measures. */
const angle = (a: Point, b: Point) => (Math.atan2(b.y - a.y, a.x - b.x) * 180) / Math.PI
</script>

<template>
  <svg ref="svg" class="handles" aria-label="Stage" role="application" @pointerdown="press">
    <line v-if="guides.x !== null" class="guide" :x1="guides.x * zoom" :x2="guides.x * zoom" y1="0" y2="100%" />
    <line v-if="guides.y !== null" class="guide" :y1="guides.y * zoom" :y2="guides.y * zoom" x1="0" x2="100%" />
    <g v-if="chosen && !ribbon.playing">
      <polygon class="bounds" :points="shape(chosen)" />
      <template v-if="turner">
        <line class="stem" :x1="turner.from.x" :y1="turner.from.y" :x2="turner.to.x" :y2="turner.to.y" />
        <circle class="grip turn" :cx="turner.to.x" :cy="turner.to.y" r="5.5" @pointerdown.stop="turn">
          <title>Turn; Shift in steps of 15°</title>
        </circle>
      </template>
      <circle
        v-for="(corner, i) in chosen.corners"
        :key="i"
        class="grip"
        :cx="at(corner).x"
        :cy="at(corner).y"
        r="5"
        @pointerdown.stop="scale"
      >
        <title>Scale</title>
      </circle>
      <path class="place" :d="`M${at(chosen.place).x - 6} ${at(chosen.place).y}h12m-6-6v12`" />
    </g>
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
.bounds {
  fill: none;
  stroke: #cfe0dc;
  stroke-width: 1.2;
  filter: drop-shadow(0 0 1px #0008);
}
.grip {
  cursor: nwse-resize;
  fill: #f6f1e7;
  stroke: #1e6b6a;
  stroke-width: 2;
}
.turn {
  cursor: grab;
  fill: #1e6b6a;
  stroke: #f6f1e7;
}
.stem {
  stroke: #cfe0dc;
}
.place {
  fill: none;
  stroke: #f6f1e7;
  stroke-width: 1.4;
  filter: drop-shadow(0 0 1px #000a);
}
.guide {
  stroke: #e5564b;
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
</style>
