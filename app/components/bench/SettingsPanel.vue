<script setup lang="ts">
import { computed } from 'vue'
import { listParameters, listPieceParameters } from '#core/card/addresses'
import type { ParameterPlace } from '#core/card/addresses'
import { allPieces } from '#core/card/tree'
import { counts } from '#core/values/parameter-kinds'
import { PIECE_KINDS } from '#core/pieces/table'
import { coatOf } from '#core/coats/table'
import { CLOCK_PARAMETERS } from '#core/pieces/clock'
import { FIT_PARAMETERS } from '#core/pieces/fit'
import { PLACE_PARAMETERS } from '#core/pieces/place'
import type { PieceOutlook } from '#core/frame/outlook'
import { coatTitle } from '~/composables/coat-words'
import { definitionOf, entryTitle, familyOf } from '~/composables/entry-words'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import NumberRow from '../fields/NumberRow.vue'
import PaintField from '../fields/PaintField.vue'
import ParameterRow from '../fields/ParameterRow.vue'
import ArrangeBar from './ArrangeBar.vue'
import BrushTray from './BrushTray.vue'
import CardSettings from './CardSettings.vue'
import MaskBar from './MaskBar.vue'
import FieldsForm from './fields/FieldsForm.vue'
import LetterMotion from './LetterMotion.vue'
import PathSettings from './PathSettings.vue'
import PictureSettings from './PictureSettings.vue'
import RowGroup from './RowGroup.vue'
import SealLine from './SealLine.vue'
import SequenceSettings from './SequenceSettings.vue'
import SectionChart from './SectionChart.vue'
import TimeSettings from './TimeSettings.vue'
import TypeForms from './TypeForms.vue'
import TypeSettings from './TypeSettings.vue'
import UnseenNote from './UnseenNote.vue'

const props = defineProps<{ outlook: PieceOutlook[]; engineName: string }>()
const bench = useBench()
const brush = useBrush()

/** Lengths of a wash are measured by the frame. */
function referenceOf(piece: string): number {
  const { frame, pieces } = bench.card!
  if (allPieces(pieces).find(({ id }) => id === piece)?.kind === 'wash') return Math.min(frame.width, frame.height)
  return props.outlook.find(({ id }) => id === piece)?.reference ?? 0
}
const reference = computed(() => referenceOf(bench.selectedPiece ?? ''))
/** While the brush is in hand, its tray has the room. */
const isPainting = computed(() => brush.taken && brush.target !== null)
/** The coat, finish or step that is selected. */
const part = computed(() => bench.coat ?? bench.entry)
const definition = computed(() =>
  bench.coat ? coatOf(bench.coat.kind) : bench.entry ? definitionOf(bench.entry) : null,
)
const hasFields = computed(() => bench.card!.fields.length > 0)
const title = computed(() => {
  if (bench.coat) return coatTitle(bench.coat)
  if (bench.entry) return entryTitle(bench.entry)
  return bench.pieces.length > 1
    ? `${bench.pieces.length} pieces`
    : (bench.piece?.name ?? (hasFields.value ? 'Fields' : 'Card'))
})
const places = computed(() => {
  if (!bench.piece) return listParameters(bench.card!)
  return listPieceParameters(bench.piece)
})
/** What of a mask would change nothing: a wash has no space of its own, and without finishes there is no before and after. */
const idleOfMask = computed(() => {
  const { piece } = bench
  if (!bench.mask || !piece) return []
  if (piece.kind === 'wash') return ['space', 'stage']
  return piece.finishes.length === 0 ? ['stage'] : []
})
/** The parameters of the selection itself, paints apart. */
const rows = computed(() => {
  const base = [bench.piece?.id, part.value?.id].filter(Boolean).join('/')
  const own = places.value.filter(
    ({ address }) => address.startsWith(`${base}/`) && !address.slice(base.length + 1).includes('/'),
  )
  const values = (part.value ?? bench.piece ?? {}) as Record<string, unknown>
  const ownBlend = bench.coat ? coatOf(bench.coat.kind).ownBlend === true : false
  // What is the kind's own stands first: the size of type beside its words, the sides of a box before its place.
  const kinds = bench.piece && !part.value ? Object.keys(PIECE_KINDS[bench.piece.kind].parameters) : []
  const rank = ({ address }: ParameterPlace) => (kinds.includes(address.slice(base.length + 1)) ? 0 : 1)
  own.sort((a, b) => rank(a) - rank(b))
  const on = bench.piece ? PIECE_KINDS[bench.piece.kind].coatsFrom : 'words'
  // A wash stands nowhere.
  const placed = bench.piece?.kind !== 'wash' || part.value !== null
  return own.filter(
    ({ address, parameter }) =>
      (placed || ['opacity', 'blend', 'on'].includes(address.slice(base.length + 1))) &&
      counts(parameter, values, on) &&
      !idleOfMask.value.includes(nameOf({ address })) &&
      !(ownBlend && address.endsWith('/blend')),
  )
})
/** Where a piece stands and how it is laid: its numbers lie side by side and show at once, the rest are rows. */
const isPlaceNumber = ({ address, parameter }: ParameterPlace) =>
  !part.value && parameter.type === 'number' && address.slice(address.lastIndexOf('/') + 1) in PLACE_PARAMETERS
