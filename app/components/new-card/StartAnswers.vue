<script setup lang="ts">
import { usePreferredReducedMotion } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { cardFrom, contrastsOf, LEAST_CONTRAST, wordsOf } from '#core/starting-points/make'
import type { StartColours, StartingPoint } from '#core/starting-points/definition'
import { HEX_COLOUR } from '#core/values/colour'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'
import type { FrameChoice } from './frame-sizes'
import { rateOf } from './frame-sizes'

/** The words and the colours of a card that begins from a design, beside it as it will be. */
const props = defineProps<{ start: StartingPoint; frame: FrameChoice }>()
const emit = defineEmits<{ back: []; create: [card: Card] }>()

/** Neither dark nor bright, so that every design is seen. */
const GROUND = 'radial-gradient(90% 80% at 50% 40%, #9aa3a8, #66707a)'
const WIDE = 620
const TALL = 470
const plain = () => cardFrom(props.start, props.start.label, { ...props.frame, rate: rateOf(props.frame) })
const suggested = wordsOf(props.start, plain())
const words = reactive<Record<string, string>>({})
/** Ids of lines that the card does without. */
const without = reactive(new Set<string>())
const colours = ref<StartColours>(props.start.palettes[0].colours)
const name = ref('')

/** What was not filled in says what the design says. */
const said = computed(() =>
  Object.fromEntries(Object.entries(suggested).map(([id, word]) => [id, without.has(id) ? '' : words[id] || word])),
)
const leave = (id: string) => (without.has(id) ? without.delete(id) : without.add(id))
const suggestedName = computed(() => {
  const first = said.value[props.start.words[0]!.id]!
  return `${first} · ${props.start.label.toLowerCase()}`.slice(0, 200)
})
const card = computed(() =>
  cardFrom(
    props.start,
    name.value.trim() || suggestedName.value,
    { ...props.frame, rate: rateOf(props.frame) },
    { words: said.value, colours: colours.value },
  ),
)
const size = computed(() => {
  const { width, height } = props.frame
  const fit = Math.min(WIDE / width, TALL / height)
  return { width: width * fit, height: height * fit }
})
const { picture, playing, progress } = useThumbnail(
  'start-chosen',
  card,
  () => size.value.width,
  ref(true),
  () => Math.round(((card.value.zones?.hold ?? 0) + (card.value.zones?.out ?? card.value.length)) / 2),
)
const motion = usePreferredReducedMotion()
watch(motion, (wish) => (playing.value = wish !== 'reduce'), { immediate: true })
// While words are written the picture stands at its hold; then it plays on.
let rest: ReturnType<typeof setTimeout> | undefined
watch(card, () => {
  if (motion.value === 'reduce') return
  playing.value = false
  clearTimeout(rest)
  rest = setTimeout(() => (playing.value = true), 900)
})

const isPalette = (one: StartColours) => Object.entries(one).every(([id, colour]) => colours.value[id] === colour)
const labels = computed(() => new Map(props.start.colours.map(({ id, label }) => [id, label])))
const contrasts = computed(() =>
  contrastsOf(props.start, colours.value).map(({ words: word, on, ...found }) => ({
    ...{ key: `${word} ${on}`, pair: `${labels.value.get(word)} on ${labels.value.get(on)!.toLowerCase()}` },
    ...found,
  })),
)

function setColour(id: string, event: Event) {
  const hex = (event.target as HTMLInputElement).value.toUpperCase()
  if (HEX_COLOUR.test(hex)) colours.value = { ...colours.value, [id]: hex }
}
</script>

