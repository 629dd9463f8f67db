<script setup lang="ts">
import { mdiBrush, mdiEraser, mdiPlus } from '@mdi/js'
import { computed, ref } from 'vue'
import type { TipSettings } from '#core/brushes/definition'
import { TIP_RANGES } from '#core/brushes/definition'
import { isOwnTip, ownTip } from '#core/brushes/own-tip'
import { TIPS, tipOf } from '#core/brushes/table'
import { clearStrokes } from '#core/edit/strokes'
import { useBench } from '~/stores/bench'
import { withChosenFile } from '~/composables/chosen-file'
import { useBrush } from '~/stores/brush'
import { usePictures } from '~/stores/pictures'
import HintText from '../fields/HintText.vue'
import TipSwatch from './TipSwatch.vue'

/** The tray of tips, and what the brush in hand is set to. */
const bench = useBench()
const brush = useBrush()
const pictures = usePictures()

interface Setting {
  name: keyof TipSettings
  label: string
  help: string
  most: number
  unit: string
}
const SETTINGS: Setting[] = [
  { name: 'hardness', label: 'Hardness', help: 'How far out a round tip is whole, in %', most: 100, unit: '%' },
  { name: 'flow', label: 'Flow', help: 'How much one dab covers, in %', most: 100, unit: '%' },
  {
    name: 'opacity',
    label: 'Opacity',
    help: 'How much the whole stroke covers at the most, in %',
    most: 100,
    unit: '%',
  },
  { name: 'spacing', label: 'Spacing', help: 'From dab to dab, in % of the size', most: 200, unit: '%' },
  { name: 'scatter', label: 'Scatter', help: 'How far dabs are thrown aside, in % of the size', most: 200, unit: '%' },
  {
    name: 'turnBy',
    label: 'Turn',
    help: 'By how much the tip turns from dab to dab, in degrees',
    most: 180,
    unit: '°',
  },
  {
    name: 'pressSize',
    label: 'Press, size',
    help: 'How much pressure counts for the size, in %',
    most: 100,
    unit: '%',
  },
  {
    name: 'pressFlow',
    label: 'Press, flow',
    help: 'How much pressure counts for the flow, in %',
    most: 100,
    unit: '%',
  },
]
const isRound = computed(() => !tipOf(brush.tip).raster && !isOwnTip(brush.tip))
const shown = computed(() => SETTINGS.filter(({ name }) => name !== 'hardness' || isRound.value))
/** The shipped tips, and pictures that were brought in as such. */
const tips = computed(() => [
  ...TIPS,
  ...brush.own.map((id) => {
    const fileName = pictures.list.find((picture) => picture.id === id)?.fileName
    return ownTip(id, fileName?.replace(/\.[^.]+$/, ''))
  }),
])
const file = ref<HTMLInputElement>()
const bringIn = (event: Event) => withChosenFile(event, async (chosen) => brush.takeOwn(await pictures.bringIn(chosen)))
void pictures.load().catch(() => {})
const isMask = computed(() => brush.target?.mask != null)

function setSize(event: Event) {
  const next = Number((event.target as HTMLInputElement).value)
  if (next >= 0.5 && next <= 2000) brush.size = next
}

function set(name: keyof TipSettings, event: Event) {
  const input = event.target as HTMLInputElement
  const next = Number(input.value)
  const [least, most] = TIP_RANGES[name as keyof typeof TIP_RANGES]
  // A stroke beyond its ranges could not be saved.
  if (input.value !== '' && Number.isFinite(next)) brush.set({ [name]: Math.min(most, Math.max(least, next)) })
  input.value = String(brush.settings[name])
}

function clear() {
  const { target } = brush
  if (target) bench.edit('Clear all strokes', (card) => clearStrokes(card, target))
}
</script>

