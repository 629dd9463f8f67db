<script setup lang="ts">
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import type { LinkFault } from '#core/card/links'
import { linkFault } from '#core/card/links'
import { allPieces } from '#core/card/tree'
import type { PieceParameter } from '#core/values/parameter-kinds'
import { useParameter } from '~/composables/parameter'
import { useBench } from '~/stores/bench'
import HintText from './HintText.vue'

/** Another piece of the card; those that cannot be taken say why. */
const props = defineProps<{ place: ParameterPlace }>()
const bench = useBench()
const { value, write } = useParameter(() => props.place)

const WHY: Record<LinkFault, string> = {
  missing: 'gone',
  shapeless: 'has no shape',
  circle: 'would go in a circle',
}
const use = computed(() => (props.place.parameter as PieceParameter).use)
const faultOf = (id: string) => linkFault(bench.card!, props.place.piece!, id, use.value)
const choices = computed(() =>
  allPieces(bench.card!.pieces).map(({ id, name }) => ({
    id,
    name,
    fault: faultOf(id),
  })),
)
const fault = computed(() => (value.value ? faultOf(value.value as string) : null))
</script>

<template>
  <label class="row field-row">
    <span class="field-label">{{ place.parameter.label }}<HintText :text="place.parameter.help" /></span>
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
        ? 'The piece is gone: this does nothing. Choose another one.'
        : fault === 'circle'
          ? 'It leads back to this piece: this does nothing. Choose another one.'
          : 'It has nothing of that kind: choose another piece.'
    }}
  </p>
</template>

<style scoped>
.fault {
  margin: 0 0 6px;
  font-size: 12px;
  color: var(--wax);
}
</style>
