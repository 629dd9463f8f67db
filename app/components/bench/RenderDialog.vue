<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { RenderFormat } from '#core/formats/deliveries'
import { DELIVERIES, deliveryOf } from '#core/formats/deliveries'
import { faultOf } from '~/composables/api'
import { seconds } from '#core/values/rate'
import { heldLength, zonesOf } from '#core/time/held'
import { useBench } from '~/stores/bench'
import { useRenders } from '~/stores/renders'
import type { Fault } from '#core/errors'

const open = defineModel<boolean>({ required: true })
const bench = useBench()
const renders = useRenders()

const format = ref<RenderFormat>('prores4444')
const bits = ref<8 | 16>(8)
const first = ref(0)
const last = ref(0)
const fault = ref<Fault | null>(null)
const working = ref(false)
const card = computed(() => bench.card!)
const holds = ref(1)
const length = computed(() => heldLength(card.value, holds.value))
const frames = computed(() => Math.max(0, last.value - first.value + 1))
const solid = computed(() => card.value.background !== null)

watch(open, (now) => {
  if (!now) return
  first.value = 0
  holds.value = 1
  last.value = card.value.length - 1
  fault.value = null
})

// The run grows with its holds; whoever renders all of it goes on rendering all of it.
watch(length, (now, before) => {
  if (last.value === before - 1) last.value = now - 1
})

async function start() {
  working.value = true
  fault.value = null
  try {
    // What is rendered is what the bench shows: the last change must have arrived.
    if (!(await bench.save())) {
      fault.value = bench.saveFault
      return
    }
    await renders.start(bench.id, bench.revision, {
      format: format.value,
      bits: bits.value,
      from: first.value,
      to: last.value + 1,
      holds: holds.value,
    })
    open.value = false
    await navigateTo('/renders')
  } catch (error) {
    fault.value = faultOf(error)
  } finally {
    working.value = false
  }
}
</script>

<template>
  <VDialog v-model="open" max-width="520">
    <form class="dialog dialog-sheet" aria-label="Render" novalidate @submit.prevent="start">
      <h2>Render with transparency</h2>
      <div class="formats" role="radiogroup" aria-label="Format">
        <button
          v-for="delivery in DELIVERIES"
          :key="delivery.format"
          type="button"
          role="radio"
          :aria-checked="format === delivery.format"
          @click="format = delivery.format"
        >
          <b>{{ delivery.label }}</b>
          <span class="quiet">{{ delivery.help }}</span>
        </button>
      </div>
      <div class="line">
        <label
          >First frame<input v-model.number="first" class="plain-field" type="number" min="0" :max="length - 1"
        /></label>
        <label
          >Last frame<input v-model.number="last" class="plain-field" type="number" min="0" :max="length - 1"
        /></label>
        <label v-if="zonesOf(card)" title="How often what lies between in and out is played">
          Holds<input v-model.number="holds" class="plain-field" type="number" min="1" max="10000" />
        </label>
        <label v-if="deliveryOf(format).bits.length > 1">
          Bits a channel
          <select v-model.number="bits" class="plain-field">
            <option :value="8">8</option>
            <option :value="16">16</option>
          </select>
        </label>
      </div>
      <p class="quiet">
        {{ frames }} frames, {{ seconds(frames, card.rate).toFixed(2) }} s, {{ card.frame.width }}×{{
          card.frame.height
        }}. The file is read again when it is written, and its alpha and colour held against the frames.
      </p>
      <p v-if="solid" class="warn">This card has a background of its own: the render will not be transparent.</p>
      <p v-if="fault" class="warn" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <div class="foot">
        <button type="button" class="plain-button" @click="open = false">Not now</button>
        <button class="wax-button" :disabled="working">Start the render</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.dialog {
  display: grid;
  gap: 14px;
}
.formats {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.formats button {
  display: grid;
  gap: 4px;
  align-content: start;
  padding: 12px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.formats button[aria-checked='true'] {
  background: var(--teal-soft);
  border-color: var(--teal);
  box-shadow: inset 0 0 0 1px var(--teal);
}
.line {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
input,
select {
  height: 30px;
  padding: 0 8px;
}
p {
  margin: 0;
}
.warn {
  color: var(--wax);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
}
</style>
