<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { createCard } from '#core/card/create'
import type { Card } from '#core/card/schema'
import { LARGEST_SIDE, LONGEST_LOOP } from '#core/card/schema'
import { perSecond } from '#core/values/rate'
import type { FrameChoice } from './frame-sizes'
import { rateOf } from './frame-sizes'

/** A card with nothing on it, of any size and length. */
const frame = defineModel<FrameChoice>({ required: true })
const emit = defineEmits<{ create: [card: Card] }>()

const form = reactive({ name: '', seconds: 6 })
const tried = ref(false)
const isSide = (side: number) => Number.isInteger(side) && side >= 16 && side <= LARGEST_SIDE
const frames = computed(() => Math.round(form.seconds * perSecond(rateOf(frame.value))))
const wrong = computed(() => {
  if (!isSide(frame.value.width) || !isSide(frame.value.height))
    return `Width and height are whole numbers from 16 to ${LARGEST_SIDE}.`
  if (!(frames.value >= 1 && frames.value <= LONGEST_LOOP))
    return `The loop has at least one frame and at most ${LONGEST_LOOP}.`
  return ''
})

function create() {
  tried.value = true
  if (wrong.value) return
  const { width, height } = frame.value
  const size = { width, height, rate: rateOf(frame.value), length: frames.value }
  emit('create', createCard(form.name.trim() || 'Untitled card', size))
}
</script>

<template>
  <form class="empty" aria-label="Empty card" novalidate @submit.prevent="create">
    <label
      >Name<input v-model="form.name" class="plain-field" autofocus maxlength="200" placeholder="Untitled card"
    /></label>
    <div class="line">
      <label>Width<input v-model.number="frame.width" class="plain-field" type="number" /></label>
      <label>Height<input v-model.number="frame.height" class="plain-field" type="number" /></label>
      <label
        >Loop, seconds<input v-model.number="form.seconds" class="plain-field" type="number" step="0.5" min="0"
      /></label>
    </div>
    <p class="quiet">{{ frames }} frames; the last leads into the first.</p>
    <p v-if="tried && wrong" class="wrong" role="alert">{{ wrong }}</p>
    <button class="wax-button">Make the card</button>
  </form>
</template>

<style scoped>
.empty {
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: start;
  max-width: 420px;
  padding-top: 4px;
}
label {
  display: grid;
  gap: 3px;
  width: 100%;
  color: var(--ink-2);
}
.plain-field {
  width: 100%;
  height: 30px;
  padding: 0 8px;
}
.line {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
p {
  margin: 0;
}
.wrong {
  color: var(--wax);
}
</style>
