<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { CardSize } from '#core/card/create'
import { LARGEST_SIDE, LONGEST_LOOP } from '#core/card/schema'
import { COMMON_RATES, perSecond, rateLabel } from '#core/values/rate'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ create: [name: string, size: CardSize] }>()

const SIZES = [
  { label: 'Full HD', width: 1920, height: 1080 },
  { label: 'Ultra HD', width: 3840, height: 2160 },
  { label: 'Upright', width: 1080, height: 1920 },
  { label: 'Square', width: 1080, height: 1080 },
]

const form = reactive({ name: '', width: 1920, height: 1080, rate: 2, seconds: 6 })
const tried = ref(false)
watch(open, (now) => {
  if (now) Object.assign(form, { name: '', width: 1920, height: 1080, rate: 2, seconds: 6 })
  tried.value = false
})

const isSide = (side: number) => Number.isInteger(side) && side >= 16 && side <= LARGEST_SIDE
const frames = computed(() => Math.round(form.seconds * perSecond(COMMON_RATES[form.rate]!)))
const wrong = computed(() => {
  if (!isSide(form.width) || !isSide(form.height))
    return `Width and height are whole numbers from 16 to ${LARGEST_SIDE}.`
  if (!(frames.value >= 1 && frames.value <= LONGEST_LOOP))
    return `The loop has at least one frame and at most ${LONGEST_LOOP}.`
  return ''
})

function create() {
  tried.value = true
  if (wrong.value) return
  const { width, height } = form
  emit('create', form.name.trim() || 'Untitled card', {
    width,
    height,
    rate: COMMON_RATES[form.rate]!,
    length: frames.value,
  })
  open.value = false
}
</script>

<template>
  <VDialog v-model="open" max-width="480">
    <form class="dialog dialog-sheet" aria-label="New card" novalidate @submit.prevent="create">
      <h2>New card</h2>
      <label
        >Name<input v-model="form.name" class="plain-field" autofocus maxlength="200" placeholder="Untitled card"
      /></label>
      <div class="sizes">
        <button
          v-for="size in SIZES"
          :key="size.label"
          type="button"
          :aria-pressed="form.width === size.width && form.height === size.height"
          @click="Object.assign(form, { width: size.width, height: size.height })"
        >
          <span class="shape" :style="{ aspectRatio: `${size.width} / ${size.height}` }" />
          {{ size.label }}
          <small class="quiet">{{ size.width }}×{{ size.height }}</small>
        </button>
      </div>
      <div class="line">
        <label>Width<input v-model.number="form.width" class="plain-field" type="number" /></label>
        <label>Height<input v-model.number="form.height" class="plain-field" type="number" /></label>
        <label>
          Frames a second
          <select v-model.number="form.rate" class="plain-field">
            <option v-for="(rate, i) in COMMON_RATES" :key="i" :value="i">{{ rateLabel(rate) }}</option>
          </select>
        </label>
        <label
          >Loop, seconds<input v-model.number="form.seconds" class="plain-field" type="number" step="0.5" min="0"
        /></label>
      </div>
      <p class="quiet">{{ frames }} frames; the last leads into the first.</p>
      <p v-if="tried && wrong" class="wrong" role="alert">{{ wrong }}</p>
      <div class="foot">
        <button type="button" class="plain-button" @click="open = false">Not now</button>
        <button class="wax-button">Make the card</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.dialog {
  display: grid;
  gap: 14px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
input,
select {
  width: 100%;
  height: 30px;
  padding: 0 8px;
}
.sizes,
.line {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
}
.sizes button {
  display: grid;
  grid-template-rows: 40px auto auto;
  gap: 3px;
  place-items: center;
  padding: 10px 4px 8px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.sizes button[aria-pressed='true'] {
  background: var(--teal-soft);
  border-color: var(--teal);
}
.shape {
  max-width: 60px;
  max-height: 36px;
  background: var(--paper-3);
  border: 1px solid var(--line-strong);
  border-radius: 3px;
}
.shape {
  height: 100%;
}
p {
  margin: 0;
}
.wrong {
  color: var(--wax);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
}
</style>
