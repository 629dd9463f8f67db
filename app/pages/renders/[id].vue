<script setup lang="ts">
import { useEventListener, useRafFn, useResizeObserver, useTitle } from '@vueuse/core'
import { computed, onMounted, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { deliveryOf } from '#core/formats/deliveries/table'
import { FOOTAGE } from '#core/formats/footage'
import type { ProgrammeRun, Take } from '#core/rosters/run'
import { takesOf } from '#core/rosters/run'
import { perSecond } from '#core/values/rate'
import EditTools from '~/components/edit/EditTools.vue'
import EditTransport from '~/components/edit/EditTransport.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { api, faultOf } from '~/composables/api'
import { useEditFrames } from '~/composables/edit-frames'
import type { EditLook } from '~/composables/edit-picture'
import { drawEdit } from '~/composables/edit-picture'
import { followPointer } from '~/composables/follow-pointer'
import { useFootage } from '~/composables/footage'
import { useProgramme } from '~/composables/programme'
import { aboutRender } from '~/composables/render-words'
import type { RenderRow } from '~/stores/renders'
import { forgetCard, pictureOf, setCard } from '~/workers/engine-pool'

// Stands in for an editing program: takes the delivered file, reads it again, and lays it over footage.

const id = String(useRoute().params.id)
const row = shallowRef<RenderRow | null>(null)
const fault = ref<Fault | null>(null)
useTitle(computed(() => `${row.value?.name ?? 'Edit'} · Wax Ribbon`))

const canvas = ref<HTMLCanvasElement>()
const room = ref<HTMLElement>()
const roomSize = ref({ width: 960, height: 540 })
const pixelsAcross = () => Math.round(size.value.width * window.devicePixelRatio)
const { about, fault: unread, ahead, small, own, retry } = useEditFrames(id, pixelsAcross)
const { video, duration, broken, choose, bring, play, seek } = useFootage()

const rate = computed(() => (row.value ? perSecond(row.value.rate) : 25))
const count = computed(() => about.value?.order.length ?? 0)
const { inPoint, loops, now, first, total, span, place, go } = useProgramme(rate, count, duration)

const look = ref<EditLook>('file')
const split = ref(0.5)
const playing = ref(false)
const difference = ref<number | null>(null)
const engineName = `edit-${id}`
const solid = computed(() => row.value !== null && deliveryOf(row.value.options.format).alpha === 'none')
/** Of the picture, as large as it goes into the room, in pixels of the page. */
const size = computed(() => {
  const frame = about.value ?? { width: 16, height: 9 }
  const fit = Math.min(roomSize.value.width / frame.width, roomSize.value.height / frame.height)
  return { width: Math.floor(frame.width * fit), height: Math.floor(frame.height * fit) }
})

onMounted(async () => {
  choose(FOOTAGE[0].id)
  try {
    const [found, document, { programme: run }] = await Promise.all([
      api<RenderRow>(`/renders/${id}`),
      api<Card>(`/renders/${id}/document`),
      api<{ programme: ProgrammeRun | null }>(`/renders/${id}/programme`),
    ])
    if (run) {
      const { takes } = takesOf(document, run)
      takeOf = (number) => takes[number]!
    } else takeOf = (frame) => ({ card: document, frame })
    row.value = found
    // Where most cards are whole: the middle.
    now.value = Math.round(first.value + found.framesTotal / 2)
  } catch (error) {
    fault.value = faultOf(error)
  }
})
onScopeDispose(() => forgetCard(engineName))

/** What the file shows by its own numbers: frames of its card, or takes of a programme. */
let takeOf: ((number: number) => Take) | null = null
let known: Card | null = null

/** The engine's own picture of a place in the file. */
async function engineAt(number: number, scale: number) {
  const { card, frame } = takeOf!(number)
  if (card !== known) setCard(engineName, card)
  known = card
  return pictureOf(engineName, frame, { scale })
}

useResizeObserver(room, ([entry]) => {
  const { width, height } = entry!.contentRect
  roomSize.value = { width, height }
})

function resize(width: number, height: number) {
  const target = canvas.value!
  if (target.width === width && target.height === height) return
  target.width = width
  target.height = height
}

/** What plays is drawn as large as it is seen. */
function drawPlaying() {
  if (!canvas.value || !about.value) return
  const across = Math.min(about.value.width, pixelsAcross())
  resize(across, Math.round((across * about.value.height) / about.value.width))
  const file = place.value === null ? null : small(place.value)
  drawEdit(canvas.value.getContext('2d')!, 'file', { footage: video, file, engine: null }, split.value)
}

let drawing = 0

/** What stands still is drawn in its own size, and held against the engine's frame. Until the first one is read there is the footage. */
async function drawStill() {
  if (!canvas.value || !about.value || !row.value) return
  const mine = ++drawing
  const at = place.value
  const wanted = look.value
  const frame = now.value
  const number = at === null || wanted === 'file' ? null : about.value.order[at]!
  const sought = seek((frame + 0.5) / rate.value)
  void sought.then(() => {
    if (mine === drawing && !canvas.value?.dataset.shown) drawPlaying()
  })
  const [file, shown] = await Promise.all([
    at === null ? null : own(at),
    number === null ? null : engineAt(number, row.value.options.scale),
    sought,
  ])
  const engine = shown && 'bitmap' in shown ? shown.bitmap : null
  if (mine === drawing && !playing.value && canvas.value) {
    resize(about.value.width, about.value.height)
    const layers = { footage: video, file, engine }
    difference.value = drawEdit(canvas.value.getContext('2d')!, wanted, layers, split.value)
    canvas.value.dataset.shown = `${wanted} ${frame}`
  }
  engine?.close()
}

let began = { time: 0, frame: 0 }
const clock = useRafFn(
  ({ timestamp }) => {
    const next = began.frame + Math.max(0, Math.floor(((timestamp - began.time) / 1000) * rate.value))
    if (next >= total.value) {
      began = { time: timestamp, frame: 0 }
      void play(0)
    }
    now.value = next % total.value
    ahead(place.value ?? 0)
    drawPlaying()
  },
  { immediate: false },
)

watch(playing, (on) => {
  if (!on) {
    clock.pause()
    void drawStill()
    return
  }
  // Differences are of what stands still.
  look.value = 'file'
  difference.value = null
  began = { time: performance.now(), frame: now.value }
  void play(now.value / rate.value)
  clock.resume()
})
watch([about, row, now, look, split, first, loops, duration], () => {
  if (playing.value) return
  ahead(place.value ?? 0)
  void drawStill()
})
useEventListener(video, 'loadeddata', () => void drawStill())
watch(look, (to) => {
  if (to !== 'file') playing.value = false
})

function step(frames: number) {
  playing.value = false
  go(now.value + frames)
}

function drag(event: PointerEvent) {
  if (look.value !== 'split') return
  const { left, width } = canvas.value!.getBoundingClientRect()
  const put = ({ clientX }: PointerEvent) => (split.value = Math.min(1, Math.max(0, (clientX - left) / width)))
  put(event)
  followPointer(event, put)
}

useEventListener('keydown', (event: KeyboardEvent) => {
  const target = event.target as HTMLElement
  if (['INPUT', 'SELECT', 'BUTTON'].includes(target.tagName)) return
  if (event.key === ' ') playing.value = !playing.value
  else if (event.key === 'ArrowLeft') step(event.shiftKey ? -10 : -1)
  else if (event.key === 'ArrowRight') step(event.shiftKey ? 10 : 1)
  else return
  event.preventDefault()
})

const reading = computed(() => {
  const found = about.value
  if (!found) return 'Reading the file'
  return found.ended ? '' : `Reading the file: ${found.there} of ${found.order.length} frames`
})
</script>

<template>
  <div class="edit">
    <PlaceBar>
      <div v-if="row" class="name">
        <b>{{ row.name }}</b> <span class="quiet">{{ row.files.map(({ name }) => name).join(', ') }}</span>
      </div>
      <NuxtLink class="plain-button back" to="/renders">Back to the press room</NuxtLink>
    </PlaceBar>
    <EditTools
      v-model="look"
      :solid="solid"
      :difference="difference"
      :reading="reading"
      @footage="choose"
      @bring="bring"
    />
    <p v-if="fault ?? unread" class="warn" role="alert">
      {{ (fault ?? unread)!.message }} {{ (fault ?? unread)!.remedy }}
      <button v-if="unread" class="plain-button" @click="retry">Try again</button>
    </p>
    <p v-if="broken" class="warn" role="alert">
      This footage cannot be played here. Use an MP4 file of H.264 or a WebM file.
    </p>
    <div ref="room" class="room">
      <canvas
        ref="canvas"
        :style="{ width: `${size.width}px`, height: `${size.height}px` }"
        :class="look"
        :aria-label="row ? aboutRender(row) : undefined"
        @pointerdown="drag"
      />
    </div>
    <EditTransport
      v-model:now="now"
      v-model:playing="playing"
      v-model:in-point="inPoint"
      v-model:loops="loops"
      :total="total"
      :rate="rate"
      :span="span"
      :place="place"
      @step="step"
      @go="go"
    />
  </div>
</template>

<style scoped>
.edit {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.back {
  margin-left: auto;
  text-decoration: none;
}
.room {
  display: grid;
  flex: 1;
  place-items: center;
  min-height: 0;
  overflow: hidden;
  background: var(--mat);
}
canvas {
  display: block;
  background: #000;
}
canvas.split {
  cursor: ew-resize;
}
.warn {
  padding: 4px 14px;
  margin: 0;
  color: var(--wax);
}
</style>
