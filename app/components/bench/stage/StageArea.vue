<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watchEffect } from 'vue'
import { PIECE_KINDS } from '#core/pieces/table'
import { allPieces } from '#core/card/tree'
import type { Fault } from '#core/errors'
import type { PieceOutlook } from '#core/frame/outlook'
import { droppedFiles } from '~/composables/numbered-files'
import { backdropCss } from '~/composables/backdrops'
import { useBringFiles } from '~/composables/bring-files'
import { coatTitle } from '~/composables/coat-words'
import { entryTitle } from '~/composables/entry-words'
import { followPointer } from '~/composables/follow-pointer'
import { useKeys } from '~/composables/keys'
import { useBench } from '~/stores/bench'
import { useSequences } from '~/stores/sequences'
import { useStage } from '~/stores/stage'
import StageFooter from './StageFooter.vue'
import StageHandles from './StageHandles.vue'
import MaskPicture from './MaskPicture.vue'
import StagePicture from './StagePicture.vue'

defineProps<{
  picture: ImageBitmap | null
  before: ImageBitmap | null
  /** What the selected mask covers, where that is shown. */
  mask: ImageBitmap | null
  fault: Fault | null
  outlook: PieceOutlook[]
  /** Whether that is where they stand now. */
  isPlaced: boolean
  cost: number
  engineName: string
}>()
const emit = defineEmits<{ scale: [value: number]; showApart: [] }>()

const ZOOMS = [10, 25, 50, 75, 100, 150, 200, 400, 800, 1600]
const MARGIN = 26

const bench = useBench()
const stage = useStage()
const { bringIn } = useBringFiles()
const sequences = useSequences()
const mat = ref<HTMLElement>()
const { width: matWidth, height: matHeight } = useElementSize(mat)
const zoomChoice = ref<'fit' | number>('fit')
/** Where the line between before and after stands, as a share of the width. */
const split = ref(0.5)
const panning = ref(false)

const frame = computed(() => bench.card?.frame ?? { width: 16, height: 9 })
const fit = computed(() => {
  const across = stage.look === 'both' ? 2 : 1
  const w = (matWidth.value - MARGIN * (across + 1)) / across / frame.value.width
  const h = (matHeight.value - MARGIN * 2) / frame.value.height
  return Math.max(0.02, Math.min(w, h))
})
const zoom = computed(() => (zoomChoice.value === 'fit' ? fit.value : zoomChoice.value / 100))
const size = computed(() => ({
  width: Math.round(frame.value.width * zoom.value),
  height: Math.round(frame.value.height * zoom.value),
}))
const screens = computed(() => {
  if (stage.look === 'both') return [backdropCss('#ffffff', null), backdropCss('#000000', null)]
  return [stage.look === 'alpha' ? backdropCss('#000000', null) : backdropCss(stage.backdrop, stage.ownBackdrop)]
})

// The engine never makes more pixels than the card has: above 100 % the card's own pixels are enlarged.
watchEffect(() => {
  if (matWidth.value > 0) emit('scale', Math.min(1, size.value.width / frame.value.width))
})

