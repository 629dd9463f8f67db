<script setup lang="ts">
import { mdiPause, mdiPlay, mdiSkipNext, mdiSkipPrevious } from '@mdi/js'
import { useEventListener, useRafFn, useResizeObserver, useTitle } from '@vueuse/core'
import { computed, onMounted, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { deliveryOf } from '#core/formats/deliveries/table'
import { perSecond } from '#core/values/rate'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { api, faultOf } from '~/composables/api'
import { chosenFiles } from '~/composables/chosen-file'
import { useEditFrames } from '~/composables/edit-frames'
import type { EditLook } from '~/composables/edit-picture'
import { drawEdit, EDIT_LOOKS } from '~/composables/edit-picture'
import { followPointer } from '~/composables/follow-pointer'
import { FOOTAGE, useFootage } from '~/composables/footage'
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
/** Of the stage, in pixels of the page. */
const size = ref({ width: 960, height: 540 })
const {
  about,
  fault: unread,
  ahead,
  small,
  own,
  retry,
} = useEditFrames(id, () => Math.round(size.value.width * window.devicePixelRatio))
const { video, duration, broken, choose, bring, play, seek } = useFootage()

const look = ref<EditLook>('file')
const split = ref(0.5)
const footage = ref<string>('dusk-water')
const picker = ref<HTMLInputElement>()
/** Seconds of the footage at which the title begins. */
const inPoint = ref(1)
const loops = ref(true)
const playing = ref(false)
/** Frames of the programme. */
const now = ref(0)
const difference = ref<number | null>(null)
const engineName = `edit-${id}`

const rate = computed(() => (row.value ? perSecond(row.value.rate) : 25))
const count = computed(() => about.value?.order.length ?? 0)
const total = computed(() =>
  Math.max(1, Math.ceil(Math.max(duration.value ?? 0, inPoint.value + count.value / rate.value + 1) * rate.value)),
)
/** Which of the file's frames is over the footage now; null before it begins and after it has ended. */
const place = computed(() => {
  const since = now.value - Math.round(inPoint.value * rate.value)
  if (count.value === 0 || since < 0) return null
  return loops.value ? since % count.value : since < count.value ? since : null
})
const solid = computed(() => row.value !== null && deliveryOf(row.value.options.format).alpha === 'none')
/** What has no transparency shows its own backdrop: there is nothing to hold it against. */
const looks = computed(() => (solid.value ? EDIT_LOOKS.slice(0, 1) : EDIT_LOOKS))
const seconds = (frames: number) => (frames / rate.value).toFixed(2)

onMounted(async () => {
  choose(footage.value)
  try {
    const [found, document] = await Promise.all([
      api<RenderRow>(`/renders/${id}`),
      api<Card>(`/renders/${id}/document`),
    ])
    row.value = found
    setCard(engineName, document)
    // Where most cards are whole: the middle.
    now.value = Math.round(inPoint.value * rate.value + found.framesTotal / 2)
  } catch (error) {
    fault.value = faultOf(error)
  }
})
onScopeDispose(() => forgetCard(engineName))

useResizeObserver(room, ([entry]) => {
  const frame = about.value ?? { width: 16, height: 9 }
  const { width, height } = entry!.contentRect
  const fit = Math.min(width / frame.width, height / frame.height)
  size.value = { width: Math.floor(frame.width * fit), height: Math.floor(frame.height * fit) }
})
watch(about, (found, before) => {
  if (!found || before) return
  const { width, height } = room.value!.getBoundingClientRect()
  const fit = Math.min(width / found.width, height / found.height)
  size.value = { width: Math.floor(found.width * fit), height: Math.floor(found.height * fit) }
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
  const across = Math.min(about.value.width, Math.round(size.value.width * window.devicePixelRatio))
  resize(across, Math.round((across * about.value.height) / about.value.width))
  const file = place.value === null ? null : small(place.value)
  drawEdit(canvas.value.getContext('2d')!, 'file', { footage: video, file, engine: null }, split.value)
}

let drawing = 0

/** What stands still is drawn in its own size, and held against the engine's frame. */
async function drawStill() {
  if (!canvas.value || !about.value || !row.value) return
  const mine = ++drawing
  const at = place.value
  const wanted = look.value
  const engineFrame = at === null || wanted === 'file' ? null : about.value.order[at]!
  const [file, shown] = await Promise.all([
    at === null ? null : own(at),
    engineFrame === null ? null : pictureOf(engineName, engineFrame, { scale: row.value.options.scale }),
    seek((now.value + 0.5) / rate.value),
  ])
  const engine = shown && 'bitmap' in shown ? shown.bitmap : null
  if (mine === drawing && !playing.value) {
    resize(about.value.width, about.value.height)
    const layers = { footage: video, file, engine }
    difference.value = drawEdit(canvas.value.getContext('2d')!, wanted, layers, split.value)
    canvas.value.dataset.shown = `${wanted} ${now.value}`
  }
  engine?.close()
}

let began = { time: 0, frame: 0 }
const clock = useRafFn(
  ({ timestamp }) => {
    const passed = Math.floor(((timestamp - began.time) / 1000) * rate.value)
    const next = began.frame + Math.max(0, passed)
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
watch([about, row, now, look, split, inPoint, loops, duration], () => {
  if (playing.value) return
  ahead(place.value ?? 0)
  void drawStill()
})
video.addEventListener('loadeddata', () => void drawStill())
watch(look, (to) => {
  if (to !== 'file') playing.value = false
})

function step(frames: number) {
  playing.value = false
  now.value = Math.min(total.value - 1, Math.max(0, now.value + frames))
}

function chooseFootage(chosen: string) {
  if (chosen === 'own') {
    picker.value?.click()
    return
  }
  footage.value = chosen
  choose(chosen)
}

function brought(event: Event) {
  const [file] = chosenFiles(event)
  if (!file) return
  footage.value = 'own'
  bring(file)
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
    <div class="tools">
      <div class="looks" role="radiogroup" aria-label="What is shown">
        <button
          v-for="one in looks"
          :key="one.id"
          type="button"
          role="radio"
          :aria-checked="look === one.id"
          :title="one.help"
          @click="look = one.id"
        >
          {{ one.label }}
        </button>
      </div>
      <span v-if="difference !== null" class="said" role="status">
        {{ difference === 0 ? 'This frame is the same, over this footage' : `Off by ${difference} of 255 at most` }}
      </span>
      <span v-else-if="solid" class="said">This file has no transparency: it covers the footage.</span>
      <span v-else-if="reading" class="said" role="status">{{ reading }}</span>
      <span class="gap" />
      <label
        >Over
        <select
          class="plain-field"
          :value="footage"
          @change="chooseFootage(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="one in FOOTAGE" :key="one.id" :value="one.id">{{ one.label }}</option>
          <option value="own">Footage of my own…</option>
        </select>
      </label>
      <input ref="picker" type="file" accept="video/*" hidden data-test="footage" @change="brought" />
    </div>
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
    <footer>
      <button class="icon-button" aria-label="One frame back" @click="step(-1)">
        <VIcon :icon="mdiSkipPrevious" size="20" />
      </button>
      <button class="icon-button" :aria-label="playing ? 'Pause' : 'Play'" @click="playing = !playing">
        <VIcon :icon="playing ? mdiPause : mdiPlay" size="22" />
      </button>
      <button class="icon-button" aria-label="One frame on" @click="step(1)">
        <VIcon :icon="mdiSkipNext" size="20" />
      </button>
      <span class="time">{{ seconds(now) }} s</span>
      <span class="quiet frame">{{ place === null ? 'footage alone' : `frame ${place} of the file` }}</span>
      <div class="line">
        <span
          class="title"
          :style="{
            left: `${(Math.round(inPoint * rate) / total) * 100}%`,
            width: `${((loops ? total : Math.min(total, Math.round(inPoint * rate) + count)) / total - Math.round(inPoint * rate) / total) * 100}%`,
          }"
        />
        <input
          v-model.number="now"
          type="range"
          min="0"
          :max="total - 1"
          step="1"
          aria-label="Moment"
          @pointerdown="playing = false"
        />
      </div>
      <label title="At which second of the footage the title begins"
        >Begins at <input v-model.number="inPoint" class="plain-field" type="number" min="0" max="60" step="0.04" /> s
      </label>
      <label><input v-model="loops" type="checkbox" /> loops</label>
    </footer>
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
.tools,
footer {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 7px 14px;
}
.looks {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.looks button {
  height: 28px;
  padding: 0 12px;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: var(--raised);
  border: 0;
}
.looks button + button {
  border-left: 1px solid var(--line);
}
.looks button[aria-checked='true'] {
  font-weight: 650;
  color: var(--ink);
  background: var(--teal-soft);
}
.said {
  color: var(--ink-2);
}
.gap {
  flex: 1;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
  white-space: nowrap;
}
footer input[type='number'] {
  width: 68px;
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
.time {
  min-width: 56px;
  font-weight: 650;
}
.frame {
  min-width: 118px;
}
.line {
  position: relative;
  flex: 1;
  height: 24px;
  background: var(--paper-3);
  border-radius: 4px;
}
.line .title {
  position: absolute;
  top: 0;
  height: 24px;
  pointer-events: none;
  background: var(--teal-soft);
  border-left: 3px solid var(--teal);
  border-radius: 3px;
}
.line input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 24px;
  margin: 0;
  cursor: pointer;
  appearance: none;
  background: none;
}
.line input::-webkit-slider-runnable-track {
  height: 24px;
}
.line input::-webkit-slider-thumb {
  width: 4px;
  height: 24px;
  appearance: none;
  background: var(--wax);
  border-radius: 2px;
}
.line input::-moz-range-thumb {
  width: 4px;
  height: 24px;
  background: var(--wax);
  border: 0;
  border-radius: 2px;
}
.warn {
  margin: 0;
  padding: 4px 14px;
  color: var(--wax);
}
</style>
