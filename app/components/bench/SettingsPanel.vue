<script setup lang="ts">
import { computed } from 'vue'
import { listParameters, listPieceParameters } from '#core/card/addresses'
import type { ParameterPlace } from '#core/card/addresses'
import { counts } from '#core/values/parameter-kinds'
import { PIECE_KINDS } from '#core/pieces/table'
import { coatOf } from '#core/coats/table'
import type { PieceOutlook } from '#core/frame/outlook'
import { coatTitle } from '~/composables/coat-words'
import { useBench } from '~/stores/bench'
import PaintField from '../fields/PaintField.vue'
import ParameterRow from '../fields/ParameterRow.vue'
import ArrangeBar from './ArrangeBar.vue'
import CardSettings from './CardSettings.vue'
import LetterMotion from './LetterMotion.vue'
import PathSettings from './PathSettings.vue'
import PictureSettings from './PictureSettings.vue'
import SealLine from './SealLine.vue'
import SectionChart from './SectionChart.vue'
import TimeSettings from './TimeSettings.vue'
import TypeSettings from './TypeSettings.vue'

const props = defineProps<{ outlook: PieceOutlook[]; engineName: string }>()
const bench = useBench()

const referenceOf = (piece: string) => props.outlook.find(({ id }) => id === piece)?.reference ?? 0
const reference = computed(() => referenceOf(bench.selectedPiece ?? ''))
const title = computed(() => {
  if (bench.coat) return coatTitle(bench.coat)
  return bench.pieces.length > 1 ? `${bench.pieces.length} pieces` : (bench.piece?.name ?? 'Card')
})
const places = computed(() => {
  if (!bench.piece) return listParameters(bench.card!)
  return listPieceParameters(bench.piece)
})
/** The parameters of the selection itself, paints apart. */
const rows = computed(() => {
  const base = [bench.piece?.id, bench.coat?.id].filter(Boolean).join('/')
  const own = places.value.filter(
    ({ address }) => address.startsWith(`${base}/`) && !address.slice(base.length + 1).includes('/'),
  )
  const values = (bench.coat ?? bench.piece ?? {}) as Record<string, unknown>
  const ownBlend = bench.coat ? coatOf(bench.coat.kind).ownBlend === true : false
  // What is the kind's own stands first: the size of type beside its words, the sides of a box before its place.
  const kinds = bench.piece && !bench.coat ? Object.keys(PIECE_KINDS[bench.piece.kind].parameters) : []
  const rank = ({ address }: ParameterPlace) => (kinds.includes(address.slice(base.length + 1)) ? 0 : 1)
  own.sort((a, b) => rank(a) - rank(b))
  const hasOutline = !bench.piece || PIECE_KINDS[bench.piece.kind].coatsFrom !== 'alpha'
  return own.filter(
    ({ address, parameter }) => counts(parameter, values, hasOutline) && !(ownBlend && address.endsWith('/blend')),
  )
})
const paints = computed(() => {
  if (!bench.coat) return []
  const address = `${bench.piece!.id}/${bench.coat.id}`
  return Object.entries(coatOf(bench.coat.kind).parameters)
    .filter(([, parameter]) => parameter.type === 'paint')
    .map(([name, { label }]) => ({ address: `${address}/${name}`, label }))
})
const help = computed(() => (bench.coat ? coatOf(bench.coat.kind).help : ''))
</script>

<template>
  <aside class="settings" aria-label="Settings">
    <SectionChart v-if="bench.piece" :engine-name="engineName" />
    <div class="room">
      <div class="head">
        <h2>{{ title }}</h2>
        <span v-if="bench.coat && bench.pieces.length > 1" class="quiet">on {{ bench.pieces.length }} pieces</span>
        <span v-else-if="bench.coat && reference" class="quiet">100 % = {{ Math.round(reference * 10) / 10 }} px</span>
      </div>
      <p v-if="help" class="help quiet">{{ help }}.</p>
      <p v-else-if="bench.pieces.length > 1" class="help quiet">What you change here changes on all that have it.</p>
      <CardSettings v-if="!bench.piece" :places="places" />
      <template v-else>
        <template v-if="!bench.coat">
          <ArrangeBar :outlook="outlook" />
          <SealLine v-if="bench.pieces.length === 1" :piece="bench.piece" />
          <TypeSettings v-if="bench.piece.kind === 'type'" :piece="bench.piece" />
          <LetterMotion v-if="bench.piece.kind === 'type'" :key="bench.piece.id" :piece="bench.piece" />
          <PathSettings v-if="bench.piece.kind === 'path'" :piece="bench.piece" />
          <PictureSettings v-if="bench.piece.kind === 'picture'" :piece="bench.piece" />
        </template>
        <PaintField v-for="paint in paints" :key="paint.address" v-bind="paint" :places="places" />
        <ParameterRow v-for="place in rows" :key="place.address" :place="place" :reference-of="referenceOf" />
        <TimeSettings v-if="!bench.coat" />
      </template>
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
  padding: 8px 12px 20px;
  overflow: hidden auto;
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
.help {
  margin: 0 0 8px;
  font-size: 12px;
}
</style>
