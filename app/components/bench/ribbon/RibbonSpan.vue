<script setup lang="ts">
import { computed } from 'vue'
import { hasOwnTime } from '#core/edit/clocks'
import { shiftMotion } from '#core/edit/keys'
import { moveSpan, setSpan, spanOf } from '#core/edit/spans'
import type { Piece } from '#core/card/schema'
import { insideOf } from '#core/time/clock'
import { momentOf } from '#core/time/ring'
import { useCounted } from '~/composables/counted'
import { followPointer } from '~/composables/follow-pointer'
import type { RibbonView } from '~/composables/ribbon-view'
import { NAMES } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import LaneName from './LaneName.vue'

const props = defineProps<{ piece: Piece; view: RibbonView; width: number }>()

const bench = useBench()
const counted = useCounted()
const x = computed(() => props.view.x.value)
const span = computed(() => spanOf(props.piece, bench.card!))
const left = computed(() => Math.max(NAMES, x.value(span.value.in)))
const right = computed(() => Math.min(props.width, x.value(span.value.out)))
const words = computed(() => `Span of ${props.piece.name}: ${counted(span.value.in)} to ${counted(span.value.out)}`)

/** How the time within runs over its span: the frame within, of the whole loop, from below to above. */
const clock = computed(() => {
  const { piece } = props
  if (!hasOwnTime(piece) || piece.clock === 'around' || right.value <= left.value) return ''
  const card = bench.card!
  const places = Array.from({ length: 161 }, (_, i) => left.value + (i / 160) * (right.value - left.value))
  const frames = places.map((at) => insideOf(piece, momentOf(card, x.value.invert(at))).frame)
  // What comes round again starts anew: the one step that goes the other way.
  const ahead = frames.filter((frame, i) => i > 0 && frame >= frames[i - 1]!).length > 80 ? 1 : -1
  const isNew = (i: number) => i === 0 || (piece.clockEnd === 'again' && (frames[i]! - frames[i - 1]!) * ahead < 0)
  return places.map((at, i) => `${isNew(i) ? 'M' : 'L'}${at},${17 - 12 * (frames[i]! / card.length)}`).join('')
})

/** Takes hold of an end, of the bar with its motion, or, with Alt, of the motion under the bar. */
function drag(event: PointerEvent, part: 'in' | 'out' | 'bar') {
  bench.endStep()
  const before = bench.card!
  const start = span.value
  const slides = part === 'bar' && event.altKey
  const label = slides ? 'Slide the motion' : part === 'bar' ? 'Move the span' : 'Trim the span'
  followPointer(
    event,
    (next) => {
      const by = Math.round(x.value.invert(next.clientX) - x.value.invert(event.clientX))
      const { id } = props.piece
      bench.dragging = true
      bench.edit(
        `${label} of ${props.piece.name}`,
        () => {
          if (slides) return shiftMotion(before, id, by)
          if (part === 'bar') return moveSpan(before, id, by)
          return setSpan(before, id, { ...start, [part]: start[part] + by })
        },
        `span/${id}/${part}`,
      )
    },
    () => bench.endStep(),
  )
}

function step(event: KeyboardEvent, part: 'in' | 'out') {
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  if (by === 0) return
  event.preventDefault()
  event.stopPropagation()
  const next = { ...span.value, [part]: span.value[part] + by * (event.shiftKey ? 10 : 1) }
  bench.edit(`Trim the span of ${props.piece.name}`, (card) => setSpan(card, props.piece.id, next), `span/${part}`)
}
</script>

<template>
  <div class="span">
    <LaneName
      :title="piece.name"
      :words="piece.name"
      :on="bench.isSelected(piece.id)"
      head
      @choose="bench.select(piece.id)"
    />
    <svg :width="width" height="22">
      <rect
        v-if="right > left"
        class="bar"
        :class="{ whole: !piece.span }"
        :x="left"
        y="4"
        :width="right - left"
        height="14"
        rx="3"
        @pointerdown.stop="drag($event, 'bar')"
      >
        <title>Drag: the span and its motion. Alt and drag: the motion alone. Ends: trim</title>
      </rect>
      <path v-if="clock" class="clock" :d="clock" />
      <rect
        v-for="part in ['in', 'out'] as const"
        :key="part"
        class="end"
        role="slider"
        tabindex="0"
        :aria-label="`${words}, ${part === 'in' ? 'first frame' : 'end'}`"
        :aria-valuenow="span[part]"
        :x="x(span[part]) - (part === 'in' ? 1 : 6)"
        y="4"
        width="7"
        height="14"
        rx="2"
        :visibility="x(span[part]) < NAMES - 1 ? 'hidden' : 'visible'"
        @pointerdown.stop="drag($event, part)"
        @keydown="step($event, part)"
      />
    </svg>
  </div>
</template>

<style scoped>
.span {
  position: relative;
  height: 22px;
  background: var(--paper-2);
  border-bottom: 1px solid var(--line);
}
.span > svg {
  position: absolute;
  inset: 0;
}
.bar {
  cursor: grab;
  fill: var(--teal);
  opacity: 0.55;
}
.bar.whole {
  opacity: 0.18;
}
.clock {
  pointer-events: none;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.end {
  cursor: ew-resize;
  fill: var(--teal);
}
</style>