<template>
  <div v-if="brush.target" class="tray" role="group" aria-label="Brush">
    <div class="hand">
      <button class="plain-button take" :aria-pressed="brush.taken" @click="brush.taken = !brush.taken">
        <VIcon :icon="mdiBrush" size="16" />
        {{ brush.taken ? 'Put the brush away' : 'Take the brush' }}
      </button>
      <button class="plain-button" :aria-pressed="brush.erase" @click="brush.erase = !brush.erase">
        <VIcon :icon="mdiEraser" size="16" /> Erase
      </button>
      <label v-if="!isMask" class="colour" title="Colour of the next strokes">
        <input v-model="brush.colour" type="color" aria-label="Colour of the brush" />
      </label>
    </div>
    <div class="tips" role="radiogroup" aria-label="Tip">
      <button
        v-for="tip in tips"
        :key="tip.kind"
        role="radio"
        :aria-checked="brush.tip === tip.kind"
        :aria-label="tip.label"
        @click="brush.tip = tip.kind"
      >
        <TipSwatch :tip="tip" />
        <span>{{ tip.label }}<HintText :text="tip.help" /></span>
      </button>
      <button class="more" aria-label="Bring in a picture as a tip" @click="file?.click()">
        <VIcon :icon="mdiPlus" size="20" />
        <span
          >Bring in<HintText text="A picture as a tip: its opaque parts, or, where all is opaque, its dark ones"
        /></span>
      </button>
      <input
        ref="file"
        type="file"
        accept="image/png,image/jpeg,image/webp"
        hidden
        data-test="tip-file"
        @change="bringIn"
      />
    </div>
    <label class="row">
      <span>Size<HintText text="Width of the tip under full pressure, in px" /></span>
      <input type="range" min="1" max="400" :value="brush.size" aria-label="Brush size, slider" @input="setSize" />
      <input
        class="plain-field"
        type="number"
        min="0.5"
        max="2000"
        :value="brush.size"
        aria-label="Brush size"
        @change="setSize"
      />
      <span class="quiet">px</span>
    </label>
    <label v-for="{ name, label, help, most, unit } in shown" :key="name" class="row">
      <span>{{ label }}<HintText :text="help" /></span>
      <input
        type="range"
        :min="name === 'spacing' ? 1 : 0"
        :max="most"
        :value="brush.settings[name]"
        :aria-label="`Brush ${label.toLowerCase()}, slider`"
        @input="set(name, $event)"
      />
      <input
        class="plain-field"
        type="number"
        :min="name === 'spacing' ? 1 : 0"
        :max="most"
        :value="brush.settings[name]"
        :aria-label="`Brush ${label.toLowerCase()}`"
        @change="set(name, $event)"
      />
      <span class="quiet">{{ unit }}</span>
    </label>
    <div class="foot">
      <span class="quiet">{{ brush.strokes.length }} {{ brush.strokes.length === 1 ? 'stroke' : 'strokes' }}</span>
      <button v-if="brush.brought.includes(brush.tip)" class="plain-button" @click="brush.dropOwn(brush.tip)">
        Out of the tray
      </button>
      <button v-if="brush.changed[brush.tip]" class="plain-button" @click="brush.asShipped()">Tip as shipped</button>
      <button class="plain-button" :disabled="brush.strokes.length === 0" @click="clear">Clear all</button>
    </div>
  </div>
</template>

<style scoped>
.tray {
  padding-bottom: 8px;
  margin-bottom: 6px;
  border-bottom: 1px solid var(--line);
}
.hand,
.foot {
  display: flex;
  gap: 6px;
  align-items: center;
}
.hand button {
  display: flex;
  gap: 5px;
  align-items: center;
  height: 28px;
}
.take {
  flex: 1;
  justify-content: center;
}
.hand button[aria-pressed='true'] {
  color: var(--wax-ink);
  background: var(--teal);
  border-color: var(--teal);
}
.colour input {
  width: 34px;
  height: 28px;
  padding: 2px;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.tips {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  margin: 8px 0;
}
.tips button {
  padding: 2px 2px 3px;
  overflow: hidden;
  font: inherit;
  font-size: 11px;
  line-height: 14px;
  color: inherit;
  cursor: pointer;
  background: #f6f1e7;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.tips button span {
  display: block;
  overflow: hidden;
  color: #2b2420;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tips .more {
  display: grid;
  align-content: space-between;
  justify-items: center;
  padding-top: 8px;
  color: var(--ink-2);
  background: none;
  border-style: dashed;
}
.tips .more span {
  color: inherit;
}
.tips button[aria-checked='true'] {
  border-color: var(--teal);
  box-shadow: inset 0 0 0 1px var(--teal);
}
.row {
  display: grid;
  grid-template-columns: 74px 1fr 58px 16px;
  gap: 8px;
  align-items: center;
  height: 28px;
}
.row input[type='number'] {
  width: 100%;
  height: 24px;
}
.row input[type='range'] {
  min-width: 0;
  accent-color: var(--teal);
}
.foot {
  justify-content: space-between;
  padding-top: 4px;
}
</style>