/** What the stage waits for or leaves out, in words, with a way back. */
const state = computed(() => {
  if (stage.colourWanted) return { text: 'Press on the stage to take the colour there.', back: 'Leave' }
  if (stage.drawing === 'path')
    return {
      text: 'Press for a corner, drag for a bend. The first point closes the path, Enter leaves it open.',
      back: 'Leave',
    }
  if (stage.drawing === 'mask') return { text: 'Drag on the stage around what the mask is to cover.', back: 'Leave' }
  if (stage.drawing === 'freehand') return { text: 'Drag on the stage to draw in one go.', back: 'Leave' }
  if (stage.editedWords)
    return {
      text: 'Write where the words stand. Alt with an arrow kerns the letters at the caret, Escape is done.',
      back: 'Done',
    }
  if (stage.drawing)
    return { text: `Drag on the stage to draw: ${PIECE_KINDS[stage.drawing].label.toLowerCase()}.`, back: 'Leave' }
  if (stage.editedPath)
    return { text: 'Points of the path: drag them, press on the line to add one, Delete takes one away.', back: 'Done' }
  if (stage.alone) {
    const piece = allPieces(bench.card!.pieces).find(({ id }) => id === stage.alone!.piece)
    const is = ({ id }: { id: string }) => id === stage.alone!.part
    const coat = piece && [...piece.coats.face, ...piece.coats.behind].find(is)
    const entry = piece?.finishes.find(is) ?? piece?.outlineSteps.find(is)
    const part = coat ? coatTitle(coat) : entry ? entryTitle(entry) : ''
    return { text: `Alone: ${piece?.name ?? ''}${part ? ` · ${part.toLowerCase()}` : ''}`, back: 'Show all' }
  }
  if (stage.openGroup) {
    const group = allPieces(bench.card!.pieces).find(({ id }) => id === stage.openGroup)
    return group ? { text: `Inside ${group.name}`, back: 'Leave the group' } : null
  }
  return null
})

function back() {
  if (stage.colourWanted) stage.colourWanted = null
  else if (stage.drawing) stage.drawing = null
  else if (stage.editedPath) stage.editedPath = null
  else if (stage.editedWords) stage.editedWords = null
  else if (stage.alone) stage.alone = null
  else {
    bench.select(stage.openGroup)
    stage.openGroup = null
  }
}

/** To the next step of zoom, with what lies under the pointer staying there. */
async function zoomBy(direction: 1 | -1, at?: { x: number; y: number }) {
  const area = mat.value!
  const bounds = area.getBoundingClientRect()
  const spot = at ? { x: at.x - bounds.left, y: at.y - bounds.top } : { x: bounds.width / 2, y: bounds.height / 2 }
  const before = zoom.value
  const now = before * 100
  const next = direction > 0 ? ZOOMS.find((z) => z > now + 0.5) : [...ZOOMS].reverse().find((z) => z < now - 0.5)
  if (!next) return
  const held = { x: area.scrollLeft + spot.x, y: area.scrollTop + spot.y }
  zoomChoice.value = next
  await nextTick()
  const factor = zoom.value / before
  area.scrollTo({ left: held.x * factor - spot.x, top: held.y * factor - spot.y })
}

function wheel(event: WheelEvent) {
  if (!event.ctrlKey) return
  event.preventDefault()
  void zoomBy(event.deltaY < 0 ? 1 : -1, { x: event.clientX, y: event.clientY })
}

/** The middle button, or Shift and Space, moves the mat under the window. */
function pan(event: PointerEvent) {
  if (event.button !== 1) return
  event.preventDefault()
  event.stopPropagation()
  const area = mat.value!
  const start = { x: event.clientX + area.scrollLeft, y: event.clientY + area.scrollTop }
  panning.value = true
  followPointer(
    event,
    (next) => area.scrollTo({ left: start.x - next.clientX, top: start.y - next.clientY }),
    () => (panning.value = false),
  )
}

/** A press beside the frame is one on nothing. */
function leave({ button, target }: PointerEvent) {
  if (button === 0 && (target as HTMLElement).matches('.mat, .screens')) bench.select(null)
}

/** Files are brought in where they are dropped. */
async function dropFiles(event: DragEvent) {
  // The list is empty after the event: the entries are taken at once.
  const dropped = event.dataTransfer && droppedFiles(event.dataTransfer)
  const screen = mat.value!.querySelector('.screen')!.getBoundingClientRect()
  const point = { x: (event.clientX - screen.left) / zoom.value, y: (event.clientY - screen.top) / zoom.value }
  const files = (await dropped) ?? []
  if (files.length > 0) void bringIn(files, { x: Math.round(point.x), y: Math.round(point.y) })
}

function dragSplit(event: PointerEvent) {
  const bounds = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect()
  followPointer(event, (next) => {
    split.value = Math.min(1, Math.max(0, (next.clientX - bounds.left) / bounds.width))
  })
}

