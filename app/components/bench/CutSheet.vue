<script setup lang="ts">
import { axisBottom, axisLeft, interpolateRgbBasis, max, pointer, quantile, scaleLinear, select } from 'd3'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { changePiece } from '#core/edit/stack'
import type { Piece, SequencePiece } from '#core/card/schema'
import { cutAt, LEAST_CUT } from '#core/judge/best-cut'
import { CLOCK_PARAMETERS } from '#core/pieces/clock'
import { SEQUENCE_PARAMETERS, shownPictures } from '#core/pieces/sequence'
import { momentOf } from '#core/time/ring'
import { valuesAt } from '#core/values/evaluated'
import { perSecond } from '#core/values/rate'
import { faultOf } from '~/composables/api'
import type { ComparedSequence } from '~/composables/best-cut'
import { compareSequence } from '~/composables/best-cut'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'

const props = defineProps<{ piece: SequencePiece }>()
const open = defineModel<boolean>({ required: true })
const bench = useBench()
const { shown: moment } = useMoment(() => props.piece.id)

/** The map's side, and the room for its numbers, in px. */
const SIDE = 330
const EDGE = { left: 34, foot: 24 }
/** Pictures on either side of the seam that are played. */
const AROUND = 12
const ACROSS = 320

const compared = shallowRef<ComparedSequence | null>(null)
const fault = ref<{ message: string; remedy: string } | null>(null)
const control = new AbortController()
onScopeDispose(() => control.abort())

const name = props.piece.sequence!
const values = valuesAt({ ...CLOCK_PARAMETERS, dissolve: SEQUENCE_PARAMETERS.dissolve }, props.piece, moment.value)
const from = ref(values.clockFrom)
const to = ref(values.clockTo || name.frames)
const dissolve = ref(values.dissolve)

compareSequence(name.id, control.signal).then(
  (found) => {
    compared.value = found
    take(found.cut.best)
  },
  (error: unknown) => {
    if (!control.signal.aborted) fault.value = faultOf(error)
  },
)

function take(cut: { in: number; out: number }) {
  from.value = cut.in
  to.value = cut.out
}

const cut = computed(() => {
  const { value } = compared
  const [a, b] = [Math.max(0, Math.round(from.value)), Math.min(name.frames, Math.round(to.value))]
  return value && b - a >= LEAST_CUT ? cutAt(value.distances, a, b) : null
})
const cuts = computed(() => {
  const { value } = compared
  if (!value) return []
  const all = [value.cut.best, ...value.cut.others]
  return all
    .filter((one, i) => all.findIndex((other) => other.in === one.in && other.out === one.out) === i)
    .slice(0, 5)
})
/** Whether the best of all cuts cuts nothing away. */
const isWhole = computed(() => {
  const best = compared.value?.cut.best
  return best?.in === 0 && best.out === name.frames
})
const isTaken = (one: { in: number; out: number }) => one.in === from.value && one.out === to.value

// The map: each place is a first picture and one after a last; light where the two are alike.
const x = scaleLinear().domain([0, name.frames]).range([0, SIDE])
const y = scaleLinear().domain([0, name.frames]).range([SIDE, 0])
const canvas = ref<HTMLCanvasElement>()
const axes = ref<SVGGElement>()

watch([compared, canvas], ([found, target]) => {
  if (!found || !target) return
  const { count, values: all } = found.distances
  const sample = Array.from({ length: 2000 }, (_, i) => all[Math.floor((i / 2000) * all.length)]!).sort((a, b) => a - b)
  const most = quantile(sample, 0.9) || max(sample) || 1
  const colour = interpolateRgbBasis(['#fff6e0', '#e7b562', '#9b2d26', '#2b2420'])
  const table = Array.from({ length: 256 }, (_, i) =>
    colour(Math.sqrt(i / 255))
      .match(/\d+/g)!
      .map(Number),
  )
  const pixels = new Uint8ClampedArray(SIDE * SIDE * 4)
  for (let row = 0; row < SIDE; row++) {
    const out = Math.min(count - 1, Math.floor(y.invert(row + 0.5)))
    for (let column = 0; column < SIDE; column++) {
      const into = Math.min(count - 1, Math.floor(x.invert(column + 0.5)))
      // A cut ends after it begins.
      if (out <= into) continue
      const step = Math.min(255, Math.round((all[into * count + out]! / most) * 255))
      pixels.set([...table[step]!, 255], (row * SIDE + column) * 4)
    }
  }
  target.getContext('2d')!.putImageData(new ImageData(pixels, SIDE, SIDE), 0, 0)
})
watch(axes, (group) => {
  if (!group) return
  const whole = (v: unknown) => String(v)
  select(group).append('g').attr('transform', `translate(0,${SIDE})`).call(axisBottom(x).ticks(6).tickFormat(whole))
  select(group).append('g').call(axisLeft(y).ticks(6).tickFormat(whole))
})

