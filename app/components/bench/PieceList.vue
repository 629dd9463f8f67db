<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import { movePiece } from '#core/card/edit/stack'
import type { Piece } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import CoreSample from './CoreSample.vue'
import PieceRow from './PieceRow.vue'

const props = defineProps<{ pieces: Piece[]; depth?: number }>()
const bench = useBench()

function reorder(order: Piece[]) {
  const old = props.pieces
  const moved =
    order.find((piece, i) => old[i] !== piece && old.indexOf(piece) !== i - 1) ??
    order.find((piece, i) => old[i] !== piece)
  if (moved) bench.edit(`Move ${moved.name}`, (card) => movePiece(card, moved.id, order.indexOf(moved)))
}
</script>

<template>
  <VueDraggable
    :model-value="pieces"
    handle=".piece .body"
    :animation="120"
    class="pieces"
    :class="{ inner: depth }"
    @update:model-value="reorder"
  >
    <div v-for="piece in pieces" :key="piece.id">
      <PieceRow :piece="piece" :open="bench.selectedPiece === piece.id" />
      <CoreSample v-if="bench.selectedPiece === piece.id" :piece="piece" />
      <PieceList v-if="piece.kind === 'group'" :pieces="piece.pieces" :depth="(depth ?? 0) + 1" />
    </div>
  </VueDraggable>
</template>

<style scoped>
.inner {
  margin-left: 12px;
  border-left: 3px solid var(--line-strong);
}
</style>
