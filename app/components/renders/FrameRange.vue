<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { WaxError } from '#core/errors'
import { heldLength, zonesOf } from '#core/time/held'
import { holdsFor, holdsStill } from '#core/time/hold-still'
import { readTimecode } from '#core/time/timecode'

// Which frames: all, or those of a zone, or any; and how long the card is held.

export interface ChosenFrames {
  from: number
  /** The last one that is rendered. */
  last: number
  holds: number
}

const props = defineProps<{ card: Card; single: boolean }>()
const chosen = defineModel<ChosenFrames>({ required: true })

const zones = computed(() => zonesOf(props.card))
const length = computed(() => heldLength(props.card, chosen.value.holds))
const wished = ref('')
const fault = ref('')

const parts = computed(() => {
  const all = { label: 'All', from: 0, last: length.value - 1 }
  if (!zones.value) return [all]
  const { hold } = zones.value
  // The last holds end where it goes out.
  const out = length.value - (props.card.length - zones.value.out)
  return [
    all,
    { label: 'In', from: 0, last: hold - 1 },
    { label: 'Hold', from: hold, last: out - 1 },
    { label: 'Out', from: out, last: length.value - 1 },
  ].filter(({ from, last }) => last >= from)
})

const put = (change: Partial<ChosenFrames>) => {
  chosen.value = { ...chosen.value, ...change }
}

// The run grows with its holds; whoever renders all of it goes on rendering all of it.
watch(length, (now, before) => {
  if (chosen.value.last === before - 1) put({ last: now - 1 })
})

function toLength(text: string) {
  wished.value = text
  fault.value = ''
  if (text.trim() === '') return
  try {
    put({ holds: holdsFor(props.card, readTimecode(text, props.card.rate)) })
  } catch (error) {
    fault.value = error instanceof WaxError ? `${error.fault.message} ${error.fault.remedy}` : ''
  }
}

/** What moves in the hold would jump if it were left in the middle. */
const still = computed(() => holdsStill(props.card))
const toHolds = (typed: number) => {
  const holds = Math.min(10_000, typed > 0 ? typed : 1)
  put({ holds: still.value ? holds : Math.max(1, Math.round(holds)) })
}

const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="range">
    <div v-if="zones && !single" class="parts" role="group" aria-label="Frames">
      <button
        v-for="part in parts"
        :key="part.label"
        type="button"
        :aria-pressed="chosen.from === part.from && chosen.last === part.last"
        @click="put({ from: part.from, last: part.last })"
      >
        {{ part.label }}
      </button>
    </div>
    <div class="numbers">
      <label v-if="single"
        >Frame<input
          class="plain-field"
          type="number"
          min="0"
          :max="length - 1"
          :value="chosen.from"
          @input="put({ from: Number(value($event)), last: Number(value($event)) })"
      /></label>
      <template v-else>
        <label
          >First frame<input
            class="plain-field"
            type="number"
            min="0"
            :max="length - 1"
            :value="chosen.from"
            @input="put({ from: Number(value($event)) })"
        /></label>
        <label
          >Last frame<input
            class="plain-field"
            type="number"
            min="0"
            :max="length - 1"
            :value="chosen.last"
            @input="put({ last: Number(value($event)) })"
        /></label>
        <template v-if="zones">
          <label title="How often what lies between in and out is played"
            >Holds<input
              class="plain-field"
              type="number"
              :min="still ? 0 : 1"
              max="10000"
              :step="still ? 'any' : 1"
              :value="Math.round(chosen.holds * 100) / 100"
              @input="toHolds(Number(value($event)))"
          /></label>
          <label
            :title="
              still
                ? 'Frames, or seconds:frames: it is held for exactly so long'
                : 'Frames, or seconds:frames: the hold moves, so it is played whole, as near to it as it comes'
            "
            >or a length<input
              class="plain-field"
              placeholder="12:00"
              :value="wished"
              @change="toLength(value($event))"
          /></label>
        </template>
      </template>
    </div>
    <p v-if="fault" class="warn" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.range {
  display: grid;
  gap: 8px;
}
.parts {
  display: flex;
  gap: 4px;
}
.parts button {
  padding: 3px 12px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  background: var(--paper-2);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.parts button[aria-pressed='true'] {
  background: var(--teal-soft);
  border-color: var(--teal);
}
.numbers {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(80px, 1fr));
  gap: 12px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
input {
  width: 100%;
  height: 30px;
  padding: 0 8px;
}
p {
  margin: 0;
}
.warn {
  color: var(--wax);
}
</style>