<template>
  <form class="answers" aria-label="Words and colours" novalidate @submit.prevent="emit('create', card)">
    <div class="preview">
      <div class="ground" :style="{ width: `${size.width}px`, height: `${size.height}px`, background: GROUND }">
        <StagePicture :bitmap="picture" v-bind="size" />
      </div>
      <span class="progress" :style="{ width: `${progress * 100}%` }" />
    </div>
    <div class="asked">
      <h3>{{ start.label }}</h3>
      <p class="quiet">{{ start.tells }}</p>
      <div v-for="({ id, label }, i) in start.words" :key="id" class="line">
        <label
          >{{ label }}
          <input
            v-model="words[id]"
            class="plain-field"
            :placeholder="without.has(id) ? 'left out' : suggested[id]"
            :disabled="without.has(id)"
            maxlength="2000"
            :autofocus="i === 0"
          />
        </label>
        <button
          v-if="i > 0"
          type="button"
          class="plain-button"
          :aria-pressed="without.has(id)"
          :aria-label="`Leave out: ${label}`"
          @click="leave(id)"
        >
          Leave out
        </button>
      </div>
      <fieldset>
        <legend>Colours</legend>
        <div class="palettes">
          <button
            v-for="palette in start.palettes"
            :key="palette.label"
            type="button"
            class="palette"
            :aria-label="palette.label"
            :title="palette.label"
            :aria-pressed="isPalette(palette.colours)"
            @click="colours = palette.colours"
          >
            <span v-for="({ id }, i) in start.colours" :key="i" :style="{ background: palette.colours[id] }" />
          </button>
        </div>
        <div class="own">
          <label v-for="{ id, label } in start.colours" :key="id" class="one">
            <input
              type="color"
              :aria-label="`${label}, colour`"
              :value="colours[id]"
              @input="setColour(id, $event)"
            />{{ label }}
          </label>
        </div>
        <ul class="contrasts">
          <li v-for="{ key, pair, ratio, low } in contrasts" :key="key" :class="{ low }">
            {{ pair }}: {{ ratio.toFixed(1) }} : 1{{ low ? `, hard to read below ${LEAST_CONTRAST} : 1` : '' }}
          </li>
        </ul>
      </fieldset>
      <label
        >Name of the card<input v-model="name" class="plain-field" :placeholder="suggestedName" maxlength="200"
      /></label>
      <div class="foot">
        <button type="button" class="plain-button" @click="emit('back')">All designs</button>
        <button class="wax-button">Make the card</button>
      </div>
    </div>
  </form>
</template>

<style scoped>
.answers {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 18px;
  min-height: 0;
}
.preview {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 0;
  overflow: hidden;
  background: #57565a;
  border-radius: 10px;
}
.progress {
  position: absolute;
  bottom: 0;
  left: 0;
  height: 3px;
  background: var(--wax);
}
.asked {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 2px;
  overflow: auto;
}
h3 {
  margin: 0;
  font-size: 16px;
}
p {
  margin: 0 0 2px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
  align-items: end;
}
.line label:only-child {
  grid-column: 1 / -1;
}
.line button {
  height: 30px;
  padding: 0 8px;
  font-size: 12px;
}
.line button[aria-pressed='true'] {
  color: var(--paper);
  background: var(--teal);
}
.plain-field {
  width: 100%;
  height: 30px;
  padding: 0 8px;
}
fieldset {
  display: grid;
  gap: 8px;
  padding: 0;
  margin: 0;
  border: 0;
}
legend {
  padding: 0;
  margin-bottom: 3px;
  color: var(--ink-2);
}
.palettes {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
.palette {
  display: flex;
  height: 30px;
  padding: 3px;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.palette[aria-pressed='true'] {
  border-color: var(--teal);
  box-shadow: 0 0 0 1px var(--teal);
}
.palette span {
  flex: 1;
}
.palette span:first-child {
  border-radius: 3px 0 0 3px;
}
.palette span:last-child {
  border-radius: 0 3px 3px 0;
}
.own {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 10px;
}
.one {
  display: flex;
  gap: 8px;
  align-items: center;
}
.one input {
  width: 30px;
  height: 24px;
  padding: 0;
  background: none;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.contrasts {
  padding: 0;
  margin: 0;
  font-size: 12px;
  color: var(--ink-2);
  list-style: none;
}
.contrasts .low {
  font-weight: 650;
  color: var(--wax);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  padding-top: 6px;
  margin-top: auto;
}
@media (max-width: 900px) {
  .answers {
    grid-template-columns: minmax(0, 1fr);
  }
  .preview {
    min-height: 190px;
  }
  .ground,
  .ground > * {
    max-width: 100%;
  }
}
</style>
