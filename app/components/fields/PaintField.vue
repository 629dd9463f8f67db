<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { setStored, storedAt } from '#core/card/edit/values'
import type { StoredPaint } from '#core/card/moving'
import { writeColour } from '#core/card/colour'
import { settleColour, settleNumber, settlePaint } from '#core/card/settled'
import { paintCss } from '~/composables/paint-css'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import ColourRow from './ColourRow.vue'
import NumberRow from './NumberRow.vue'

const props = defineProps<{ address: string; label: string; places: ParameterPlace[] }>()

const bench = useBench()
const ribbon = useRibbon()
const paint = computed(() => storedAt(bench.card!, props.address) as StoredPaint)
const moment = computed(() => ({ frame: ribbon.frame, length: bench.card!.length }))
const at = (name: string) => props.places.find((place) => place.address === `${props.address}/${name}`)
const stops = computed(() => (paint.value.type === 'linear' ? paint.value.stops : []))
const chosen = ref(0)
const stop = computed(() => Math.min(chosen.value, stops.value.length - 1))
const bar = computed(() => paintCss(paint.value, moment.value, 0))
const stopPlaces = computed(() => stops.value.map(({ at: place }) => settleNumber(place, moment.value)))

function put(label: string, next: StoredPaint, mark = '') {
  bench.edit(label, (card) => setStored(card, props.address, next), mark)
}

/** Changing the kind keeps the colours: the first stop becomes the colour, a colour the first stop. */
function become(type: 'solid' | 'linear') {
  const { value } = paint
  if (value.type === type) return
  if (value.type === 'linear') {
    put('Solid paint', { type: 'solid', colour: value.stops[0]!.colour })
    return
  }
  const first = value.colour
  const second = bench.card!.palette.find((hex) => hex !== first) ?? '#FFFFFF'
  const stops = [
    { at: 0, colour: first },
    { at: 100, colour: second },
  ]
  put('Gradient paint', { type: 'linear', stops, angle: 90, scale: 100, shift: 0, hang: 'piece' })
}

function changed(change: Partial<Extract<StoredPaint, { type: 'linear' }>>): StoredPaint {
  return { ...(paint.value as Extract<StoredPaint, { type: 'linear' }>), ...change }
}

/** A new stop where the bar was pressed, in the colour that is there. */
function addStop(event: MouseEvent) {
  if (event.target !== event.currentTarget) return
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const place = Math.round(((event.clientX - bounds.left) / bounds.width) * 100)
  const settled = settlePaint(paint.value, moment.value)
  if (settled.type !== 'linear') return
  const nearest = [...settled.stops].sort((a, b) => Math.abs(a.at * 100 - place) - Math.abs(b.at * 100 - place))[0]!
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
  followPointer(event, move, () => bench.settle())
}

function turnAround() {
  const mirrored = stops.value.map((other) => ({
    ...other,
    at: typeof other.at === 'number' ? 100 - other.at : other.at,
  }))
  put('Gradient turned around', changed({ stops: mirrored.reverse() }))
}

const stopColour = (index: number) => writeColour(settleColour(stops.value[index]!.colour, moment.value))
</script>

<template>
  <section class="paint">
    <div class="head">
      <span class="label">{{ label }}</span>
      <div class="kinds" role="radiogroup" :aria-label="`${label}, kind`">
        <button role="radio" :aria-checked="paint.type === 'solid'" @click="become('solid')">Solid</button>
        <button role="radio" :aria-checked="paint.type === 'linear'" @click="become('linear')">Gradient</button>
      </div>
    </div>
    <ColourRow v-if="paint.type === 'solid' && at('colour')" :place="at('colour')!" />
    <template v-else-if="paint.type === 'linear'">
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
      <NumberRow v-for="name in ['angle', 'scale', 'shift']" :key="name" :place="at(name)!" />
      <div class="foot">
        <select
          :value="paint.hang"
          aria-label="The gradient hangs on"
          @change="put('Gradient hangs on', changed({ hang: ($event.target as HTMLSelectElement).value as 'piece' }))"
        >
          <option value="piece">Hangs on the piece</option>
          <option value="card">Hangs on the card</option>
        </select>
        <button class="plain-button" @click="turnAround">Turn around</button>
        <button class="plain-button" :disabled="stops.length <= 2" @click="removeStop">Take away</button>
      </div>
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
  flex: 1;
  height: 24px;
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
.foot select {
  flex: 1;
  min-width: 0;
  height: 26px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
</style>
