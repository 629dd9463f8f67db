<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { nameFrom } from '#core/formats/deliveries/file-name'
import type { DeliveryOptions, Option } from '#core/formats/deliveries/option'
import type { RenderOptions, RenderWish } from '#core/formats/deliveries/render-options'
import { SCALES } from '#core/formats/deliveries/render-options'
import type { DeliveryFormat } from '#core/formats/deliveries/table'
import { cannotCarry } from '#core/formats/deliveries/cannot-carry'
import { deliveryOf } from '#core/formats/deliveries/table'
import { heldLength } from '#core/time/held'
import { seconds } from '#core/values/rate'
import { faultOf } from '~/composables/api'
import DeliveryChoice from './DeliveryChoice.vue'
import DeliveryFields from './DeliveryFields.vue'
import type { ChosenFrames } from './FrameRange.vue'
import FrameRange from './FrameRange.vue'

// In which form a card is handed over, and which of its frames.

const props = defineProps<{
  card: Card
  /** The frame that a still shows. */
  frame: number
  /** How many renders of this card there have been. */
  takes: number
  /** What is chosen at first; null for what is asked for most. */
  initial?: RenderOptions | null
  /** Rows of a roster that fill the card: how many, those that cannot be rendered, and those with a place in a programme. */
  rows?: { count: number; left: number; placed: number; first: string; roster: string } | null
  /** Starts the render; gives why it cannot, or null. `as`: of rows, whether each is a file. */
  begin: (wish: RenderWish, as: 'rows' | 'programme') => Promise<Fault | null>
}>()
const open = defineModel<boolean>({ required: true })

const format = ref<DeliveryFormat>('prores4444')
const options = ref<DeliveryOptions>({})
const scale = ref<(typeof SCALES)[number]>(1)
const name = ref(props.rows ? '{row}' : '{card}')
const as = ref<'rows' | 'programme'>('rows')
const frames = ref<ChosenFrames>({ from: 0, last: 0, holds: 1 })
const fault = ref<Fault | null>(null)
const working = ref(false)

const delivery = computed(() => deliveryOf(format.value))
const single = computed(() => format.value === 'still')
const solid = computed(() => props.card.background !== null && delivery.value.alpha !== 'none')
const size = computed(() => {
  const { width, height } = props.card.frame
  return { width: Math.round(width * scale.value), height: Math.round(height * scale.value) }
})
const count = computed(() => Math.max(0, frames.value.last - frames.value.from + 1))
/** What the delivery cannot carry is said before anybody waits for it. */
const refusal = computed(() => {
  const chosen = options.value
  return cannotCarry(delivery.value, { ...size.value, rate: props.card.rate, frames: count.value }, chosen)
})
const fileNames = computed(() => {
  const row = !props.rows ? '' : as.value === 'rows' ? props.rows.first : props.rows.roster
  const stem = nameFrom(name.value, { card: props.card.name, row, take: props.takes + 1 })
  return delivery.value.files(options.value).map(({ role, ending }) => `${stem}${role && `-${role}`}${ending}`)
})

function withDefaults(now: DeliveryOptions): DeliveryOptions {
  const entries = Object.entries(delivery.value.options) as [keyof DeliveryOptions, Option][]
  return Object.fromEntries(
    entries.map(([key, option]) => {
      const value = now[key]
      const fits = option.kind !== 'choice' || option.choices.some((choice) => choice.value === value)
      return [key, value !== undefined && fits ? value : option.default]
    }),
  )
}

watch(
  format,
  () => {
    options.value = withDefaults(options.value)
    fault.value = null
    if (single.value) frames.value = { from: props.frame, last: props.frame, holds: 1 }
    else if (count.value === 1) frames.value = whole()
  },
  { immediate: true },
)

function whole(): ChosenFrames {
  return { from: 0, last: heldLength(props.card, 1) - 1, holds: 1 }
}

watch(
  open,
  (now) => {
    if (!now) return
    fault.value = null
    if (props.initial) take(props.initial)
    else frames.value = single.value ? { from: props.frame, last: props.frame, holds: 1 } : whole()
  },
  { immediate: true },
)

/** What an earlier render had. */
function take({ format: was, from, to, holds, scale: size, name: pattern, ...own }: RenderOptions) {
  format.value = was
  options.value = withDefaults(own)
  frames.value = { from, last: to - 1, holds }
  scale.value = size
  name.value = pattern
}