const { actionOf } = useKeys()
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if ((event.target as HTMLElement).matches('input:not([type=range]), textarea, select')) return
  const action = actionOf(event)
  if (action === 'zoomIn') void zoomBy(1)
  else if (action === 'zoomOut') void zoomBy(-1)
  else if (action === 'zoomFit') zoomChoice.value = 'fit'
})
</script>

<template>
  <main class="stage">
    <div
      ref="mat"
      class="mat"
      :class="{ panning }"
      @wheel="wheel"
      @pointerdown.capture="pan"
      @pointerdown="leave"
      @dragover.prevent
      @drop.prevent="dropFiles"
    >
      <p v-if="state" class="state" role="status">
        {{ state.text }} <button class="plain-button" @click="back">{{ state.back }}</button>
      </p>
      <div class="screens">
        <div
          v-for="(ground, i) in screens"
          :key="i"
          class="screen"
          :class="ground.class"
          :style="{ width: `${size.width}px`, height: `${size.height}px`, background: ground.background }"
        >
          <StagePicture
            :bitmap="picture"
            v-bind="size"
            :alpha="stage.look === 'alpha'"
            :crisp="zoom > 1"
            :clip="stage.look === 'split' ? [split, 1] : null"
          />
          <StagePicture
            v-if="stage.look === 'split'"
            class="before"
            :bitmap="before"
            v-bind="size"
            :crisp="zoom > 1"
            :clip="[0, split]"
          />
          <MaskPicture v-if="mask" :bitmap="mask" v-bind="size" :alone="stage.maskView === 'alone'" />
          <StageHandles :outlook="outlook" :is-placed="isPlaced" :zoom="zoom" :engine-name="engineName" />
          <button
            v-if="stage.look === 'split'"
            class="divider"
            aria-label="Line between before and after"
            :style="{ left: `${split * 100}%` }"
            @pointerdown.stop.prevent="dragSplit"
            @keydown.left.stop.prevent="split = Math.max(0, split - 0.05)"
            @keydown.right.stop.prevent="split = Math.min(1, split + 0.05)"
          />
        </div>
      </div>
      <p v-if="sequences.sending" class="state coming" role="status">
        Bringing in {{ sequences.sending.name }}
        <progress :value="sequences.sending.share" max="1" />
      </p>
      <p v-if="fault" class="fault" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
    </div>
    <slot />
    <StageFooter v-model:zoom="zoomChoice" :zooms="ZOOMS" :fit="fit" :cost="cost" @show-apart="$emit('showApart')" />
  </main>
</template>

<style scoped>
.stage {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) 38px;
  min-width: 0;
  min-height: 0;
}
.mat {
  position: relative;
  display: grid;
  min-height: 0;
  overflow: auto;
  background: var(--mat);
}
.panning,
.panning * {
  cursor: grabbing !important;
}
.screens {
  grid-area: 1 / 1;
  display: flex;
  gap: 26px;
  padding: 26px;
  margin: auto;
}
.screen {
  position: relative;
  box-shadow: 0 0 0 1px #0006;
}
.before {
  position: absolute;
  inset: 0;
}
.divider {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 12px;
  padding: 0;
  margin-left: -6px;
  touch-action: none;
  cursor: ew-resize;
  background: linear-gradient(#fff6ee 0 0) center / 2px 100% no-repeat;
  border: 0;
  filter: drop-shadow(0 0 1px #000);
}
.coming progress {
  width: 120px;
  accent-color: var(--teal);
}
.state {
  position: sticky;
  top: 8px;
  left: 8px;
  z-index: 2;
  display: flex;
  grid-area: 1 / 1;
  gap: 10px;
  place-self: start;
  align-items: center;
  padding: 5px 6px 5px 12px;
  margin: 8px;
  color: var(--ink);
  background: var(--paper);
  border-radius: 7px;
  box-shadow: var(--float);
}
.state .plain-button {
  height: 26px;
}
.fault {
  position: absolute;
  inset: auto 0 0;
  padding: 8px 14px;
  margin: 0;
  color: #fff6ee;
  background: #9b2d26;
}
</style>
