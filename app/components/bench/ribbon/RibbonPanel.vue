<script setup lang="ts">
import { useElementSize, useVirtualList } from '@vueuse/core'
import { mdiClockOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { runsByItself } from '#core/edit/clocks'
import type { KeyPlace } from '#core/edit/keys'
import { isMoving } from '#core/values/moving'
import type { ParameterPlace } from '#core/card/addresses'
import type { Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { followPointer } from '~/composables/follow-pointer'
import { useRibbonTime } from '~/composables/ribbon-time'
import { heightOfSpan, NAMES, useRibbonView } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import CurveCharts from './CurveCharts.vue'
import MotorSheet from './MotorSheet.vue'
import RibbonLane from './RibbonLane.vue'
import RibbonRuler from './RibbonRuler.vue'
import RibbonSpan from './RibbonSpan.vue'
import RibbonTop from './RibbonTop.vue'

defineProps<{ engineName: string }>()

const bench = useBench()
const ribbon = useRibbon()
const time = useRibbonTime()
const { holder, frame } = time
const track = ref<HTMLElement>()
const { width } = useElementSize(track)
const view = useRibbonView(width)
const { x, length } = view

interface Row {
  key: string
  height: number
  piece: Piece | null
  lane: ParameterPlace | null
}
/** Height of the lanes in their own style sheet. */
const LANE = 30

/** The card's own lanes, then each piece that moves, has a span or is selected, with its lanes below it. */
const rows = computed<Row[]>(() => {
  const lanes = new Map<string | null, ParameterPlace[]>()
  for (const lane of bench.lanes) lanes.set(lane.piece, [...(lanes.get(lane.piece) ?? []), lane])
  const laneRows = (of: string | null) =>
    (lanes.get(of) ?? []).map((lane): Row => ({ key: lane.address, height: LANE, piece: null, lane }))
  const shown = (piece: Piece) =>
    time.isIn(piece.id) &&
    (piece.span !== null || bench.isSelected(piece.id) || lanes.has(piece.id) || runsByItself(piece))
  return [
    ...(time.isIn(null) ? laneRows(null) : []),
    ...allPieces(bench.card?.pieces ?? [])
      .filter(shown)
      .flatMap((piece): Row[] => [
        { key: piece.id, height: heightOfSpan(piece), piece, lane: null },
        ...laneRows(piece.id),
      ]),
  ]
})

// Only rows that are seen are there: a card may have a thousand.
const { list, containerProps, wrapperProps } = useVirtualList(rows, {
  itemHeight: (i) => rows.value[i]?.height ?? LANE,
  overscan: 4,
})
const lanesBox = containerProps.ref

// Keys that are selected belong to what was at hand; with the next piece they are let go.
watch(
  () => [bench.selection, bench.selectedPart],
  () => (ribbon.keys = []),
)

const net = ref<{ x: number; y: number; w: number; h: number } | null>(null)

/** On bare ground a net is drawn around keys; a mere press lets all go. */
function draw(event: PointerEvent) {
  if (event.button !== 0 || !lanesBox.value) return
  const bounds = lanesBox.value.getBoundingClientRect()
  const scrolled = lanesBox.value.scrollTop
  const start = { x: event.clientX - bounds.left, y: event.clientY - bounds.top + scrolled }
  const before = event.shiftKey ? ribbon.keys : []
  ribbon.keys = before
  followPointer(
    event,
    (next) => {
      const to = { x: next.clientX - bounds.left, y: next.clientY - bounds.top + lanesBox.value!.scrollTop }
      const [left, top] = [Math.min(start.x, to.x), Math.min(start.y, to.y)]
      net.value = { x: left, y: top, w: Math.abs(to.x - start.x), h: Math.abs(to.y - start.y) }
      ribbon.keys = [...before, ...keysIn(net.value)]
    },
    () => (net.value = null),
  )
}

function keysIn(box: { x: number; y: number; w: number; h: number }): KeyPlace[] {
  let top = 0
  return rows.value.flatMap(({ height, lane }) => {
    const middle = top + height / 2
    top += height
    if (!lane || middle <= box.y || middle >= box.y + box.h || !isMoving(lane.value)) return []
    return lane.value.keys
      .filter(({ frame }) => x.value(frame) >= box.x && x.value(frame) <= box.x + box.w)
      .map(({ frame }) => ({ address: lane.address, frame }))
  })
}
</script>

<template>
  <section class="ribbon" :class="{ curves: ribbon.curvesOpen }" aria-label="Ribbon">
    <RibbonTop :view="view" :engine-name="engineName" />
    <div ref="track" class="track" :style="{ '--names': `${NAMES}px` }" @wheel="view.wheel">
      <RibbonRuler :view="view" :width="width" />
      <button
        v-if="holder"
        class="within"
        :title="`The ribbon shows the time within ${holder.name}. Press to go back to the time around it`"
        @click="bench.select(holder.id)"
      >
        <VIcon :icon="mdiClockOutline" size="14" /> within {{ holder.name }}
      </button>
      <div v-bind="containerProps" class="lanes" @pointerdown="draw">
        <p v-if="rows.length === 0" class="empty quiet">
          Nothing moves yet. Press the small circle beside a value to set its first key, go to another frame, and change
          it.
        </p>
        <div v-bind="wrapperProps">
          <template v-for="{ data: { key, piece, lane } } in list" :key="key">
            <RibbonSpan v-if="piece" :piece="piece" :view="view" :width="width" />
            <RibbonLane v-else-if="lane" :lane="lane" :view="view" :width="width" />
          </template>
        </div>
        <div
          v-if="net"
          class="net"
          :style="{ left: `${net.x}px`, top: `${net.y}px`, width: `${net.w}px`, height: `${net.h}px` }"
        />
      </div>
      <CurveCharts v-if="ribbon.curvesOpen" :view="view" :width="width" />
      <svg v-if="width > 0" class="over" :width="width" height="100%" aria-hidden="true">
        <rect class="beyond" :x="NAMES" :width="Math.max(0, x(0) - NAMES)" height="100%" />
        <rect class="beyond" :x="x(length)" :width="Math.max(0, width - x(length))" height="100%" />
        <line v-if="x(0) >= NAMES" class="seam" :x1="x(0)" :x2="x(0)" y2="100%" />
        <line class="seam" :x1="x(length)" :x2="x(length)" y2="100%" />
        <g v-if="x(frame) >= NAMES">
          <line class="head" :x1="x(frame)" :x2="x(frame)" y2="100%" />
          <path class="head" :d="`M${x(frame) - 7} 0h14l-7 9z`" />
        </g>
      </svg>
    </div>
    <MotorSheet v-if="ribbon.motorsOf" :key="ribbon.motorsOf" :address="ribbon.motorsOf" />
  </section>
</template>

<style scoped>
.ribbon {
  position: relative;
  display: grid;
  grid-template-rows: 34px minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}
.track {
  position: relative;
  display: grid;
  grid-template-rows: 24px minmax(0, 1fr);
  min-height: 0;
}
.curves .track {
  grid-template-rows: 24px minmax(0, 1fr) 190px;
}
.within {
  position: absolute;
  top: 2px;
  left: 8px;
  display: flex;
  gap: 5px;
  align-items: center;
  max-width: 196px;
  height: 20px;
  padding: 0 8px;
  overflow: hidden;
  font: inherit;
  font-size: 12px;
  color: var(--teal);
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
  background: var(--teal-soft);
  border: 1px solid var(--teal);
  border-radius: 6px;
}
.lanes {
  position: relative;
  min-height: 0;
  overflow: hidden auto;
  touch-action: none;
}
.net {
  position: absolute;
  z-index: 2;
  pointer-events: none;
  background: color-mix(in srgb, var(--teal) 14%, transparent);
  border: 1px dashed var(--teal);
}
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.beyond {
  fill: var(--ink);
  opacity: 0.1;
}
.seam {
  stroke: var(--ink);
}
line.head {
  stroke: var(--wax);
  stroke-width: 2;
}
path.head {
  fill: var(--wax);
}
.empty {
  padding: 14px 12px 14px calc(var(--names) + 60px);
  margin: 0;
}
</style>
