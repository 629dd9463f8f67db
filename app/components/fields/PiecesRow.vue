<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { linkFault } from '#core/card/links'
import { allPieces } from '#core/card/tree'
import type { PiecesParameter } from '#core/values/parameter-kinds'
import { useParameter } from '~/composables/parameter'
import { useBench } from '~/stores/bench'
import HintText from './HintText.vue'

/** Several other pieces of the card: each one that is chosen is a tag, the rest are in a list. */
const props = defineProps<{ place: ParameterPlace }>()
const bench = useBench()
const { value, write } = useParameter(() => props.place)

const chosen = computed(() => (value.value as readonly string[] | null) ?? [])
const all = computed(() => allPieces(bench.card!.pieces))
const { use } = props.place.parameter as PiecesParameter
const faultOf = (id: string) => linkFault(bench.card!, props.place.piece!, id, use)
const nameOf = (id: string) => all.value.find((piece) => piece.id === id)?.name ?? 'A piece that is gone'
const free = computed(() => all.value.filter(({ id }) => !chosen.value.includes(id)))

function add(event: Event) {
  const list = event.target as HTMLSelectElement
  if (list.value) write([...chosen.value, list.value], '')
  list.value = ''
}
</script>

<template>
  <div class="row field-row">
    <span class="field-label">{{ place.parameter.label }}<HintText :text="place.parameter.help" /></span>
    <div class="chosen">
      <span v-for="id in chosen" :key="id" class="tag" :class="{ fault: faultOf(id) }">
        {{ nameOf(id) }}
        <button
          class="icon-button"
          :aria-label="`${place.parameter.label} ${nameOf(id)} no more`"
          @click="
            write(
              chosen.filter((one) => one !== id),
              '',
            )
          "
        >
          <VIcon :icon="mdiClose" size="12" />
        </button>
      </span>
      <select class="plain-field" :aria-label="place.label" @change="add">
        <option value="">{{ chosen.length > 0 ? 'One more' : 'Choose a piece' }}</option>
        <option v-for="piece in free" :key="piece.id" :value="piece.id" :disabled="faultOf(piece.id) !== null">
          {{ piece.name }}{{ faultOf(piece.id) === 'circle' ? ', would go in a circle' : '' }}
        </option>
      </select>
    </div>
  </div>
  <p v-if="chosen.some((id) => faultOf(id))" class="note" role="status">
    What is marked is gone or leads back to this piece, and does not count. Take it away.
  </p>
</template>

<style scoped>
.row {
  grid-template-columns: 78px minmax(0, 1fr);
}
.chosen {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.chosen select {
  flex: 1 1 90px;
  width: auto;
  min-width: 0;
}
.tag {
  display: flex;
  gap: 2px;
  align-items: center;
  padding: 0 2px 0 7px;
  background: var(--teal-soft);
  border-radius: 5px;
}
.tag.fault {
  background: color-mix(in srgb, var(--wax) 18%, transparent);
}
.tag button {
  width: 20px;
}
.note {
  margin: 0 0 6px;
  font-size: 12px;
  color: var(--wax);
}
</style>
