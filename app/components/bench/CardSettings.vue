<script setup lang="ts">
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import type { Card } from '#core/card/schema'
import { LARGEST_SIDE, LONGEST_LOOP } from '#core/card/schema'
import { COMMON_RATES, rateLabel, seconds } from '#core/values/rate'
import { HOLD_ADDRESS } from '#core/card/fields'
import { zonesOf } from '#core/time/held'
import { useBench } from '~/stores/bench'
import FieldMark from '../fields/FieldMark.vue'
import PaintField from '../fields/PaintField.vue'
import ParameterRow from '../fields/ParameterRow.vue'

const props = defineProps<{ places: readonly ParameterPlace[] }>()
const bench = useBench()
const card = computed(() => bench.card!)
const zones = computed(() => zonesOf(card.value))
const light = computed(() => props.places.filter(({ address }) => address.startsWith('light/') && !isOfMotor(address)))
const rate = computed(() => COMMON_RATES.findIndex((r) => rateLabel(r) === rateLabel(card.value.rate)))

const change = (label: string, part: Partial<Card>) => bench.edit(label, (old) => ({ ...old, ...part }))

function whole(event: Event, least: number, most: number, before: number): number {
  const input = event.target as HTMLInputElement
  const value = Math.round(Number(input.value))
  const good = Number.isFinite(value) && value >= least && value <= most ? value : before
  input.value = String(good)
  return good
}

function resize(side: 'width' | 'height', event: Event) {
  const value = whole(event, 16, LARGEST_SIDE, card.value.frame[side])
  change('Frame size', { frame: { ...card.value.frame, [side]: value } })
}

const setShutter = (part: Partial<NonNullable<Card['shutter']>>) =>
  change('Motion blur', { shutter: { angle: 180, phase: 0, ...card.value.shutter, ...part } })

function setBackground(on: boolean) {
  change('Background', { background: on ? { type: 'solid', colour: '#1B1420' } : null })
}
</script>

<template>
  <div class="card-settings">
    <div class="pair">
      <label
        >Width<input
          class="plain-field"
          type="number"
          :value="card.frame.width"
          min="16"
          :max="LARGEST_SIDE"
          @change="resize('width', $event)"
      /></label>
      <label
        >Height<input
          class="plain-field"
          type="number"
          :value="card.frame.height"
          min="16"
          :max="LARGEST_SIDE"
          @change="resize('height', $event)"
      /></label>
    </div>
    <div class="pair">
      <label>
        Frames a second
        <select
          class="plain-field"
          :value="rate"
          @change="change('Frame rate', { rate: COMMON_RATES[Number(($event.target as HTMLSelectElement).value)]! })"
        >
          <option v-for="(choice, i) in COMMON_RATES" :key="i" :value="i">{{ rateLabel(choice) }}</option>
        </select>
      </label>
      <label>
        Loop, frames
        <input
          class="plain-field"
          type="number"
          :value="card.length"
          min="1"
          :max="LONGEST_LOOP"
          aria-label="Loop length in frames"
          @change="change('Loop length', { length: whole($event, 1, LONGEST_LOOP, card.length) })"
        />
      </label>
    </div>
    <p class="quiet">The loop lasts {{ seconds(card.length, card.rate).toFixed(2) }} s.</p>
    <div v-if="zones" class="hold">
      <FieldMark :address="HOLD_ADDRESS" />
      <span>Hold</span>
      <span>{{ zones.out - zones.hold }} frames, {{ seconds(zones.out - zones.hold, card.rate).toFixed(2) }} s</span>
    </div>
    <label>
      Pixels are blended in
      <select
        class="plain-field"
        :value="card.blending"
        title="Display: as editors and browsers do. Linear: as light adds up; glows are brighter, soft edges wider"
        @change="change('Blending', { blending: ($event.target as HTMLSelectElement).value as Card['blending'] })"
      >
        <option value="display">Display sRGB</option>
        <option value="linear">Linear light</option>
      </select>
    </label>
    <label class="check">
      <input
        type="checkbox"
        :checked="card.shutter !== null"
        @change="change('Motion blur', { shutter: card.shutter ? null : { angle: 180, phase: 0 } })"
      />
      Motion blur
    </label>
    <div v-if="card.shutter" class="pair">
      <label title="How long the shutter is open: 360° is a whole frame">
        Shutter angle, °
        <input
          class="plain-field"
          type="number"
          :value="card.shutter.angle"
          min="1"
          max="720"
          @change="setShutter({ angle: whole($event, 1, 720, card.shutter.angle) })"
        />
      </label>
      <label title="When it opens: 0° with the frame, −90° a quarter of a frame before it">
        Phase, °
        <input
          class="plain-field"
          type="number"
          :value="card.shutter.phase"
          min="-360"
          max="360"
          @change="setShutter({ phase: whole($event, -360, 360, card.shutter.phase) })"
        />
      </label>
    </div>
    <h3>Key light</h3>
    <ParameterRow v-for="place in light" :key="place.address" :place="place" />
    <h3>Background</h3>
    <label class="check">
      <input
        type="checkbox"
        :checked="card.background !== null"
        @change="setBackground(($event.target as HTMLInputElement).checked)"
      />
      Part of the card (a render with it is not transparent)
    </label>
    <PaintField v-if="card.background" address="background" label="Paint" :places="places" />
  </div>
</template>

<style scoped>
.card-settings {
  display: grid;
  gap: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
label.check {
  display: flex;
  gap: 8px;
  align-items: center;
}
input[type='number'],
select {
  height: 28px;
  padding: 0 8px;
}
input[type='checkbox'] {
  width: 15px;
  height: 15px;
  accent-color: var(--teal);
}
h3 {
  margin: 8px 0 0;
  font-size: 13px;
  font-weight: 650;
}
p {
  margin: 0;
}
.hold {
  position: relative;
  display: flex;
  justify-content: space-between;
  color: var(--ink-2);
}
</style>
