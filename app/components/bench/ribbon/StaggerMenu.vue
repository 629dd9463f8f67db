<script setup lang="ts">
import { computed, ref } from 'vue'
import type { StaggerOrder } from '#core/edit/stagger'
import { stagger, staggerOrder } from '#core/edit/stagger'
import { isMoving } from '#core/values/moving'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'

const props = defineProps<{ engineName: string }>()

const bench = useBench()
const ribbon = useRibbon()
const open = ref(false)
const by = ref(2)
const order = ref<StaggerOrder>('stack')
const seed = ref(1)
const places = ref(new Map<string, { x: number; y: number }>())

const how = computed(() => ({
  ...{ ids: bench.selection, by: by.value, order: order.value, seed: seed.value, places: places.value },
}))
const first = computed(() => staggerOrder(bench.card!, how.value)[0])
const moves = computed(() => bench.lanes.some(({ piece, value }) => piece === first.value?.id && isMoving(value)))

/** Where the pieces stand at the playhead, for the order of place. */
async function look() {
  const outlook = await onEngine(
    (face) => face.outlook(props.engineName, ribbon.frame),
    () => [],
  )
  places.value = new Map(outlook.map(({ id, place }) => [id, place]))
}

function run() {
  bench.edit(`Stagger ${bench.pieces.length} pieces by ${by.value}`, (card) => stagger(card, how.value), 'stagger')
}
</script>

<template>
  <button class="plain-button">
    Stagger
    <VMenu
      v-model="open"
      activator="parent"
      location="top start"
      :close-on-content-click="false"
      @update:model-value="look"
    >
      <div class="sheet" role="dialog" aria-label="Stagger">
        <p>
          The motion of <b>{{ first?.name }}</b> on all {{ bench.pieces.length }} pieces, each later than the one before
          it.
        </p>
        <label>
          Frames later
          <input v-model.number="by" class="plain-field" type="number" min="-1000" max="1000" step="1" />
        </label>
        <label>
          In the order of
          <select v-model="order" class="plain-field">
            <option value="stack">the stack</option>
            <option value="place">their place, left to right</option>
            <option value="seed">chance</option>
          </select>
        </label>
        <label v-if="order === 'seed'">
          Seed
          <input v-model.number="seed" class="plain-field" type="number" min="0" max="65535" step="1" />
        </label>
        <p v-if="!moves" class="quiet">{{ first?.name }} does not move yet: give it keys first.</p>
        <button class="wax-button" :disabled="!moves || !Number.isFinite(by)" @click="run">Stagger</button>
      </div>
    </VMenu>
  </button>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 8px;
  width: 300px;
  padding: 14px;
  font-size: 13px;
  color: var(--ink);
  background: var(--paper);
  border-radius: 8px;
}
p {
  margin: 0;
}
label {
  display: grid;
  grid-template-columns: 120px 1fr;
  align-items: center;
}
</style>
