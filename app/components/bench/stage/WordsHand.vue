<script setup lang="ts">
import { computed, nextTick, onMounted, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import { kernPair } from '#core/edit/type-parts'
import { writeWording } from '#core/edit/wording'
import type { TypePiece } from '#core/card/schema'
import { wordsFrom } from '#core/card/wording'
import { TYPE_PARAMETERS } from '#core/pieces/type'
import { typePieces } from '#core/time/ring'
import { place } from '#core/outline/outline'
import type { Point } from '#core/units'
import { valueAt } from '#core/values/evaluated'
import { useMoment } from '~/composables/moment'
import type { StageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'

/**
 * Words written where they stand: a hidden field takes keys and input methods, the caret and what is marked are drawn over the
 * letters, which keep their look.
 */
const props = defineProps<{ hand: StageHand; piece: TypePiece }>()
const bench = useBench()
const ribbon = useRibbon()
const stage = useStage()
const { base } = useMoment(() => props.piece.id)
const field = useTemplateRef<HTMLTextAreaElement>('field')

const source = computed(() => {
  const pieces = typePieces(bench.card!)
  return wordsFrom(props.piece, (id) => pieces.get(id))
})
const words = computed(() => valueAt(TYPE_PARAMETERS.wording, source.value.wording, base.value) as string)
const entry = computed(() => props.hand.outlook().find(({ id }) => id === props.piece.id))
const selection = ref({ from: 0, to: 0 })

function follow() {
  const { selectionStart, selectionEnd } = field.value!
  selection.value = { from: selectionStart, to: selectionEnd }
  stage.marked = { piece: props.piece.id, from: selectionStart, to: selectionEnd }
}

async function mark(from: number, to: number) {
  await nextTick()
  field.value?.focus()
  field.value?.setSelectionRange(from, to)
  follow()
}

onMounted(() => mark(0, words.value.length))
onUnmounted(() => {
  bench.endStep()
  stage.marked = null
})
// What was undone, or written elsewhere, is in the field as well.
watch(words, (now) => {
  if (field.value && field.value.value !== now) field.value.value = now
})

function write() {
  const now = field.value!.value.slice(0, 2000)
  bench.edit('Wording', (card) => writeWording(card, source.value.id, ribbon.frame, now), `${source.value.id}/wording`)
  follow()
}

const KERN = 5

/** The usual keys are those of the bench; Alt and an arrow kern the two letters at the caret. */
function keys(event: KeyboardEvent) {
  const undo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z'
  if (undo || ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'y')) {
    event.preventDefault()
    if (undo && !event.shiftKey) bench.undo()
    else bench.redo()
  } else if (event.key === 'Escape') {
    event.preventDefault()
    stage.editedWords = null
  } else if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
    event.preventDefault()
    const at = selection.value.from
    const pair = ([...words.value.slice(0, at)].at(-1) ?? '') + ([...words.value.slice(at)][0] ?? '')
    const by = (event.key === 'ArrowLeft' ? -1 : 1) * KERN * (event.shiftKey ? 5 : 1)
    if (pair.length >= 2 && !pair.includes('\n'))
      bench.edit(`Kern ${pair}`, (card) => kernPair(card, props.piece.id, pair, by), `kern/${props.piece.id}/${pair}`)
  }
  event.stopPropagation()
}

const boxes = computed(() =>
  (entry.value?.type?.letters ?? []).map(({ corners, from, to, line }) => ({
    ...{ from, to, line },
    corners: corners.map((corner) => props.hand.onScreen(place(entry.value!.placement, corner))) as [
      Point,
      Point,
      Point,
      Point,
    ],
  })),
)
const marks = computed(() => {
  const { from, to } = selection.value
  return boxes.value.filter((box) => box.from < to && box.to > from)
})
/** The line of the caret, from its head to its foot. */
const caret = computed<[Point, Point] | null>(() => {
  const { from, to } = selection.value
  if (from !== to) return null
  const before = boxes.value.filter((box) => box.to <= from).at(-1)
  const after = boxes.value.find((box) => box.from >= from)
  // At the start of a line it stands before what follows.
  if (after && (!before || words.value[from - 1] === '\n' || after.line !== before.line))
    return [after.corners[0], after.corners[3]]
  if (before && words.value[from - 1] !== '\n') return [before.corners[1], before.corners[2]]
  const at = props.hand.onScreen(entry.value?.place ?? { x: 0, y: 0 })
  return [
    { x: at.x, y: at.y - 20 },
    { x: at.x, y: at.y + 20 },
  ]
})

