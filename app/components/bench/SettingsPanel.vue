<script setup lang="ts">
import { computed } from 'vue'
import { listCoatParameters, listParameters, listPieceParameters } from '#core/card/addresses'
import { counts } from '#core/card/parameter-kinds'
import { coatOf } from '#core/coats/table'
import type { PieceOutlook } from '#core/frame/engine'
import { coatTitle } from '~/composables/coat-words'
import { useBench } from '~/stores/bench'
import PaintField from '../fields/PaintField.vue'
import ParameterRow from '../fields/ParameterRow.vue'
import CardSettings from './CardSettings.vue'
import PathSettings from './PathSettings.vue'
import TypeSettings from './TypeSettings.vue'

const props = defineProps<{ outlook: PieceOutlook[] }>()
const bench = useBench()

const reference = computed(() => props.outlook.find(({ id }) => id === bench.selectedPiece)?.reference ?? 0)
const title = computed(() => (bench.coat ? coatTitle(bench.coat) : (bench.piece?.name ?? 'Card')))
const places = computed(() => {
  if (!bench.piece) return listParameters(bench.card!)
  return bench.coat ? listCoatParameters(bench.coat, bench.piece) : listPieceParameters(bench.piece)
})
/** The parameters of the selection itself, paints apart. */
const rows = computed(() => {
  const base = [bench.piece?.id, bench.coat?.id].filter(Boolean).join('/')
  const own = places.value.filter(
    ({ address }) => address.startsWith(`${base}/`) && !address.slice(base.length + 1).includes('/'),
  )
  const values = (bench.coat ?? bench.piece ?? {}) as Record<string, unknown>
  const ownBlend = bench.coat ? coatOf(bench.coat.kind).ownBlend === true : false
  return own.filter(({ address, parameter }) => counts(parameter, values) && !(ownBlend && address.endsWith('/blend')))
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
    <div class="head">
      <h2>{{ title }}</h2>
      <span v-if="bench.coat && reference" class="quiet">100 % = {{ Math.round(reference * 10) / 10 }} px</span>
    </div>
    <p v-if="help" class="help quiet">{{ help }}.</p>
    <CardSettings v-if="!bench.piece" :places="places" />
    <template v-else>
      <TypeSettings v-if="!bench.coat && bench.piece.kind === 'type'" :piece="bench.piece" />
      <PathSettings v-if="!bench.coat && bench.piece.kind === 'path'" :piece="bench.piece" />
      <PaintField v-for="paint in paints" :key="paint.address" v-bind="paint" :places="places" />
      <ParameterRow v-for="place in rows" :key="place.address" :place="place" :reference="reference" />
    </template>
  </aside>
</template>

<style scoped>
.settings {
  min-height: 0;
  padding: 10px 12px 20px;
  overflow: hidden auto;
  border-left: 1px solid var(--line);
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
