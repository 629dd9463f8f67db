<script setup lang="ts">
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import type { MapFault } from '#core/card/maps'
import { mapFault } from '#core/card/maps'
import { allPieces } from '#core/card/tree'
import { useParameter } from '~/composables/parameter'
import { useBench } from '~/stores/bench'
import HintText from './HintText.vue'

/** Another piece of the card; those that cannot be taken say why. */
const props = defineProps<{ place: ParameterPlace }>()
const bench = useBench()
const { value, write } = useParameter(() => props.place)

const WHY: Record<MapFault, string> = {
  missing: 'gone',
  shapeless: 'has no shape',
  circle: 'would go in a circle',
}
const choices = computed(() =>
  allPieces(bench.card!.pieces).map(({ id, name }) => ({
    id,
    name,
    fault: mapFault(bench.card!, props.place.piece!, id),
  })),
)
const fault = computed(() => (value.value ? mapFault(bench.card!, props.place.piece!, value.value as string) : null))
</script>

<template>
  <label class="row">
    <span class="label">{{ place.parameter.label }}<HintText :text="place.parameter.help" /></span>
    <select
      class="plain-field"
      :value="value ?? ''"
      :aria-label="place.label"
      @change="write(($event.target as HTMLSelectElement).value || null, '')"
    >
      <option value="">Choose one</option>
      <option v-if="fault === 'missing'" :value="value">A piece that is gone</option>
      <option v-for="choice in choices" :key="choice.id" :value="choice.id" :disabled="choice.fault !== null">
        {{ choice.name }}{{ choice.fault ? `, ${WHY[choice.fault]}` : '' }}
      </option>
    </select>
  </label>
  <p v-if="fault" class="fault" role="status">
    {{
      fault === 'missing'
        ? 'The piece is gone: the finish does nothing. Choose another one.'
        : fault === 'circle'
          ? 'The map leads back to this piece: the finish does nothing. Choose another one.'
          : 'A wash has no picture of its own: choose a piece with a shape.'
    }}
  </p>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 8px;
  align-items: center;
  min-height: 32px;
}
.label {
  color: var(--ink-2);
}
.fault {
  margin: 0 0 6px;
  font-size: 12px;
  color: var(--wax);
}
</style>