/** In pairs. */
const PLACE_ORDER = ['x', 'y', 'rotation', 'scale', 'stretchX', 'stretchY', 'skew', 'opacity', 'anchorX', 'anchorY']

/** Values that are seldom needed, under a name of their own. */
const GROUPS = [
  { name: 'Text box', of: ['width', 'wide', 'least', 'closest'], only: 'type' },
  { name: 'Letters', of: ['letterCase', 'shift', 'features'], only: 'type' },
  { name: 'Along a path', of: ['along', 'start', 'pathSide', 'overflow'], only: 'type' },
  { name: 'Clock', of: Object.keys(CLOCK_PARAMETERS), only: null },
  { name: 'Fits other pieces', of: Object.keys(FIT_PARAMETERS), only: null },
  { name: 'Woven through words', of: ['weave', 'weaveLetters'], only: null },
]
const placeNumbers = computed(() => {
  if (!bench.piece) return []
  const rank = ({ address }: ParameterPlace) => PLACE_ORDER.indexOf(address.slice(address.lastIndexOf('/') + 1))
  return rows.value.filter(isPlaceNumber).sort((a, b) => rank(a) - rank(b))
})
const nameOf = ({ address }: Pick<ParameterPlace, 'address'>) => address.slice(address.lastIndexOf('/') + 1)
const groups = computed(() =>
  !bench.piece || part.value
    ? []
    : GROUPS.flatMap(({ name, of, only }) => {
        const places = rows.value.filter((row) => of.includes(nameOf(row)))
        return places.length > 0 && (only === null || only === bench.piece!.kind) ? [{ name, places }] : []
      }),
)
const grouped = computed(() => new Set(groups.value.flatMap(({ places }) => places)))
const otherRows = computed(() =>
  bench.piece
    ? // Words have a field of their own.
      rows.value.filter((row) => !isPlaceNumber(row) && !grouped.value.has(row) && nameOf(row) !== 'wording')
    : rows.value,
)
const typeState = computed(() => props.outlook.find(({ id }) => id === bench.piece?.id)?.type)
const paints = computed(() => {
  if (!part.value || !definition.value) return []
  const address = `${bench.piece!.id}/${part.value.id}`
  const values = part.value as Record<string, unknown>
  return Object.entries(definition.value.parameters).flatMap(([name, parameter]) =>
    parameter.type === 'paint' && counts(parameter, values)
      ? [{ address: `${address}/${name}`, label: parameter.label, coloursOnly: parameter.coloursOnly ?? false }]
      : [],
  )
})
const help = computed(() => definition.value?.help ?? '')
/** Where the help page tells of it. */
const helpId = computed(() => {
  if (bench.coat) return `coat-${bench.coat.kind}`
  return bench.entry ? `${familyOf(bench.entry)}-${bench.entry.kind}` : null
})
</script>

