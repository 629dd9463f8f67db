<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { KeyPlace } from '#core/card/edit/keys'
import { isMoving } from '#core/card/moving'
import type { Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { followPointer } from '~/composables/follow-pointer'
import { NAMES, useRibbonView } from '~/composables/ribbon-view'
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
const track = ref<HTMLElement>()
const lanesBox = ref<HTMLElement>()
const { width } = useElementSize(track)
const view = useRibbonView(width)
const { x, length } = view

/** The card's own lanes, then each piece that moves, has a span or is selected, with its lanes below it. */
const own = computed(() => bench.lanes.filter(({ piece }) => piece === null))
const pieces = computed(() => {
  const shown = (piece: Piece) =>
    piece.span !== null || bench.isSelected(piece.id) || bench.lanes.some((lane) => lane.piece === piece.id)
  return allPieces(bench.card?.pieces ?? [])
    .filter(shown)
    .map((piece) => ({ piece, lanes: bench.lanes.filter((lane) => lane.piece === piece.id) }))
})

// Keys that are selected belong to what was at hand; with the next piece they are let go.
watch(
  () => [bench.selection, bench.selectedCoat],
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
  const rows = [...lanesBox.value!.querySelectorAll<HTMLElement>('[data-lane]')].filter(
    ({ offsetTop, offsetHeight }) =>
      offsetTop + offsetHeight / 2 > box.y && offsetTop + offsetHeight / 2 < box.y + box.h,
  )
  const addresses = new Set(rows.map(({ dataset }) => dataset.lane))
  return bench.lanes
    .filter(({ address, value }) => addresses.has(address) && isMoving(value))
    .flatMap(({ address, value }) =>
      (isMoving(value) ? value.keys : [])
        .filter(({ frame }) => x.value(frame) >= box.x && x.value(frame) <= box.x + box.w)
        .map(({ frame }) => ({ address, frame })),
    )
}
</script>

<template>
  <section class="ribbon" :class="{ curves: ribbon.curvesOpen }" aria-label="Ribbon">
    <RibbonTop :view="view" :engine-name="engineName" />
    <div ref="track" class="track" :style="{ '--names': `${NAMES}px` }" @wheel="view.wheel">
      <RibbonRuler :view="view" :width="width" />
      <div ref="lanesBox" class="lanes" @pointerdown="draw">
        <p v-if="bench.lanes.length === 0 && pieces.length === 0" class="empty quiet">
          Nothing moves yet. Press the small circle beside a value to set its first key, go to another frame, and change
          it.
        </p>
        <RibbonLane v-for="lane in own" :key="lane.address" :lane="lane" :view="view" :width="width" />
        <template v-for="{ piece, lanes } in pieces" :key="piece.id">
          <RibbonSpan :piece="piece" :view="view" :width="width" />
          <RibbonLane v-for="lane in lanes" :key="lane.address" :lane="lane" :view="view" :width="width" />
        </template>
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
        <g v-if="x(ribbon.frame) >= NAMES">
          <line class="head" :x1="x(ribbon.frame)" :x2="x(ribbon.frame)" y2="100%" />
          <path class="head" :d="`M${x(ribbon.frame) - 7} 0h14l-7 9z`" />
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