/** The place in the words that is nearest to the pointer. */
function placeAt(event: PointerEvent): number {
  const point = props.hand.onScreen(props.hand.cardPoint(event))
  let best = { distance: Infinity, at: 0 }
  for (const { corners, from, to } of boxes.value) {
    for (const [a, b, at] of [
      [corners[0], corners[3], from],
      [corners[1], corners[2], to],
    ] as const) {
      const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2]
      const distance = Math.hypot(point.x - x, (point.y - y) * 1.6)
      if (distance < best.distance) best = { distance, at }
    }
  }
  return best.at
}

function press(event: PointerEvent) {
  const start = placeAt(event)
  void mark(start, start)
  props.hand.drag(event, () => {})
  const follow = (next: PointerEvent) => {
    const end = placeAt(next)
    void mark(Math.min(start, end), Math.max(start, end))
  }
  window.addEventListener('pointermove', follow)
  window.addEventListener('pointerup', () => window.removeEventListener('pointermove', follow), { once: true })
}

/** The word under the pointer. */
function markWord(event: MouseEvent) {
  const at = placeAt(event as PointerEvent)
  const before = /[\p{L}\p{N}'’]*$/u.exec(words.value.slice(0, at))![0].length
  const after = /^[\p{L}\p{N}'’]*/u.exec(words.value.slice(at))![0].length
  void mark(at - before, at + after)
}

const area = computed(() => {
  const all = boxes.value.flatMap(({ corners }) => corners)
  if (all.length === 0) return null
  const [xs, ys] = [all.map(({ x }) => x), all.map(({ y }) => y)]
  const [x, y] = [Math.min(...xs) - 14, Math.min(...ys) - 14]
  return { x, y, width: Math.max(...xs) - x + 14, height: Math.max(...ys) - y + 14 }
})
const text = (corners: readonly Point[]) => corners.map(({ x, y }) => `${x},${y}`).join(' ')
</script>

<template>
  <g class="words">
    <rect v-if="area" class="area" v-bind="area" @pointerdown.stop="press" @dblclick.stop="markWord" />
    <polygon v-for="box in marks" :key="box.from" class="mark" :points="text(box.corners)" />
    <g v-if="caret" class="caret">
      <line class="under" :x1="caret[0].x" :y1="caret[0].y" :x2="caret[1].x" :y2="caret[1].y" />
      <line :x1="caret[0].x" :y1="caret[0].y" :x2="caret[1].x" :y2="caret[1].y" />
    </g>
    <foreignObject
      :x="caret?.[1].x ?? marks[0]?.corners[3].x ?? 0"
      :y="caret?.[1].y ?? marks[0]?.corners[3].y ?? 0"
      width="2"
      height="20"
    >
      <textarea
        ref="field"
        :value="words"
        aria-label="Words on the stage"
        maxlength="2000"
        wrap="off"
        @input="write"
        @select="follow"
        @keyup="follow"
        @keydown="keys"
        @pointerdown.stop
      />
    </foreignObject>
  </g>
</template>

<style scoped>
.area {
  cursor: text;
  fill: transparent;
  stroke: #cfe0dc;
  stroke-width: 1;
  stroke-dasharray: 2 3;
}
.mark {
  pointer-events: none;
  fill: #1e6b6a66;
  stroke: #8fd0c4;
  stroke-width: 0.6;
}
.caret line {
  pointer-events: none;
  stroke: #fff6ee;
  stroke-width: 2;
}
.caret .under {
  stroke: #000b;
  stroke-width: 4;
}
@media (prefers-reduced-motion: no-preference) {
  .caret {
    animation: blink 1.1s steps(2, jump-none) infinite;
  }
}
@keyframes blink {
  from {
    opacity: 1;
  }
  to {
    opacity: 0.25;
  }
}
textarea {
  width: 2px;
  height: 18px;
  padding: 0;
  resize: none;
  outline: 0;
  background: none;
  border: 0;
  opacity: 0;
}
</style>
