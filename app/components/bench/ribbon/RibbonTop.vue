<script setup lang="ts">
import { mdiChartBellCurveCumulative } from '@mdi/js'
import { computed, ref } from 'vue'
import { setStored, storedAt } from '#core/edit/values'
import type { Moving } from '#core/values/moving'
import type { Card } from '#core/card/schema'
import { isMoving } from '#core/values/moving'
import { isEasing, STANDARD_EASINGS } from '#core/values/easing'
import { PEAKS } from '#core/values/easing-shapes'
import { zonesOf } from '#core/time/held'
import { droppedNumbers } from '#core/time/timecode'
import { useCounted } from '~/composables/counted'
import { useKeyWork } from '~/composables/key-work'
import type { RibbonView } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import type { Counting } from '~/stores/ribbon'
import { useRibbon } from '~/stores/ribbon'
import LoopSheet from './LoopSheet.vue'
import StaggerMenu from './StaggerMenu.vue'
import WashMenu from './WashMenu.vue'

defineProps<{ view: RibbonView; engineName: string }>()

const bench = useBench()
const ribbon = useRibbon()
const notices = useNotices()
const counted = useCounted()
const work = useKeyWork()
const more = ref(false)

/** The selected keys that are there, with their lanes. */
const chosen = computed(() =>
  ribbon.keys.flatMap(({ address, frame }) => {
    const lane = bench.lanes.find((one) => one.address === address)
    const key = lane && isMoving(lane.value) ? lane.value.keys.find((one) => one.frame === frame) : undefined
    return lane && key ? [{ lane, key }] : []
  }),
)
const title = computed(() => {
  const [first] = chosen.value
  if (chosen.value.length === 1) return { name: first!.lane.label, at: `key at ${counted(first!.key.frame)}, then` }
  const lanes = new Set(chosen.value.map(({ lane }) => lane.address)).size
  return { name: `${chosen.value.length} keys`, at: lanes > 1 ? `on ${lanes} lanes, then` : 'then' }
})
const easings = computed(() => new Set(chosen.value.map(({ key }) => key.easing ?? 'linear')))
const easing = computed(() => (easings.value.size === 1 ? [...easings.value][0]! : ''))
const own = computed(() => bench.card!.easings)
const isListed = computed(
  () =>
    STANDARD_EASINGS.includes(easing.value as 'linear') ||
    PEAKS.some((peak) => peak.easing === easing.value) ||
    own.value.some((kept) => kept.easing === easing.value),
)
const isColour = computed(() => chosen.value.every(({ lane }) => lane.parameter.type === 'colour'))
const mix = computed(() => (chosen.value[0]?.lane.value as Moving<string> | undefined)?.mix ?? 'srgb')
const dropped = computed(() => droppedNumbers(bench.card!.rate) > 0)

function ease(text: string) {
  if (text === 'own' || text === '') return
  if (isEasing(text)) work.ease(text.trim())
  else {
    notices.fault({
      message: `“${text}” is no easing.`,
      remedy: 'Write linear, ease-in-out, cubic-bezier(…), steps(…), linear(…) or hold.',
    })
  }
}

/** Keeps the easing on the card, to be used again. */
function keep() {
  const name = `Curve ${own.value.length + 1}`
  bench.edit(`Keep ${name}`, (card) => ({ ...card, easings: [...card.easings, { name, easing: easing.value }] }))
  more.value = false
}

function setMix(next: 'srgb' | 'oklab') {
  const addresses = [...new Set(chosen.value.map(({ lane }) => lane.address))]
  const mixed = (card: Card, address: string) =>
    setStored(card, address, { ...(storedAt(card, address) as object), mix: next })
  bench.edit('Mix of colours', (card) => addresses.reduce(mixed, card))
}

function zones() {
  bench.edit('Zones', (card) => ({
    ...card,
    zones: zonesOf(card)
      ? null
      : {
          hold: Math.round(card.length * 0.25),
          out: Math.max(Math.round(card.length * 0.25) + 1, Math.round(card.length * 0.75)),
        },
  }))
}

function setSteps(steps: number) {
  bench.edit('Stepped time', (card) => ({ ...card, steps }))
}
</script>

