<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { swapColours, turnAround } from '#core/edit/stops'
import { setStored, storedAt } from '#core/edit/values'
import type { StoredGradient, StoredPaint } from '#core/values/moving'
import { isGradient } from '#core/values/moving'
import { GRADIENT_CHOICES, PAINT_KINDS, paintAs, paintKind, STOP_PARAMETERS } from '#core/values/paints'
import { writeColour } from '#core/values/colour'
import { colourValue, numberValue, paintValue } from '#core/values/evaluated'
import { readCssGradient, writeCssGradient } from '#core/formats/css-gradient'
import { faultOf } from '~/composables/api'
import { paintCss } from '~/composables/paint-css'
import { followPointer } from '~/composables/follow-pointer'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import ColourRow from './ColourRow.vue'
import NumberRow from './NumberRow.vue'
import PaintKindIcon from './PaintKindIcon.vue'
import TextureField from './TextureField.vue'
import HintText from './HintText.vue'

/** `coloursOnly`: it is laid along something that is no place, so that only its colours count. */
const props = defineProps<{
  address: string
  label: string
  places: readonly ParameterPlace[]
  coloursOnly?: boolean
}>()

const bench = useBench()
const notices = useNotices()
const paint = computed(() => storedAt(bench.card!, props.address) as StoredPaint)
const gradient = computed(() => (isGradient(paint.value) ? paint.value : null))
const { base: moment } = useMoment()
const at = (name: string) => props.places.find((place) => place.address === `${props.address}/${name}`)
const stops = computed(() => gradient.value?.stops ?? [])
const chosen = ref(0)
const stop = computed(() => Math.min(chosen.value, stops.value.length - 1))
const bar = computed(() => paintCss(paint.value, moment.value, true))
const stopPlaces = computed(() =>
  stops.value.map(({ at: place }) => numberValue(place, moment.value, STOP_PARAMETERS.at)),
)
const kind = computed(() => paintKind(paint.value.type))
/** The card's background has no edge to measure from. */
const kinds = computed(() =>
  props.coloursOnly
    ? PAINT_KINDS.filter(({ type }) => type === 'solid' || type === 'linear')
    : PAINT_KINDS.filter(({ type }) => type !== 'edge' || props.address !== 'background'),
)

function put(label: string, next: StoredPaint, mark = '') {
  bench.edit(label, (card) => setStored(card, props.address, next), mark)
}

function become(type: StoredPaint['type'], label: string) {
  const { value } = paint
  const first = value.type === 'solid' ? value.colour : ''
  const second = bench.card!.palette.find((hex) => hex !== first) ?? '#FFFFFF'
  put(`${label} paint`, paintAs(value, type, second))
}

function changed(change: Partial<StoredGradient>): StoredPaint {
  return { ...gradient.value!, ...change }
}

/** A new stop where the bar was pressed, in the colour that is there. */
function addStop(event: MouseEvent) {
  if (event.target !== event.currentTarget) return
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const place = Math.round(((event.clientX - bounds.left) / bounds.width) * 100)
  const evaluated = paintValue(paint.value, moment.value)
  if (!('stops' in evaluated)) return
  const nearest = [...evaluated.stops].sort((a, b) => Math.abs(a.at * 100 - place) - Math.abs(b.at * 100 - place))[0]!
  chosen.value = stops.value.length
  put('Colour added', changed({ stops: [...stops.value, { at: place, colour: writeColour(nearest.colour) }] }))
}

function removeStop() {
  if (stops.value.length <= 2) return
  put('Colour taken away', changed({ stops: stops.value.filter((_, i) => i !== stop.value) }))
}

function dragStop(event: PointerEvent, index: number) {
  chosen.value = index
  // A place that moves is set with its keys, in the row below.
  if (typeof stops.value[index]!.at !== 'number') return
  const handle = event.currentTarget as HTMLElement
  const bounds = handle.parentElement!.getBoundingClientRect()
  const move = (next: PointerEvent) => {
    bench.dragging = true
    const place = Math.round(Math.min(100, Math.max(0, ((next.clientX - bounds.left) / bounds.width) * 100)))
    const moved = stops.value.map((other, i) => (i === index ? { ...other, at: place } : other))
    put('Place of a colour', changed({ stops: moved }), `${props.address}/stops`)
  }
  followPointer(event, move, () => bench.endStep())
}

const turned = () => put('Gradient turned around', changed({ stops: turnAround(stops.value) }))
const swap = () => put('Colours swapped', changed({ stops: swapColours(stops.value, stop.value) }))

const stopColour = (index: number) => writeColour(colourValue(stops.value[index]!.colour, moment.value))

const css = computed(() => {
  const evaluated = paintValue(paint.value, moment.value)
  return 'stops' in evaluated ? writeCssGradient(evaluated) : ''
})

function pasteCss(event: Event) {
  const input = event.target as HTMLTextAreaElement
  if (input.value === css.value) return
  try {
    put('Gradient from CSS', { ...readCssGradient(input.value), hang: gradient.value!.hang })
  } catch (error) {
    input.value = css.value
    notices.fault((error as { fault?: ReturnType<typeof faultOf> }).fault ?? faultOf(error))
  }
}
</script>

