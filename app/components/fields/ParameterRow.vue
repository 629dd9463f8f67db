<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import ChoiceRow from './ChoiceRow.vue'
import ColourRow from './ColourRow.vue'
import NumberRow from './NumberRow.vue'
import PieceChoiceRow from './PieceChoiceRow.vue'
import PiecesRow from './PiecesRow.vue'
import PathRow from './PathRow.vue'
import TextRow from './TextRow.vue'
import CurveRow from './CurveRow.vue'
import ToggleRow from './ToggleRow.vue'

defineProps<{ place: ParameterPlace; referenceOf?: (piece: string) => number }>()
</script>

<template>
  <NumberRow
    v-if="place.parameter.type === 'number' || place.parameter.type === 'length'"
    :place="place"
    :reference-of="referenceOf"
  />
  <ColourRow v-else-if="place.parameter.type === 'colour'" :place="place" />
  <ChoiceRow v-else-if="place.parameter.type === 'choice'" :place="place" />
  <PieceChoiceRow v-else-if="place.parameter.type === 'piece'" :place="place" />
  <PiecesRow v-else-if="place.parameter.type === 'pieces'" :place="place" />
  <TextRow v-else-if="place.parameter.type === 'text'" :place="place" />
  <PathRow v-else-if="place.parameter.type === 'path'" :place="place" />
  <CurveRow v-else-if="place.parameter.type === 'curve'" :place="place" />
  <ToggleRow v-else-if="place.parameter.type === 'toggle'" :place="place" />
</template>
