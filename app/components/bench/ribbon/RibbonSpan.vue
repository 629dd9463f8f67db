<script setup lang="ts">
import { computed, watch } from 'vue'
import { hasOwnTime } from '#core/edit/clocks'
import { shiftMotion } from '#core/edit/keys'
import { moveSpan, setSpan, spanOf } from '#core/edit/spans'
import type { Piece } from '#core/card/schema'
import { SEQUENCE_PARAMETERS, shownPictures } from '#core/pieces/sequence'
import { insideOf, isStopped } from '#core/time/clock'
import { momentOf } from '#core/time/ring'
import { valuesAt } from '#core/values/evaluated'
import type { Moment } from '#core/values/moment'
import { useCounted } from '~/composables/counted'
import { followPointer } from '~/composables/follow-pointer'
import type { RibbonView } from '~/composables/ribbon-view'
import { heightOfSpan, NAMES } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useSequences } from '~/stores/sequences'
import LaneName from './LaneName.vue'

const props = defineProps<{ piece: Piece; view: RibbonView; width: number }>()

const bench = useBench()
const sequences = useSequences()
watch(
  () => (props.piece.kind === 'sequence' ? props.piece.sequence?.id : undefined),
  (id) => id && void sequences.follow(id).catch(() => {}),
  { immediate: true },
)
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
  const frames = places.map((at) => frameWithin(momentOf(card, x.value.invert(at))))
  // What comes round again starts anew: the one step that goes the other way.
  const ahead = frames.filter((frame, i) => i > 0 && frame >= frames[i - 1]!).length > 80 ? 1 : -1
  const isNew = (i: number) => i === 0 || (piece.clockEnd === 'again' && (frames[i]! - frames[i - 1]!) * ahead < 0)
  const all = piece.kind === 'sequence' ? (piece.sequence?.frames ?? 1) : card.length
  const y = (frame: number) => height.value - 5 - (height.value - 10) * (frame / all)
  return places.map((at, i) => `${isNew(i) ? 'M' : 'L'}${at},${y(frames[i]!)}`).join('')
})

/** The frame within a piece, or the picture of a sequence. */
function frameWithin(at: Moment): number {
  const { piece } = props
  return piece.kind === 'sequence' ? (shownPictures(piece, at)[0]?.index ?? 0) : insideOf(piece, at).frame
}

const height = computed(() => heightOfSpan(props.piece))

/** Pictures of a sequence side by side over its span, each as it is shown in its middle. */
const tiles = computed(() => {
  const { piece } = props
  if (piece.kind !== 'sequence' || !piece.sequence || right.value <= left.value) return []
  const card = bench.card!
  const tall = height.value - 8
  const size = valuesAt(
    { width: SEQUENCE_PARAMETERS.width, height: SEQUENCE_PARAMETERS.height },
    piece,
    momentOf(card, 0),
  )
  const wide = Math.min(120, Math.max(14, (tall * size.width) / Math.max(1, size.height)))
  const { id, frames } = piece.sequence
  // Pictures that are still being read would hold up the stage's.
  const known = sequences.known[id]
  const there = known?.ended ? Infinity : known?.there === undefined ? 0 : (frames * known.there) / (known.stored || 1)
  return Array.from({ length: Math.ceil((right.value - left.value) / wide) }, (_, i) => {
    const at = left.value + i * wide
    const now = momentOf(card, Math.floor(x.value.invert(Math.min(right.value - 1, at + wide / 2))))
    const index = isStopped(piece, now) ? null : shownPictures(piece, now)[0]!.index
    const isThere = index !== null && index < there
    return {
      at,
      wide: Math.min(wide, right.value - at),
      src: !isThere ? null : `/api/sequences/${id}/pictures/${index}?across=96`,
    }
  })
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
  <div class="span" :style="{ height: `${height}px` }">
    <LaneName
      :title="piece.name"
      :words="piece.name"
      :on="bench.isSelected(piece.id)"
      head
      @choose="bench.select(piece.id)"
    />
    <svg :width="width" :height="height">
      <rect
        v-if="right > left"
        class="bar"
        :class="{ whole: !piece.span }"
        :x="left"
        y="4"
        :width="right - left"
        :height="height - 8"
        rx="3"
        @pointerdown.stop="drag($event, 'bar')"
      >
        <title>Drag: the span and its motion. Alt and drag: the motion alone. Ends: trim</title>
      </rect>
      <template v-for="tile in tiles" :key="tile.at">
        <svg v-if="tile.src" class="tile" :x="tile.at" y="4" :width="tile.wide" :height="height - 8">
          <image :href="tile.src" width="100%" height="100%" preserveAspectRatio="xMidYMid slice" />
        </svg>
      </template>
      <path v-if="clock" class="clock" :class="{ over: tiles.length > 0 }" :d="clock" />
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
        :height="height - 8"
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
.tile {
  pointer-events: none;
}
/* Over pictures of any colour. */
.clock.over {
  stroke: var(--teal);
}
.end {
  cursor: ew-resize;
  fill: var(--teal);
}
</style>