<template>
  <section class="paint" :aria-label="label">
    <div class="head">
      <span class="label">{{ label }}</span>
      <div class="kinds" role="radiogroup" :aria-label="`${label}, kind`">
        <button
          v-for="choice in kinds"
          :key="choice.type"
          role="radio"
          :aria-label="choice.label"
          :aria-checked="paint.type === choice.type"
          @click="become(choice.type, choice.label)"
        >
          <PaintKindIcon :type="choice.type" />
          <HintText :text="`${choice.label}: ${choice.help}`" />
        </button>
      </div>
    </div>
    <ColourRow v-if="paint.type === 'solid' && at('colour')" :place="at('colour')!" />
    <TextureField v-else-if="paint.type === 'texture'" :address="address" :paint="paint" :places="places" />
    <template v-else-if="gradient">
      <div class="bar" :style="{ '--paint': bar }" title="Press to add a colour" @click="addStop">
        <button
          v-for="(place, i) in stopPlaces"
          :key="i"
          class="stop"
          :class="{ on: i === stop }"
          :style="{ left: `${place}%`, '--colour': stopColour(i) }"
          :aria-label="`Colour ${i + 1} of ${label}`"
          @pointerdown.stop="dragStop($event, i)"
          @click.stop
          @keydown.delete="removeStop"
        />
      </div>
      <ColourRow v-if="at(`stops/${stop}/colour`)" :place="at(`stops/${stop}/colour`)!" :name="`Colour ${stop + 1}`" />
      <NumberRow v-if="at(`stops/${stop}/at`)" :place="at(`stops/${stop}/at`)!" />
      <NumberRow v-if="at(`stops/${stop}/middle`)" :place="at(`stops/${stop}/middle`)!" />
      <template v-for="name in coloursOnly ? [] : kind.numbers" :key="name"
        ><NumberRow v-if="at(name)" :place="at(name)!"
      /></template>
      <div class="choices">
        <label v-for="name in coloursOnly ? (['mix'] as const) : kind.choices" :key="name">
          {{ GRADIENT_CHOICES[name].label }}
          <select
            :value="gradient[name]"
            :title="GRADIENT_CHOICES[name].help"
            @change="put(GRADIENT_CHOICES[name].label, changed({ [name]: ($event.target as HTMLSelectElement).value }))"
          >
            <option v-for="option in GRADIENT_CHOICES[name].options" :key="option.value" :value="option.value">
              {{ option.label }}
            </option>
          </select>
        </label>
        <label v-if="!coloursOnly">
          Hangs on
          <select
            :value="gradient.hang"
            aria-label="The gradient hangs on"
            @change="put('Gradient hangs on', changed({ hang: ($event.target as HTMLSelectElement).value as 'piece' }))"
          >
            <option value="piece">The piece</option>
            <option value="card">The card</option>
          </select>
        </label>
      </div>
      <div class="foot">
        <button class="plain-button" title="From the last colour to the first" @click="turned">Turn around</button>
        <button class="plain-button" title="The chosen colour and the next one change places" @click="swap">
          Swap
        </button>
        <button class="plain-button" :disabled="stops.length <= 2" @click="removeStop">Take away</button>
      </div>
      <details>
        <summary class="quiet">As CSS</summary>
        <textarea :value="css" rows="3" spellcheck="false" :aria-label="`${label} as CSS`" @change="pasteCss" />
      </details>
    </template>
  </section>
</template>

<style scoped>
.paint {
  padding: 6px 0;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 8px;
  align-items: center;
  min-height: 30px;
}
.label {
  color: var(--ink-2);
}
.kinds {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.kinds button {
  display: grid;
  flex: 1;
  place-items: center;
  height: 28px;
  padding: 0;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: var(--raised);
  border: 0;
}
.kinds button[aria-checked='true'] {
  font-weight: 650;
  color: var(--ink);
  background: var(--teal-soft);
}
.bar {
  position: relative;
  height: 26px;
  margin: 6px 8px 16px;
  cursor: copy;
  background:
    var(--paint),
    repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 10px 10px;
  border: 1px solid var(--line-strong);
  border-radius: 5px;
}
.stop {
  position: absolute;
  bottom: -11px;
  width: 14px;
  height: 16px;
  padding: 0;
  margin-left: -7px;
  touch-action: none;
  cursor: ew-resize;
  background: var(--colour);
  border: 2px solid var(--raised);
  border-radius: 4px;
  outline: 1px solid var(--ink-2);
}
.stop.on {
  outline: 2px solid var(--teal);
}
.foot {
  display: flex;
  gap: 6px;
  padding: 4px 0;
}
.foot .plain-button {
  height: 26px;
  padding: 0 8px;
}
.choices {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 8px;
  padding: 4px 0;
}
.choices label {
  display: grid;
  gap: 2px;
  min-width: 0;
  font-size: 12px;
  color: var(--ink-2);
}
.choices select {
  min-width: 0;
  height: 26px;
  padding: 0 4px;
  font: inherit;
  font-size: 13px;
  color: var(--ink);
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
summary {
  padding: 2px 0;
  cursor: pointer;
}
textarea {
  width: 100%;
  padding: 6px;
  font:
    12px/1.4 ui-monospace,
    monospace;
  color: var(--ink);
  resize: vertical;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
</style>