async function start() {
  working.value = true
  fault.value = null
  const { from, last, holds } = frames.value
  const wish = {
    format: format.value,
    ...options.value,
    ...{ from, to: last + 1, holds, scale: scale.value, name: name.value },
  }
  try {
    fault.value = await props.begin(wish as RenderWish, as.value)
    if (!fault.value) open.value = false
  } catch (error) {
    fault.value = faultOf(error)
  } finally {
    working.value = false
  }
}
</script>

<template>
  <VDialog v-model="open" max-width="780">
    <form class="dialog dialog-sheet" aria-label="Render" novalidate @submit.prevent="start">
      <h2>{{ delivery.alpha === 'none' ? 'Render without transparency' : 'Render with transparency' }}</h2>
      <div class="columns">
        <DeliveryChoice v-model="format" />
        <div class="choices">
          <p>
            {{ delivery.help }}.
            <span v-if="delivery.loses" :class="['none', 'on or off'].includes(delivery.alpha) ? 'loses' : 'quiet'"
              >{{ delivery.loses }}.</span
            >
            <span v-else class="quiet">Nothing is lost.</span>
          </p>
          <DeliveryFields v-model="options" :delivery="delivery" />
          <div v-if="rows" class="as" role="radiogroup" aria-label="Files">
            <label><input v-model="as" type="radio" value="rows" /> A file for each of {{ rows.count }} rows</label>
            <label :class="{ quiet: rows.placed === 0 }">
              <input v-model="as" type="radio" value="programme" :disabled="rows.placed === 0" />
              {{
                rows.placed > 0
                  ? `One file for the whole programme: ${rows.placed} rows, each at its place`
                  : 'One file for the whole programme: rows need their In as timecode'
              }}
            </label>
          </div>
          <FrameRange v-else v-model="frames" :card="card" :single="single" />
          <div class="line">
            <label title="The card is rendered at that size; nothing is resized"
              >Size
              <select v-model.number="scale" class="plain-field">
                <option v-for="share in SCALES" :key="share" :value="share">
                  {{ share * 100 }} %, {{ Math.round(card.frame.width * share) }}×{{
                    Math.round(card.frame.height * share)
                  }}
                </option>
              </select>
            </label>
            <label
              :title="`{card} stands for the card’s name, {take} for which render of it this is${rows ? ', {row} for the row' : ''}`"
              >File name<input v-model="name" class="plain-field" spellcheck="false"
            /></label>
          </div>
          <p class="quiet files">{{ fileNames.join(', ') }}</p>
          <p v-if="rows" class="quiet">
            Each row is as long as its hold says. Every file is read again when it is written, and held against the
            frames. Beside them come a report{{
              rows.placed > 0 ? ' and a timeline (.otio) that places them all' : ''
            }}.
          </p>
          <p v-else class="quiet">
            {{ count }} {{ count === 1 ? 'frame' : 'frames' }}, {{ seconds(count, card.rate).toFixed(2) }} s. The file
            is read again when it is written, and held against the frames.
          </p>
          <p v-if="rows && rows.left > 0" class="warn">
            {{ rows.left }} {{ rows.left === 1 ? 'row has a cell' : 'rows have cells' }} that cannot be read: left out,
            and told in the report.
          </p>
          <p v-if="solid" class="warn">This card has a background of its own: the render will not be transparent.</p>
          <p v-if="refusal" class="warn" role="alert">{{ refusal.message }} {{ refusal.remedy }}</p>
          <p v-else-if="fault" class="warn" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
        </div>
      </div>
      <div class="foot">
        <button type="button" class="plain-button" @click="open = false">Not now</button>
        <button class="wax-button" :disabled="working || refusal !== null">
          {{ rows ? (as === 'rows' ? `Render ${rows.count} rows` : 'Render the programme') : 'Start the render' }}
        </button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.dialog {
  display: grid;
  gap: 14px;
}
.columns {
  display: grid;
  grid-template-columns: 290px 1fr;
  gap: 20px;
}
.choices {
  display: grid;
  gap: 14px;
  align-content: start;
}
.line {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
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
p {
  margin: 0;
}
.files {
  margin-top: -8px;
  overflow-wrap: anywhere;
}
.loses {
  color: var(--wax);
}
.warn {
  color: var(--wax);
}
.as {
  display: grid;
  gap: 6px;
}
.as label {
  display: flex;
  grid-template-columns: none;
  gap: 8px;
  align-items: center;
}
.as label input {
  flex: none;
  width: 16px;
  height: 16px;
  accent-color: var(--teal);
}
</style>
