<script setup lang="ts">
import { useBench } from '~/stores/bench'
import FieldEntry from './FieldEntry.vue'
import RowPicker from './RowPicker.vue'

/** The card's fields as a short form: what a card is for the most part used for, without its pieces. */
const bench = useBench()
</script>

<template>
  <section v-if="bench.card!.fields.length > 0" class="fields" aria-label="Fields">
    <FieldEntry v-for="field in bench.card!.fields" :key="field.id" :field="field" />
    <RowPicker />
  </section>
  <p v-else class="quiet none">
    A value becomes a field by the tag beside it: rows of a roster fill it, for many names out of one card.
  </p>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
  padding-bottom: 12px;
  margin-bottom: 10px;
  border-bottom: 1px solid var(--line);
}
.none {
  margin: 0 0 10px;
  font-size: 12px;
}
</style>
