<script setup lang="ts">
import { mdiClockOutline } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import type { DepthGroup } from '#core/coats/definition'
import { coatOf } from '#core/coats/table'
import { hasOwnTime } from '#core/edit/clocks'
import { takesEntries } from '#core/edit/entries'
import { addFinish } from '#core/edit/finishes'
import { addMask } from '#core/edit/masks'
import { addStep } from '#core/edit/steps'
import { addCoat, moveCoat } from '#core/edit/stack'
import { writeValue } from '#core/edit/values'
import type { Card, Coat, Piece } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { switchValue } from '#core/values/evaluated'
import { PIECE_KINDS } from '#core/pieces/table'
import { useBringFiles } from '~/composables/bring-files'
import { faultOf } from '~/composables/api'
import { chosenFiles } from '~/composables/chosen-file'
import { clockWords } from '~/composables/clock-words'
import { coatTitle } from '~/composables/coat-words'
import { useMoment } from '~/composables/moment'
import { useStackWork } from '~/composables/stack-work'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useBrush } from '~/stores/brush'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'
import AddSheet from './AddSheet.vue'
import CoatSlab from './CoatSlab.vue'
import EntryStack from './EntryStack.vue'

const props = defineProps<{ piece: Piece; outlook: PieceOutlook[] }>()
const bench = useBench()
const ribbon = useRibbon()
const stage = useStage()
const brush = useBrush()
const work = useStackWork()
const { shown: moment } = useMoment(() => props.piece.id)

const GROUPS: { name: DepthGroup; label: string; empty(piece: Piece): string }[] = [
  {
    name: 'face',
    label: 'face',
    empty: ({ kind }) => (PIECE_KINDS[kind].holds ? 'The face is what it holds' : 'No face: pour a fill'),
  },
  { name: 'behind', label: 'behind', empty: () => 'Nothing behind' },
]

/** A wash has no coats. */
const coated = computed(() => PIECE_KINDS[props.piece.kind].coatsFrom !== 'nothing')
/** Only what has an outline can be formed. */
const formed = computed(() => takesEntries(props.piece, 'step'))
const addLabel = computed(() =>
  formed.value ? 'Pour, form or finish' : coated.value ? 'Pour or finish' : 'Add a finish',
)
/** A coat behind whose blend mode cannot reach what lies behind the piece, because the piece has finishes or masks. */
const unheard = computed(() => {
  const { coats, finishes, masks } = props.piece
  if (finishes.length + masks.length === 0) return ''
  const coat = coats.behind.find(({ kind, blend }) => blend !== 'normal' && !coatOf(kind).ownBlend)
  return coat ? coatTitle(coat).toLowerCase() : ''
})
const pouring = ref(false)
/** Where the next coat goes; null for the place that its kind is used to. */
const spot = ref<{ group: DepthGroup; at: number } | null>(null)

function pourAt(group: DepthGroup, at: number) {
  spot.value = { group, at }
  pouring.value = true
}

watch(pouring, (open) => {
  if (!open) spot.value = null
})

/** Pours on every selected piece; on this one it is selected then. */
function pour(kind: string, label: string, side: string) {
  const where = spot.value ?? {}
  const others = bench.selection.filter((id) => id !== props.piece.id)
  pouring.value = false
  let made = ''
  bench.edit(`Pour ${label.toLowerCase()}${side ? `, ${side}` : ''}`, (card) => {
    const options = side ? { side } : {}
    const more = others.reduce((next, id) => addCoat(next, id, kind, options).card, card)
    const poured = addCoat(more, props.piece.id, kind, { ...options, ...where })
    made = poured.id
    return poured.card
  })
  bench.select(props.piece.id, made)
}

/** A mask begins as large as what it holds. */
const mask = (card: Card, id: string, kind: string) =>
  addMask(card, id, kind, props.outlook.find((entry) => entry.id === id)?.own ?? null)
const ADD = { Finish: addFinish, Form: addStep, Hold: mask }

const pictureFile = ref<HTMLInputElement>()
const { inside } = useBringFiles()

function hold(kind: string, label: string) {
  if (kind === 'clock') {
    pouring.value = false
    work.giveClock(props.piece)
  } else if (kind === 'inside') {
    pouring.value = false
    pictureFile.value?.click()
  } else {
    add('Hold', kind, label)
    if (kind === 'painted') brush.taken = true
  }
}

async function bringInside(event: Event) {
  const files = chosenFiles(event)
  const { piece, outlook } = props
  if (files.length === 0) return
  try {
    await inside(
      files,
      piece,
      outlook.find(({ id }) => id === piece.id),
    )
  } catch (error) {
    useNotices().fault(faultOf(error))
  }
}

/** A clock of its own, in a few words; null where it runs with the time around it. */
const clock = computed(() => (hasOwnTime(props.piece) ? clockWords(props.piece, moment.value) : null))
const isHeld = computed(() => props.piece.masks.length > 0 || clock.value !== null)

/** Adds a finish, a step or a mask to every selected piece; on this one it is selected then. */
function add(what: keyof typeof ADD, kind: string, label: string) {
  const others = bench.selection.filter((id) => id !== props.piece.id)
  const put = ADD[what]
  pouring.value = false
  let made = ''
  bench.edit(`${what}: ${label.toLowerCase()}`, (card) => {
    const more = others.reduce((next, id) => put(next, id, kind).card, card)
    const laid = put(more, props.piece.id, kind)
    made = laid.id
    return laid.card
  })
  bench.select(props.piece.id, made)
}

