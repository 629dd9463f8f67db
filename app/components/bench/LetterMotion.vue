<script setup lang="ts">
import { valuesOf } from '#core/card/parts'
import { mdiChevronDown, mdiChevronRight, mdiChevronUp, mdiClose, mdiPlus } from '@mdi/js'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { listPieceParameters } from '#core/card/addresses'
import { addRanges, changeRange, moveRange } from '#core/edit/ranges'
import { isMoving } from '#core/values/moving'
import { counts } from '#core/values/parameter-kinds'
import type { TypePiece } from '#core/card/schema'
import type { LetterRange } from '#core/type/ranges'
import { MOST_RANGES, RANGE_PARAMETERS } from '#core/type/ranges'
import type { RangeStart } from '#core/type/range-starts'
import { RANGE_STARTS } from '#core/type/range-starts'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import ParameterRow from '../fields/ParameterRow.vue'
import EyeButton from './EyeButton.vue'

/** The ranges of letter motion that a type piece has. */
const props = defineProps<{ piece: TypePiece }>()
const bench = useBench()
const ribbon = useRibbon()
const open = ref<string | null>(null)
const menu = ref(false)
const rows = useTemplateRef<HTMLElement[]>('rows')
const full = computed(() => props.piece.ranges.length >= MOST_RANGES)

const rowsOf = (range: LetterRange) =>
  listPieceParameters(props.piece).filter(({ address, parameter }) => {
    if (!address.startsWith(`${props.piece.id}/${range.id}/`)) return false
    const name = address.slice(address.lastIndexOf('/') + 1)
    // A colour counts once something takes it on.
    if ((name === 'colour' || name === 'tinted') && range.tint === RANGE_PARAMETERS.tint.default) return false
    return counts(parameter, valuesOf(range))
  })

function add(start: RangeStart) {
  menu.value = false
  const before = new Set(props.piece.ranges.map(({ id }) => id))
  bench.edit(`Letter motion: ${start.label}`, (card) => addRanges(card, props.piece.id, start))
  void nextTick(() => {
    const added = props.piece.ranges.find(({ id }) => !before.has(id))
    void unfold(added?.id ?? null)
    if (added) showOnItsWay(added)
  })
}

/** Goes to a frame at which letters are on their way: where the motion begins nothing may be there yet. */
function showOnItsWay({ sweep }: LetterRange) {
  const [first, second] = isMoving(sweep) ? sweep.keys : []
  if (first && second) ribbon.go(first.frame + (second.frame - first.frame) * 0.55, bench.card!.length)
}

/** Unfolds a range where it can be seen. */
async function unfold(id: string | null) {
  open.value = id
  await nextTick()
  rows.value?.[0]?.closest('article')?.scrollIntoView({ block: 'start' })
}

function change(range: LetterRange, label: string, part: Partial<LetterRange> | null, mark = '') {
  bench.edit(`${label}: ${range.name}`, (card) => changeRange(card, props.piece.id, range.id, part), mark)
}

function rename(range: LetterRange, event: Event) {
  const field = event.target as HTMLInputElement
  const name = field.value.trim().slice(0, 200)
  if (name && name !== range.name) change(range, 'Rename', { name })
  else field.value = range.name
}

const move = (range: LetterRange, by: number) =>
  bench.edit(`Order: ${range.name}`, (card) => moveRange(card, props.piece.id, range.id, by))
</script>

<template>
  <section class="letters" aria-label="Letter motion">
    <header>
      <h3>Letter motion</h3>
      <button class="plain-button" :disabled="full">
        <VIcon :icon="mdiPlus" size="14" />
        Move letters
        <VMenu v-model="menu" activator="parent" location="bottom end">
          <div class="starts" role="menu" aria-label="Ready-made letter motion">
            <button v-for="start in RANGE_STARTS" :key="start.id" role="menuitem" @click="add(start)">
              <b>{{ start.label }}</b>
              <small>{{ start.help }}</small>
            </button>
          </div>
        </VMenu>
      </button>
    </header>
    <article v-for="(range, i) in piece.ranges" :key="range.id" :class="{ off: !range.on }">
      <div class="head">
        <EyeButton :on="range.on" :label="range.name" @toggle="change(range, 'Switch', { on: !range.on })" />
        <input :value="range.name" :aria-label="`Name of ${range.name}`" @change="rename(range, $event)" />
        <button
          v-if="piece.ranges.length > 1"
          class="icon-button"
          :disabled="i === 0"
          :aria-label="`${range.name}: earlier`"
          @click="move(range, -1)"
        >
          <VIcon :icon="mdiChevronUp" size="16" />
        </button>
        <button class="icon-button" :aria-label="`Take ${range.name} away`" @click="change(range, 'Take away', null)">
          <VIcon :icon="mdiClose" size="14" />
        </button>
        <button
          class="icon-button"
          :aria-expanded="open === range.id"
          :aria-label="`Values of ${range.name}`"
          @click="unfold(open === range.id ? null : range.id)"
        >
          <VIcon :icon="open === range.id ? mdiChevronDown : mdiChevronRight" size="18" />
        </button>
      </div>
      <div v-if="open === range.id" ref="rows" class="rows">
        <ParameterRow v-for="place in rowsOf(range)" :key="place.address" :place="place" />
      </div>
    </article>
  </section>
</template>

<style scoped>
.letters {
  padding: 6px 0;
  margin-bottom: 6px;
  border-block: 1px solid var(--line);
}
header,
.head {
  display: flex;
  gap: 4px;
  align-items: center;
}
h3 {
  flex: 1;
  margin: 0;
  font-size: 13px;
  font-weight: 650;
}
header .plain-button {
  gap: 4px;
  height: 26px;
  padding: 0 9px;
}
.head {
  min-height: 30px;
}
.head input {
  flex: 1;
  min-width: 0;
  padding: 2px 4px;
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid transparent;
  border-radius: 4px;
}
.head input:hover,
.head input:focus {
  background: var(--raised);
  border-color: var(--line);
}
.off input {
  color: var(--ink-2);
}
.rows {
  padding-bottom: 6px;
}
.starts {
  display: grid;
  width: 280px;
  padding: 6px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.starts button {
  display: grid;
  padding: 6px 8px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 5px;
}
.starts button:hover,
.starts button:focus-visible {
  background: var(--paper-2);
}
.starts small {
  font-size: 12px;
  color: var(--ink-2);
}
</style>