<template>
  <aside class="settings" aria-label="Settings">
    <SectionChart
      v-if="bench.piece && !bench.entry && bench.piece.kind !== 'wash' && !isPainting"
      :engine-name="engineName"
    />
    <div class="room">
      <div class="head">
        <h2>{{ title }}</h2>
        <button v-if="bench.piece && bench.card!.fields.length > 0" class="plain-button" @click="bench.select(null)">
          Fields
          <VTooltip activator="parent" text="The card’s fields as a short form: what rows of a roster fill" />
        </button>
        <span v-if="part && bench.pieces.length > 1" class="quiet">on {{ bench.pieces.length }} pieces</span>
        <span v-else-if="part && reference" class="quiet">100 % = {{ Math.round(reference * 10) / 10 }} px</span>
      </div>
      <UnseenNote v-if="bench.piece && bench.pieces.length === 1" :piece="bench.piece.id" :engine-name="engineName" />
      <p v-if="help" class="help quiet">
        {{ help }}. <NuxtLink v-if="helpId" :to="`/help#${helpId}`" target="_blank">More</NuxtLink>
      </p>
      <p v-else-if="bench.pieces.length > 1" class="help quiet">What you change here changes on all that have it.</p>
      <div class="flow">
        <template v-if="!bench.piece">
          <FieldsForm />
          <h2 v-if="hasFields">Card</h2>
          <CardSettings :places="places" />
        </template>
        <template v-else>
          <template v-if="!part">
            <BrushTray v-if="bench.piece.kind === 'painting'" />
            <div class="place">
              <NumberRow v-for="place in placeNumbers" :key="place.address" :place="place" compact />
            </div>
            <ArrangeBar v-if="bench.piece.kind !== 'wash'" :outlook="outlook" />
            <SealLine v-if="bench.pieces.length === 1" :piece="bench.piece" />
            <TypeSettings v-if="bench.piece.kind === 'type'" :piece="bench.piece" />
            <LetterMotion v-if="bench.piece.kind === 'type'" :key="bench.piece.id" :piece="bench.piece" />
            <PathSettings v-if="bench.piece.kind === 'path'" :piece="bench.piece" />
            <PictureSettings v-if="bench.piece.kind === 'picture'" :piece="bench.piece" />
            <SequenceSettings v-if="bench.piece.kind === 'sequence'" :key="bench.piece.id" :piece="bench.piece" />
          </template>
          <MaskBar v-if="bench.mask" :mask="bench.mask" />
          <BrushTray v-if="bench.mask?.kind === 'painted'" />
          <PaintField v-for="paint in paints" :key="paint.address" v-bind="paint" :places="places" />
          <ParameterRow v-for="place in otherRows" :key="place.address" :place="place" :reference-of="referenceOf" />
          <TypeForms
            v-if="!part && bench.piece.kind === 'type'"
            :key="bench.piece.id"
            :piece="bench.piece"
            :missing="typeState?.missing ?? []"
            :overflows="typeState?.overflows ?? false"
            :engine-name="engineName"
          />
          <RowGroup
            v-for="group in groups"
            :key="`${bench.piece.id} ${group.name}`"
            :name="group.name"
            :places="group.places"
            :reference-of="referenceOf"
          />
          <TimeSettings v-if="!part" />
        </template>
      </div>
    </div>
  </aside>
</template>

<style scoped>
.settings {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--line);
}
.room {
  flex: 1;
  min-height: 0;
  padding: 8px 12px 20px 26px;
  overflow: hidden auto;
  container-type: inline-size;
}
/* A wide panel shows its rows in two columns; a row stays whole. */
@container (min-width: 560px) {
  .flow {
    columns: 2;
    column-gap: 44px;
  }
  .flow > * {
    break-inside: avoid;
  }
}
.head {
  display: flex;
  gap: 8px;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  margin: 0 0 6px;
  overflow: hidden;
  font-size: 14px;
  font-weight: 650;
  text-overflow: ellipsis;
}
.place {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 25px;
  margin-bottom: 6px;
}
.help a {
  color: var(--teal);
}
.help {
  margin: 0 0 8px;
  font-size: 12px;
}
</style>