/** The clock's values stand in the settings of the piece. */
async function showClock() {
  bench.select(props.piece.id)
  await nextTick()
  const rows = document.querySelector<HTMLDetailsElement>('[data-rows="Clock"]')
  if (rows) rows.open = true
  rows?.scrollIntoView({ block: 'nearest' })
}

/** The list gives the new order; the coat that is not where it was is the one that was dragged. */
function reorder(group: DepthGroup, coats: Coat[]) {
  const old = props.piece.coats[group]
  if (coats.length < old.length) return // It arrives in the other group, which says where.
  const arrived = coats.find((coat) => !old.includes(coat))
  const moved =
    arrived ??
    coats.find((coat, i) => old[i] !== coat && old.indexOf(coat) !== i - 1) ??
    coats.find((coat, i) => old[i] !== coat)
  if (!moved) return
  bench.edit(`Move ${coatTitle(moved).toLowerCase()}`, (card) =>
    moveCoat(card, props.piece.id, moved.id, group, coats.indexOf(moved)),
  )
}

function toggle(coat: Coat) {
  const on = !switchValue(coat.on, moment.value)
  bench.edit(`${coatTitle(coat)} ${on ? 'on' : 'off'}`, (card) =>
    writeValue(card, `${props.piece.id}/${coat.id}/on`, ribbon.frame, on),
  )
}
</script>

<template>
  <div class="core" :class="{ held: isHeld }">
    <div v-if="piece.finishes.length > 0 || !coated" class="group over">
      <span class="depth" aria-hidden="true">{{ coated ? 'finish' : '' }}</span>
      <EntryStack :piece="piece" family="finish" />
      <span v-if="piece.finishes.length === 0" class="empty">A wash does nothing yet: add a finish</span>
    </div>
    <div v-for="group in coated ? GROUPS : []" :key="group.name" class="group">
      <span class="depth" aria-hidden="true">{{ group.label }}</span>
      <VueDraggable
        :model-value="piece.coats[group.name]"
        group="coats"
        class="slabs"
        :animation="120"
        :aria-label="group.label"
        filter=".eye, .more, .gap"
        :prevent-on-filter="false"
        @start="stage.draggedCoat = piece.coats[group.name][$event.oldIndex ?? -1] ?? null"
        @end="stage.draggedCoat = null"
        @update:model-value="(coats: Coat[]) => reorder(group.name, coats)"
      >
        <CoatSlab
          v-for="coat in piece.coats[group.name]"
          :key="coat.id"
          :coat="coat"
          :piece="piece"
          :selected="bench.selectedPart === coat.id"
          @select="bench.select(piece.id, coat.id)"
          @toggle="toggle(coat)"
          @pour="pourAt(group.name, piece.coats[group.name].indexOf(coat))"
        />
      </VueDraggable>
      <span v-if="piece.coats[group.name].length === 0" class="empty">{{ group.empty(piece) }}</span>
    </div>
    <div v-if="piece.outlineSteps.length > 0" class="group form">
      <span class="depth" aria-hidden="true">form</span>
      <EntryStack :piece="piece" family="step" />
    </div>
    <div v-if="isHeld" class="group hold">
      <span class="depth" aria-hidden="true">held</span>
      <div>
        <EntryStack :piece="piece" family="mask" />
        <button v-if="clock" class="clock" title="The time within; its values are in the settings" @click="showClock">
          <VIcon :icon="mdiClockOutline" size="15" />
          <b>Clock</b><span class="quiet">{{ clock }}</span>
        </button>
      </div>
    </div>
    <input
      ref="pictureFile"
      type="file"
      accept="image/*,video/*,.apng,.mov,.mkv,.zip"
      multiple
      hidden
      data-test="inside-file"
      @change="bringInside"
    />
    <button class="pour">
      {{ addLabel }}
      <AddSheet
        v-model="pouring"
        :coats="coated"
        :steps="formed"
        @pour="pour"
        @form="(kind, label) => add('Form', kind, label)"
        @finish="(kind, label) => add('Finish', kind, label)"
        @hold="hold"
      />
    </button>
    <p v-if="unheard" class="quiet note">
      Because of its {{ piece.finishes.length > 0 ? 'finishes' : 'masks' }}, {{ unheard }} blends with the piece itself
      and not with what lies behind it.
    </p>
  </div>
</template>

<style scoped>
.core {
  padding: 6px 10px 8px 6px;
  background: var(--paper-2);
}
.group {
  position: relative;
  display: grid;
  grid-template-columns: 20px 1fr;
  min-height: 30px;
}
/* Where a piece is held, a rim runs along its left side. */
.core.held {
  box-shadow: inset 3px 0 var(--teal);
}
.group + .group {
  padding-top: 4px;
  margin-top: 4px;
  border-top: 2px dashed var(--line-strong);
}
.depth {
  display: grid;
  place-items: center;
  padding: 3px 0;
  font-size: 11px;
  color: var(--ink-2);
  writing-mode: vertical-rl;
  transform: rotate(180deg);
}
.slabs {
  min-height: 28px;
}
.empty {
  position: absolute;
  inset: 4px 0 0 26px;
  display: flex;
  align-items: center;
  font-size: 12px;
  color: var(--ink-2);
  pointer-events: none;
}
.clock {
  display: flex;
  gap: 6px;
  align-items: center;
  width: 100%;
  height: 28px;
  padding: 0 8px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 6px;
}
.clock:hover {
  background: var(--teal-soft);
}
.pour {
  padding: 3px 6px;
  margin: 3px 0 0 20px;
  font: inherit;
  font-weight: 650;
  color: var(--teal);
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 5px;
}
.note {
  margin: 2px 8px 4px 26px;
  font-size: 12px;
}
.pour:hover {
  text-decoration: underline;
}
</style>
