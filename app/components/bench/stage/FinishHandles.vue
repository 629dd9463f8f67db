<script setup lang="ts">
import { computed } from 'vue'
import { finishOf } from '#core/finishes/table'
import type { Point, Px, Rect } from '#core/units'
import type { Length } from '#core/values/moving'
import { counts } from '#core/values/parameter-kinds'
import { valueAt } from '#core/values/evaluated'
import type { Held, StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { usePutValues } from '~/composables/put-values'
import { useBench } from '~/stores/bench'
import HandleLine from './HandleLine.vue'

/** Hands on what a finish has on the stage: its place, its direction with its length, and the way that it crosses. */
const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const { base } = useMoment()
const { onScreen } = props.hand

const finish = computed(() => bench.finish!)
const definition = computed(() => finishOf(finish.value.kind))
const entry = computed(() => props.hand.outlook().find(({ id }) => id === bench.piece?.id))
/** What places in % count across: the ink of the piece, or the frame under a wash. */
const area = computed<Rect>(() => {
  const { width, height } = bench.card!.frame
  return entry.value?.bounds ?? { left: 0, top: 0, right: width, bottom: height }
})
/** Card px per px of the finish, and the px that 100 % stands for. */
const unit = computed(() => entry.value?.placement.scale ?? 1)
const reference = computed(() => {
  const { width, height } = bench.card!.frame
  return entry.value ? entry.value.reference * unit.value : Math.min(width, height)
})

const isThere = (name: string) => counts(definition.value.parameters[name]!, finish.value)
const now = (name: string) => valueAt(definition.value.parameters[name]!, finish.value[name], base.value)
const px = (length: Length): Px =>
  typeof length === 'number' ? length * unit.value : (length.value / 100) * reference.value

const placed = computed(() => {
  const names = definition.value.hands?.place
  return names && isThere(names[0]) ? names : null
})
const aimed = computed(() => {
  const names = definition.value.hands?.way
  return names && isThere(names.angle) && isThere(names.length) ? names : null
})
const middle = computed<Point>(() => {
  const { left, top, right, bottom } = area.value
  const [x, y] = placed.value ? placed.value.map((name) => Number(now(name))) : [50, 50]
  return { x: left + ((right - left) * x!) / 100, y: top + ((bottom - top) * y!) / 100 }
})
/** The end of the way, from the middle on; a short one is held farther out. */
const tip = computed<Point | null>(() => {
  if (!aimed.value) return null
  const angle = (Number(now(aimed.value.angle)) * Math.PI) / 180
  const length = Math.max(0, px(now(aimed.value.length) as Length))
  return { x: middle.value.x + Math.cos(angle) * length, y: middle.value.y - Math.sin(angle) * length }
})

/** The way that something crosses, and where it is now. */
const crossing = computed(() => {
  const hands = definition.value.hands?.crossing
  if (!hands) return null
  const names = Object.keys(definition.value.parameters)
  // Of the finish's own kind, as its definition asks.
  const values = Object.fromEntries(names.map((name) => [name, now(name)])) as never
  const [from, to] = hands.ends(values, { px, area: area.value })
  const share = Number(now(hands.place)) / 100
  return { ...hands, from, to, bead: { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share } }
})

/** Lengths are px of the finish. */
const put = usePutValues(
  () => finish.value,
  () => reference.value / unit.value,
)

function moveMiddle({ x, y }: Point) {
  const { left, top, right, bottom } = area.value
  const [nameX, nameY] = placed.value!
  put(`Place of ${definition.value.label.toLowerCase()}`, {
    [nameX]: ((x - left) / Math.max(1, right - left)) * 100,
    [nameY]: ((y - top) / Math.max(1, bottom - top)) * 100,
  })
}

function moveBead({ x, y }: Point) {
  const { from, to, place } = crossing.value!
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const share = ((x - from.x) * dx + (y - from.y) * dy) / Math.max(1, dx * dx + dy * dy)
  put(`Place of ${definition.value.label.toLowerCase()}`, { [place]: share * 100 })
}

/** Turns the way about its middle by one of its ends. Shift keeps to steps of 15°. */
function turnBy(end: 'from' | 'to') {
  return ({ x, y }: Point, { shiftKey }: Held) => {
    const { from, to, angle } = crossing.value!
    const [dx, dy] = [x - (from.x + to.x) / 2, (from.y + to.y) / 2 - y]
    const turn = (Math.atan2(dy, dx) * 180) / Math.PI + (end === 'from' ? 180 : 0)
    const step = shiftKey ? 15 : 0.1
    put(`Direction of ${definition.value.label.toLowerCase()}`, { [angle]: Math.round(turn / step) * step })
  }
}

/** Shift keeps to steps of 15°. */
function moveTip(point: Point, { shiftKey }: Held) {
  const { angle, length } = aimed.value!
  const [dx, dy] = [point.x - middle.value.x, middle.value.y - point.y]
  const turn = (Math.atan2(dy, dx) * 180) / Math.PI
  const reach = Math.hypot(dx, dy)
  put(`Direction of ${definition.value.label.toLowerCase()}`, {
    [angle]: shiftKey ? Math.round(turn / 15) * 15 : turn,
    [length]: reach / unit.value,
  })
}
</script>

<template>
  <g v-if="placed || tip || crossing" class="finish">
    <template v-if="crossing">
      <HandleLine :from="onScreen(crossing.from)" :to="onScreen(crossing.to)" />
      <circle
        v-for="end in ['from', 'to'] as const"
        :key="end"
        class="tip"
        :cx="onScreen(crossing[end]).x"
        :cy="onScreen(crossing[end]).y"
        r="6"
        tabindex="0"
        role="button"
        :aria-label="
          end === 'from'
            ? 'Where it comes in, on the stage: arrows turn the way'
            : 'Where it goes out, on the stage: arrows turn the way'
        "
        @pointerdown.stop="hand.drag($event, turnBy(end))"
        @keydown="hand.nudge($event, crossing[end], turnBy(end))"
      >
        <title>{{ end === 'from' ? 'Where it comes in' : 'Where it goes out' }}</title>
      </circle>
      <circle
        class="bead"
        :cx="onScreen(crossing.bead).x"
        :cy="onScreen(crossing.bead).y"
        r="8"
        tabindex="0"
        role="button"
        aria-label="Where it is on its way, on the stage: arrows move it"
        @pointerdown.stop="hand.drag($event, moveBead)"
        @keydown="hand.nudge($event, crossing.bead, moveBead)"
      >
        <title>Where it is on its way</title>
      </circle>
    </template>
    <template v-if="tip">
      <HandleLine :from="onScreen(middle)" :to="onScreen(tip)" />
      <circle
        class="tip"
        :cx="onScreen(tip).x"
        :cy="onScreen(tip).y"
        r="6"
        tabindex="0"
        role="button"
        aria-label="Direction and length, on the stage: arrows move it"
        @pointerdown.stop="hand.drag($event, moveTip)"
        @keydown="hand.nudge($event, tip, moveTip)"
      >
        <title>Direction and length</title>
      </circle>
    </template>
    <g
      v-if="placed"
      tabindex="0"
      role="button"
      aria-label="Place of the finish, on the stage: arrows move it"
      :transform="`translate(${onScreen(middle).x} ${onScreen(middle).y})`"
      @pointerdown.stop="hand.drag($event, moveMiddle)"
      @keydown="hand.nudge($event, middle, moveMiddle)"
    >
      <circle class="ring" r="9" />
      <path class="cross" d="M-14 0H-5M5 0H14M0 -14V-5M0 5V14" />
      <title>Place</title>
    </g>
  </g>
</template>

<style scoped>
.tip {
  cursor: move;
  fill: #2b2420;
  stroke: #fff6ee;
  stroke-width: 1.5;
}
.ring {
  cursor: move;
  fill: #2b24203d;
  stroke: #fff6ee;
  stroke-width: 1.6;
}
.bead {
  cursor: move;
  fill: #1e6b6a;
  stroke: #fff6ee;
  stroke-width: 1.6;
}
.cross {
  pointer-events: none;
  stroke: #fff6ee;
  stroke-width: 1.6;
}
</style>