/** The valley nearest to where one presses: a cut is hard to hit by hand. */
function pick(event: PointerEvent) {
  const { value } = compared
  if (!value || (event.type === 'pointermove' && event.buttons !== 1)) return
  const [px, py] = pointer(event, event.currentTarget)
  const reach = Math.max(1, Math.round((5 / SIDE) * name.frames))
  const [column, row] = [Math.round(x.invert(px)), Math.round(y.invert(py))]
  const { count, values: all } = value.distances
  let best = { in: 0, out: 0, step: Infinity }
  for (let into = column - reach; into <= column + reach; into++) {
    for (let out = row - reach; out <= row + reach; out++) {
      if (into < 0 || out > count || out - into < LEAST_CUT) continue
      const step = out < count ? all[into * count + out]! : all[into * count + out - 1]! + 0.5
      if (step < best.step) best = { in: into, out, step }
    }
  }
  if (best.step < Infinity) take(best)
}

// The seam, played: the last pictures, then the first ones.
const preview = computed(() => ({
  ...props.piece,
  ...{ clock: 'own', clockStart: 0, clockSpeed: 100, clockEnd: 'again', clockBackward: false, rate: null },
  ...{ clockFrom: from.value, clockTo: to.value, dissolve: dissolve.value, between: 'nearest' },
}))
const length = computed(() => Math.max(1, to.value - from.value))
const played = ref(0)
const shown = computed(() => {
  const around = Math.min(AROUND, length.value)
  const frame = (length.value - around + (played.value % (around * 2))) % length.value
  const card = { ...bench.card!, length: Math.max(1, length.value) }
  return shownPictures(preview.value as SequencePiece, momentOf(card, frame))
})
const src = (index: number) => `/api/sequences/${name.id}/pictures/${index}?across=${ACROSS}`
const pace = perSecond(props.piece.rate ?? bench.card!.rate)
const timer = setInterval(() => played.value++, 1000 / Math.min(30, pace))
onScopeDispose(() => clearInterval(timer))
// What is played next is fetched before.
watch([from, to], () => {
  for (let i = 0; i < AROUND; i++)
    for (const index of [from.value + i, to.value - 1 - i])
      if (index >= 0 && index < name.frames) new Image().src = src(index)
})

/** Frames of the card that the cut takes. */
const onCard = computed(() => (length.value * perSecond(bench.card!.rate)) / pace)
const fits = computed(() => {
  const times = bench.card!.length / onCard.value
  return Math.abs(times - Math.round(times)) < 1e-6 && times > 0.5
})
const round = (v: number) => Math.round(v * 10) / 10

function use() {
  const change = {
    ...{ clock: 'own', clockFrom: from.value, clockTo: to.value === name.frames ? 0 : to.value, clockEnd: 'again' },
    dissolve: dissolve.value,
  }
  bench.edit('Cut the sequence', (card) => changePiece(card, props.piece.id, change as Partial<Piece>))
  open.value = false
}
</script>