<template>
  <div class="top">
    <template v-if="chosen.length > 0">
      <b>{{ title.name }}</b>
      <span class="quiet">{{ title.at }}</span>
      <select
        class="plain-field"
        :value="isListed ? easing : 'own'"
        aria-label="Easing"
        @change="ease(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="name in STANDARD_EASINGS" :key="name" :value="name">{{ name }}</option>
        <option v-for="peak in PEAKS" :key="peak.id" :value="peak.easing">{{ peak.label.toLowerCase() }}</option>
        <option v-for="kept in own" :key="kept.name" :value="kept.easing">{{ kept.name }}</option>
        <option v-if="!isListed" value="own">{{ easing ? 'its own' : 'several' }}</option>
      </select>
      <input
        class="plain-field easing"
        :value="easing"
        :placeholder="easings.size > 1 ? 'several easings' : ''"
        aria-label="Easing as CSS text"
        spellcheck="false"
        title="CSS easing: cubic-bezier(…), steps(…), linear(…)"
        @change="ease(($event.target as HTMLInputElement).value)"
      />
      <select
        v-if="isColour"
        class="plain-field"
        :value="mix"
        aria-label="Colours mixed in"
        @change="setMix(($event.target as HTMLSelectElement).value as 'srgb')"
      >
        <option value="srgb">mixed in sRGB</option>
        <option value="oklab">mixed in OKLab</option>
      </select>
      <button class="plain-button">
        More
        <VMenu v-model="more" activator="parent" location="top start">
          <div class="menu" role="menu" aria-label="Keys">
            <button role="menuitem" @click="work.spread(2)">Spread to double about the playhead</button>
            <button role="menuitem" @click="work.spread(0.5)">Squeeze to half about the playhead</button>
            <button role="menuitem" :disabled="chosen.length < 2" @click="work.reverse()">Reverse</button>
            <button role="menuitem" @click="work.copy()">Copy</button>
            <button role="menuitem" :disabled="!easing || isListed" @click="keep">Keep this curve on the card</button>
          </div>
        </VMenu>
      </button>
      <button class="plain-button" @click="work.remove()">Take away</button>
    </template>
    <template v-else>
      <span v-if="bench.lanes.length > 0" class="quiet says"
        >Choose keys to ease or move them; draw a net around several</span
      >
      <StaggerMenu v-if="bench.pieces.length > 1" :engine-name="engineName" />
    </template>
    <span class="gap" />
    <button v-if="!view.isWhole.value" class="plain-button" @click="view.whole()">Whole loop</button>
    <WashMenu />
    <LoopSheet :engine-name="engineName" />
    <button
      class="plain-button"
      :class="{ on: zonesOf(bench.card!) }"
      :aria-pressed="!!zonesOf(bench.card!)"
      @click="zones"
    >
      Zones
    </button>
    <select
      class="plain-field"
      :value="bench.card!.steps"
      aria-label="Stepped time of the card"
      title="Stepped time: for how many frames each picture of the card is held"
      @change="setSteps(Number(($event.target as HTMLSelectElement).value))"
    >
      <option v-for="n in [1, 2, 3, 4, 6]" :key="n" :value="n">{{ n === 1 ? 'every frame' : `on ${n}s` }}</option>
      <option v-if="![1, 2, 3, 4, 6].includes(bench.card!.steps)" :value="bench.card!.steps">
        on {{ bench.card!.steps }}s
      </option>
    </select>
    <select
      class="plain-field"
      :value="ribbon.counting"
      aria-label="Frames written as"
      @change="ribbon.counting = ($event.target as HTMLSelectElement).value as Counting"
    >
      <option value="seconds">s:ff</option>
      <option value="frames">frames</option>
      <option value="timecode">timecode</option>
      <option v-if="dropped" value="drop">drop-frame</option>
    </select>
    <button
      class="icon-button"
      :class="{ on: ribbon.curvesOpen }"
      :aria-pressed="ribbon.curvesOpen"
      aria-label="Curves"
      title="Curves: value and speed of what is selected"
      @click="ribbon.curvesOpen = !ribbon.curvesOpen"
    >
      <VIcon :icon="mdiChartBellCurveCumulative" size="18" />
    </button>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
  padding: 0 10px 0 12px;
  white-space: nowrap;
  border-bottom: 1px solid var(--line);
}
.top b,
.says {
  overflow: hidden;
  text-overflow: ellipsis;
}
.gap {
  flex: 1;
}
.top select,
.easing {
  height: 24px;
}
.easing {
  width: 190px;
  min-width: 60px;
}
.top .plain-button {
  height: 24px;
}
.plain-button.on {
  background: var(--teal-soft);
}
.icon-button.on {
  color: var(--teal);
  background: var(--teal-soft);
}
.menu {
  display: grid;
  padding: 6px;
  color: var(--ink);
  background: var(--paper);
  border-radius: 8px;
}
.menu button {
  padding: 6px 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 5px;
}
.menu button:hover:not(:disabled) {
  background: var(--teal-soft);
}
.menu button:disabled {
  color: var(--ink-2);
  opacity: 0.6;
}
</style>
