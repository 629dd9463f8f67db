<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { pressSeal } from '#core/seals/press'
import type { Piece } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import { useSeals } from '~/stores/seals'
import FieldMark from '../fields/FieldMark.vue'

/** Which seal a piece carries, its variants, and the ways to another one. */
const props = defineProps<{ piece: Piece }>()
const bench = useBench()
const seals = useSeals()
const seal = computed(() => seals.list.find(({ id }) => id === props.piece.seal?.id) ?? null)

onMounted(() => {
  if (!seals.loaded) void seals.load().catch(() => {})
})

function vary(variant: string) {
  const { value } = seal
  if (!value) return
  const pressed = { ...value.document, id: value.id }
  bench.edit(`${value.name}, ${variant}`, (card) => pressSeal(card, [props.piece.id], pressed, variant))
}
</script>

<template>
  <div class="seal">
    <template v-if="seal">
      <FieldMark v-if="seal.document.variants.length > 1" :address="`${piece.id}/seal`" />
      <span class="name" :title="seal.name">{{ seal.name }}</span>
      <select
        v-if="seal.document.variants.length > 1"
        class="plain-field"
        :value="piece.seal!.variant"
        aria-label="Variant of the seal"
        @change="vary(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="variant in seal.document.variants" :key="variant.name">{{ variant.name }}</option>
      </select>
    </template>
    <button class="plain-button" @click="seals.pressing = [piece.id]">Press a seal</button>
    <button class="plain-button" @click="seals.saving = piece.id">Save as seal</button>
  </div>
</template>

<style scoped>
.seal {
  position: relative;
  display: flex;
  gap: 6px;
  align-items: center;
  padding-bottom: 8px;
}
.name {
  overflow: hidden;
  font-weight: 650;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.plain-button {
  height: 26px;
  padding: 0 9px;
}
</style>