<template>
  <VDialog v-model="open" max-width="760">
    <div class="sheet">
      <h2>Best cut of {{ piece.name }}</h2>
      <p v-if="fault" class="bad" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <p v-else-if="!compared" class="quiet" role="status">Comparing its {{ name.frames }} pictures with each other…</p>
      <p v-else class="quiet" role="status">
        <template v-if="compared.cut.periods.length > 0">
          It repeats itself after
          {{
            compared.cut.periods
              .map((period) => period.length)
              .slice(0, 4)
              .join(', ')
          }}
          pictures.
        </template>
        <template v-else-if="isWhole">It is a loop as it is: nothing needs to be cut away.</template>
        <template v-else>Nothing in it repeats itself: this is the cut whose ends are most alike.</template>
      </p>
      <div class="sides">
        <svg
          class="map"
          :width="SIDE + EDGE.left + 6"
          :height="SIDE + EDGE.foot + 6"
          role="img"
          aria-label="Likeness of every first picture with every one after the last; light is alike"
        >
          <g :transform="`translate(${EDGE.left},4)`">
            <foreignObject :width="SIDE" :height="SIDE"
              ><canvas ref="canvas" :width="SIDE" :height="SIDE"
            /></foreignObject>
            <g ref="axes" class="axes" />
            <text class="axis" :x="SIDE - 6" :y="SIDE - 24" text-anchor="end">across: the first picture</text>
            <text class="axis" :x="SIDE - 6" :y="SIDE - 8" text-anchor="end">up: the one after the last</text>
            <template v-if="compared">
              <path class="cross" :d="`M${x(from)},${y(from)}V${y(to)}H${x(to)}`" />
              <circle
                v-for="one in cuts"
                :key="`${one.in} ${one.out}`"
                class="found"
                :cx="x(one.in)"
                :cy="y(one.out)"
                r="4"
              />
              <circle class="taken" :cx="x(from)" :cy="y(to)" r="6" />
            </template>
            <rect class="ground" :width="SIDE" :height="SIDE" @pointerdown="pick" @pointermove="pick" />
          </g>
        </svg>
        <div class="side">
          <div
            class="screen"
            :style="{ aspectRatio: `${piece.width} / ${piece.height}` }"
            aria-label="The seam, played"
          >
            <img v-for="{ index, share } in shown" :key="index" :src="src(index)" alt="" :style="{ opacity: share }" />
            <span class="at">{{ shown[0]?.index }}</span>
          </div>
          <p v-if="cut" class="verdict">
            <b :class="{ bad: cut.shows }">{{ cut.shows ? 'The seam shows' : 'The seam does not show' }}</b>: a step of
            {{ round(cut.seam) }} of 255, others are {{ round(cut.step) }}.
          </p>
          <div class="numbers">
            <label>From <input v-model.number="from" class="plain-field" type="number" min="0" :max="to - 2" /></label>
            <label
              >To <input v-model.number="to" class="plain-field" type="number" :min="from + 2" :max="name.frames"
            /></label>
            <label title="Pictures over which the end goes over into the beginning, as far as there are more of them">
              Dissolve <input v-model.number="dissolve" class="plain-field" type="number" min="0" max="500" />
            </label>
          </div>
          <p class="quiet small">
            {{ length }} pictures, {{ round(onCard) }} frames of the card.
            <template v-if="!fits">
              Its loop of {{ bench.card!.length }} frames is no multiple of that: the sequence jumps there.
            </template>
          </p>
          <div v-if="cuts.length > 0" class="cuts">
            <button
              v-for="one in cuts"
              :key="`${one.in} ${one.out}`"
              class="plain-button"
              :class="{ on: isTaken(one) }"
              @click="take(one)"
            >
              {{ one.in }}–{{ one.out - 1 }}
            </button>
          </div>
        </div>
      </div>
      <footer>
        <button class="wax-button" :disabled="!cut" @click="use">Use this cut</button>
        <button class="plain-button" @click="open = false">Close</button>
      </footer>
    </div>
  </VDialog>
</template>

<style scoped>
.sheet {
  padding: 18px 20px;
  background: var(--raised);
  border-radius: 10px;
  box-shadow: var(--float);
}
h2 {
  margin: 0 0 4px;
  font-size: 16px;
}
.sides {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 16px;
  margin-top: 8px;
}
canvas {
  display: block;
  background: var(--paper-2);
}
.ground {
  cursor: crosshair;
  fill: transparent;
}
.axes {
  color: var(--ink-2);
}
.axis {
  font-size: 11px;
  pointer-events: none;
  fill: var(--ink-2);
}
.cross {
  pointer-events: none;
  fill: none;
  stroke: var(--teal);
  stroke-dasharray: 3 3;
}
.found {
  pointer-events: none;
  fill: none;
  stroke: var(--ink);
}
.taken {
  pointer-events: none;
  fill: none;
  stroke: var(--teal);
  stroke-width: 2.5;
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}
.screen {
  position: relative;
  max-height: 220px;
  overflow: hidden;
  background: var(--mat);
  border-radius: 6px;
}
.screen img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.at {
  position: absolute;
  right: 6px;
  bottom: 4px;
  padding: 0 5px;
  font-size: 11px;
  font-variant-numeric: tabular-nums;
  color: #fff6ee;
  background: rgb(0 0 0 / 0.5);
  border-radius: 4px;
}
.verdict,
.small {
  margin: 0;
  font-size: 12.5px;
}
.bad {
  color: var(--wax);
}
.numbers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  font-size: 12px;
}
.numbers input {
  width: 100%;
}
.cuts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.cuts .on {
  border-color: var(--teal);
}
footer {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
  margin-top: 14px;
}
</style>
