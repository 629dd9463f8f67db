<script setup lang="ts">
import { formatHex8 } from 'culori'
import { computed, ref } from 'vue'
import { HEX_COLOUR } from '#core/values/colour'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useStage } from '~/stores/stage'

const props = defineProps<{ modelValue: string; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()

const bench = useBench()
const stage = useStage()
const notices = useNotices()
const open = ref(false)
const draft = ref<string | null>(null)
const palette = computed(() => bench.card?.palette ?? [])
const inPalette = computed(() => palette.value.includes(props.modelValue))

function set(value: string | null | undefined) {
  const hex = String(value ?? '').toUpperCase()
  if (!HEX_COLOUR.test(hex)) return
  // A whole alpha is not written.
  const plain = hex.length === 9 && hex.endsWith('FF') ? hex.slice(0, 7) : hex
  if (plain !== props.modelValue) emit('update:modelValue', plain)
}

function commit() {
  const text = (draft.value ?? '').trim()
  draft.value = null
  const short = /^#?([0-9a-fA-F]{3})$/.exec(text)
  if (short) set(`#${[...short[1]!].map((digit) => digit + digit).join('')}`)
  else if (HEX_COLOUR.test(hashed(text).toUpperCase())) set(hashed(text))
  else if (text !== '') {
    const read = formatHex8(text)
    if (read) set(read)
    else notices.fault({ message: `“${text}” is no colour.`, remedy: 'Write #RRGGBB, #RRGGBBAA or a CSS colour.' })
  }
}

const hashed = (text: string) => (text.startsWith('#') ? text : `#${text}`)

function keepInPalette() {
  const hex = props.modelValue
  bench.edit('Palette', (card) => ({ ...card, palette: [...card.palette, hex].slice(-64) }))
}

/** The stage waits for a press, and gives the colour there. */
function pick() {
  open.value = false
  stage.colourWanted = set
}
</script>

<template>
  <span class="colour">
    <button class="swatch" :aria-label="`${label}, choose`" :style="{ '--colour': modelValue }">
      <VMenu v-model="open" activator="parent" :close-on-content-click="false" location="bottom end">
        <div class="picker">
          <VColorPicker
            :model-value="modelValue"
            mode="hexa"
            :modes="['hexa']"
            width="248"
            canvas-height="120"
            elevation="0"
            hide-inputs
            @update:model-value="set"
          />
          <div class="swatches">
            <button
              v-for="hex in palette"
              :key="hex"
              class="swatch small"
              :style="{ '--colour': hex }"
              :aria-label="`Palette ${hex}`"
              @click="set(hex)"
            />
            <button v-if="!inPalette" class="icon-button add" aria-label="Keep in the palette" @click="keepInPalette">
              +
            </button>
          </div>
          <button class="plain-button" @click="pick">Take from the stage</button>
        </div>
      </VMenu>
    </button>
    <input
      :value="draft ?? modelValue"
      :aria-label="label"
      spellcheck="false"
      @input="draft = ($event.target as HTMLInputElement).value"
      @change="commit"
      @keydown.enter="commit"
    />
  </span>
</template>

<style scoped>
.colour {
  display: flex;
  gap: 6px;
  align-items: center;
}
.colour > input {
  width: 90px;
  height: 24px;
  padding: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
.colour > input:focus {
  border-color: var(--teal);
  outline: 0;
  box-shadow: 0 0 0 1px var(--teal);
}
.swatch {
  width: 40px;
  height: 24px;
  cursor: pointer;
  background:
    linear-gradient(var(--colour), var(--colour)),
    repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 10px 10px;
  border: 1px solid var(--line-strong);
  border-radius: 5px;
}
.swatch.small {
  width: 24px;
}
.picker {
  display: grid;
  gap: 8px;
  padding: 10px;
  background: var(--raised);
  border-radius: 8px;
  box-shadow: var(--float);
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  width: 248px;
}
.add {
  height: 24px;
  border: 1px dashed var(--line-strong);
}
</style>
