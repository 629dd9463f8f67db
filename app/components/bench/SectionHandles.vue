<script setup lang="ts">
import type { ScaleLinear } from 'd3'
import { computed } from 'vue'
import { listPieceParameters } from '#core/card/addresses'
import { setStored, writeValue } from '#core/edit/values'
import type { LengthParameter } from '#core/values/parameters'
import { lengthValue } from '#core/values/evaluated'
import type { SectionMark } from '#core/coats/definition'
import { coatOf } from '#core/coats/table'
import type { StoredCurve } from '#core/curves/curve'
import { pointsOf } from '#core/curves/curve'
import type { Section } from '#core/frame/section'
import { coatTitle } from '~/composables/coat-words'
import { followPointer } from '~/composables/follow-pointer'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** The handles of the selected coat on the section: its lengths, and the points of its falloff. */
const props = defineProps<{
  section: Section
  x: ScaleLinear<number, number>
  y: ScaleLinear<number, number>
  width: number
  /** Where alpha 0 is drawn. */
  ground: number
}>()
const bench = useBench()
const { base } = useMoment()
const ribbon = useRibbon()

const marks = computed(() => props.section.coats.find(({ id }) => id === bench.selectedPart)?.marks ?? [])

function drag(event: PointerEvent, mark: SectionMark) {
  const { piece, coat } = bench
  if (!piece || !coat) return
  const parameter = coatOf(coat.kind).parameters[mark.parameter] as LengthParameter
  const address = `${piece.id}/${coat.id}/${mark.parameter}`
  const start = lengthValue(coat[mark.parameter], base.value, parameter)
  // What the hand moves is px of the section; a length in % moves by its share.
  const perPx = typeof start === 'number' ? 1 : 100 / props.section.reference
  const from = typeof start === 'number' ? start : start.value
  // The scale stays as it was when the hand took hold.
  const pxPerScreen = (props.x.domain()[1]! - props.x.domain()[0]!) / Math.max(1, props.width)
  const label = `${coatTitle(coat)}: ${parameter.label.toLowerCase()}`
  bench.endStep()
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      const by = ((next.clientX - event.clientX) * pxPerScreen) / mark.moves
      const value = Math.min(parameter.max, Math.max(parameter.min, from + by * perPx))
      bench.edit(
        label,
        (card) => writeValue(card, address, ribbon.frame, Math.round(value * 10) / 10),
        `section/${address}`,
      )
    },
    () => bench.endStep(),
  )
}

function step(event: KeyboardEvent, mark: SectionMark, direction: 1 | -1) {
  const { piece, coat } = bench
  if (!piece || !coat) return
  event.preventDefault()
  event.stopPropagation()
  const place = listPieceParameters(piece).find(
    ({ address }) => address === `${piece.id}/${coat.id}/${mark.parameter}`,
  )!
  const parameter = place.parameter as LengthParameter
  const now = lengthValue(place.value, base.value, parameter)
  const amount = (typeof now === 'number' ? now : now.value) + direction * Math.sign(mark.moves) * parameter.step
  const value = Math.min(parameter.max, Math.max(parameter.min, amount))
  bench.edit(place.label, (card) => writeValue(card, place.address, ribbon.frame, value), `section/${place.address}`)
}

/** The points of the selected coat's falloff, where they stand on the section. */
const falloff = computed(() => {
  const coat = props.section.coats.find(({ id }) => id === bench.selectedPart)
  if (!coat?.falloff || !bench.coat || !('falloff' in bench.coat)) return null
  const stored = bench.coat.falloff as StoredCurve
  const { falloff: places } = coat
  const distance = (at: number) => {
    const k = Math.min(places.length - 2, Math.floor(at * (places.length - 1)))
    return places[k]! + (places[k + 1]! - places[k]!) * (at * (places.length - 1) - k)
  }
  const most = Math.max(...coat.colours.map((c) => c[3]), 0.05)
  return { stored, places, distance, most, points: pointsOf(stored) }
})

/** The x of the curve that stands at a distance: the places rise or fall throughout. */
function curveAt(places: readonly number[], d: number): number {
  const way = Math.sign(places.at(-1)! - places[0]!)
  let k = 0
  while (k < places.length - 2 && (d - places[k + 1]!) * way > 0) k++
  const span = places[k + 1]! - places[k]!
  return Math.min(1, Math.max(0, (k + (span === 0 ? 0 : (d - places[k]!) / span)) / (places.length - 1)))
}

function dragPoint(event: PointerEvent, index: number) {
  const { piece, coat } = bench
  const start = falloff.value
  if (!piece || !coat || !start) return
  const bounds = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const scale = props.x.copy()
  const address = `${piece.id}/${coat.id}/falloff`
  const unit = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000
  bench.endStep()
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      const low = index > 0 ? start.points[index - 1]!.x + 0.01 : 0
      const high = index < start.points.length - 1 ? start.points[index + 1]!.x - 0.01 : 1
      const along = curveAt(start.places, scale.invert(next.clientX - bounds.left))
      const point = {
        ...start.points[index]!,
        x: unit(Math.min(high, Math.max(low, along))),
        y: unit(props.y.invert(next.clientY - bounds.top) / start.most),
      }
      const points = start.points.map((other, i) => (i === index ? point : other))
      bench.edit(`${coatTitle(coat)}: falloff`, (card) => setStored(card, address, { points }), `section/${address}`)
    },
    () => bench.endStep(),
  )
}

const nameOf = (mark: SectionMark) =>
  bench.coat ? coatOf(bench.coat.kind).parameters[mark.parameter]!.label : mark.parameter
</script>

<template>
  <g>
    <template v-if="falloff">
      <circle
        v-for="(point, i) in falloff.points"
        :key="`falloff-${i}`"
        class="falloff"
        :cx="x(falloff.distance(point.x))"
        :cy="y(point.y * falloff.most)"
        r="4"
        @pointerdown.prevent="dragPoint($event, i)"
      >
        <title>Falloff: drag the point; all of the curve is edited below</title>
      </circle>
    </template>
    <g v-for="mark in marks" :key="mark.parameter">
      <line class="stem" :x1="x(mark.at)" :x2="x(mark.at)" y1="34" :y2="ground" />
      <rect
        class="handle"
        tabindex="0"
        role="slider"
        :aria-label="`${nameOf(mark)} on the section`"
        :aria-valuenow="Math.round(mark.at * 10) / 10"
        :x="x(mark.at) - 5"
        :y="mark.parameter === 'offset' || mark.parameter === 'distance' ? ground - 18 : 44"
        width="10"
        height="15"
        rx="3"
        @pointerdown.prevent="drag($event, mark)"
        @keydown.left="step($event, mark, -1)"
        @keydown.right="step($event, mark, 1)"
      >
        <title>{{ nameOf(mark) }}: drag</title>
      </rect>
    </g>
  </g>
</template>

<style scoped>
.stem {
  pointer-events: none;
  stroke: var(--teal);
  stroke-dasharray: 2 2;
}
.handle {
  cursor: ew-resize;
  touch-action: none;
  fill: var(--raised);
  stroke: var(--teal);
  stroke-width: 2;
}
.falloff {
  cursor: move;
  touch-action: none;
  fill: var(--raised);
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
