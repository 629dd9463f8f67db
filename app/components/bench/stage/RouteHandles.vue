<script setup lang="ts">
import { computed } from 'vue'
import { bendRoute, controlOf, moveRouteKey, straightenRoute } from '#core/edit/route'
import { place, unplace } from '#core/outline/outline'
import { routeOf } from '#core/stage/route'
import { snapPoint } from '#core/stage/snap'
import type { Frames, Point } from '#core/units'
import { useRibbonTime } from '~/composables/ribbon-time'
import type { Held, StageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import { useStage } from '~/stores/stage'

/** The way of the selected piece over the card: its keys, and the handles that bend it at the playhead's key. */
const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const time = useRibbonTime()
const stage = useStage()

const entry = computed(() => (props.hand.selected.value.length === 1 ? props.hand.selected.value[0]! : null))
const route = computed(() => (bench.piece && entry.value ? routeOf(bench.card!, bench.piece) : null))
const toScreen = (p: Point) => props.hand.onScreen(place(entry.value!.parent, p))
const lines = computed(() =>
  (route.value?.ways ?? []).map((way) => `M${way.map((p) => `${toScreen(p).x} ${toScreen(p).y}`).join('L')}`).join(' '),
)
/** Screen pixels that a way must go to be seen, and that its keys keep from the piece's own place: there it is taken. */
const [LEAST, CLEAR] = [28, 12]
const far = computed(() => {
  const points = (route.value?.dots ?? []).map(toScreen)
  const span = (values: number[]) => Math.max(...values) - Math.min(...values)
  return points.length > 0 && Math.max(span(points.map(({ x }) => x)), span(points.map(({ y }) => y))) >= LEAST
})
const own = computed(() => props.hand.onScreen(entry.value!.place))
const others = computed(() =>
  (route.value?.keys ?? []).filter(({ at }) => {
    const { x, y } = toScreen(at)
    return Math.hypot(x - own.value.x, y - own.value.y) >= CLEAR
  }),
)
const here = computed(() => route.value?.keys.find(({ frame }) => frame === time.frame.value) ?? null)
const bends = computed(() => {
  const key = here.value
  if (!key) return []
  return (['in', 'out'] as const).flatMap((side) => {
    const by = controlOf(bench.card!, bench.piece!.id, key.frame, side)
    return by ? [{ side, at: { x: key.at.x + by.x, y: key.at.y + by.y } }] : []
  })
})

/** Begins to move a key; gives what follows the hand. */
function keyMover(frame: Frames): (point: Point, event: Held) => void {
  const start = bench.card!
  const { id } = bench.piece!
  const lines = props.hand.linesFor([id])
  return (raw, next) => {
    const snapped = next.ctrlKey ? null : snapPoint(raw, lines, props.hand.reach.value, stage.grid)
    if (snapped) props.hand.showGuides(snapped.guides)
    const point = snapped ? { x: raw.x + snapped.by.x, y: raw.y + snapped.by.y } : raw
    const to = unplace(entry.value!.parent, point)
    bench.edit('Move a key of the way', () => moveRouteKey(start, id, frame, to), `${id}/route/${frame}`)
  }
}

/** A press goes to the key's frame, a drag moves the key. */
function dragKey(event: PointerEvent, frame: Frames) {
  const move = keyMover(frame)
  const from = props.hand.cardPoint(event)
  let moved = false
  props.hand.drag(
    event,
    (point, next) => {
      moved ||= Math.hypot(point.x - from.x, point.y - from.y) * props.hand.zoom() > 3
      if (moved) move(point, next)
    },
    () => {
      if (!moved) time.go(frame)
    },
  )
}

function nudgeKey(event: KeyboardEvent, { frame, at }: { frame: Frames; at: Point }) {
  if (event.key === 'Enter') time.go(frame)
  else props.hand.nudge(event, place(entry.value!.parent, at), keyMover(frame))
}

/** Begins to move a handle; gives what follows the hand. */
function bendMover(side: 'in' | 'out'): (point: Point, event: Held) => void {
  const start = bench.card!
  const { id } = bench.piece!
  const { frame, at } = here.value!
  return (point, next) => {
    const to = unplace(entry.value!.parent, point)
    // Alt breaks the line between the two handles.
    const bent = bendRoute(start, id, frame, side, { x: to.x - at.x, y: to.y - at.y }, !next.altKey)
    bench.edit('Bend the way', () => bent, `${id}/bend/${frame}`)
  }
}
const dragBend = (event: PointerEvent, side: 'in' | 'out') => props.hand.drag(event, bendMover(side))
const nudgeBend = (event: KeyboardEvent, side: 'in' | 'out', at: Point) =>
  props.hand.nudge(event, place(entry.value!.parent, at), bendMover(side))

const straighten = (frame: Frames) =>
  bench.edit('Straighten the way', (card) => straightenRoute(card, bench.piece!.id, frame))
</script>

<template>
  <g v-if="route && entry && far" class="route">
    <path class="under" :d="lines" />
    <path class="way" :d="lines" />
    <circle v-for="(dot, i) in route.dots" :key="i" class="dot" :cx="toScreen(dot).x" :cy="toScreen(dot).y" r="1.5" />
    <template v-for="key in others" :key="key.frame">
      <rect
        class="key"
        :x="toScreen(key.at).x - 4.5"
        :y="toScreen(key.at).y - 4.5"
        width="9"
        height="9"
        rx="1"
        tabindex="0"
        role="button"
        :aria-label="`Key of the way at frame ${key.frame}: arrows move it, Enter goes there`"
        @pointerdown.stop="dragKey($event, key.frame)"
        @keydown="nudgeKey($event, key)"
      >
        <title>Key of the way: press to go there, drag to move it</title>
      </rect>
    </template>
    <template v-if="here">
      <template v-for="{ side, at } in bends" :key="side">
        <line :x1="toScreen(here.at).x" :y1="toScreen(here.at).y" :x2="toScreen(at).x" :y2="toScreen(at).y" />
        <circle
          class="bend"
          :class="side"
          :cx="toScreen(at).x"
          :cy="toScreen(at).y"
          r="5"
          tabindex="0"
          role="button"
          :aria-label="`Bend of the way ${side === 'in' ? 'before' : 'after'} this key: arrows move it`"
          @pointerdown.stop="dragBend($event, side)"
          @keydown="nudgeBend($event, side, at)"
          @dblclick.stop="straighten(here.frame)"
        >
          <title>Bend the way; Alt moves one side alone, double-click makes it straight</title>
        </circle>
      </template>
    </template>
  </g>
</template>

<style scoped>
path {
  pointer-events: none;
  fill: none;
}
.under {
  stroke: #0008;
  stroke-width: 3;
}
.way {
  stroke: #f6c667;
  stroke-width: 1.3;
}
.dot {
  pointer-events: none;
  fill: #fff6ee;
  stroke: #0009;
  stroke-width: 0.6;
}
.key {
  cursor: move;
  fill: #f6c667;
  stroke: #2b2420;
  stroke-width: 1.2;
}
line {
  pointer-events: none;
  stroke: #f6c667;
}
.bend {
  cursor: move;
  fill: #2b2420;
  stroke: #f6c667;
  stroke-width: 1.8;
}
</style>
