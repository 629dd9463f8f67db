<script setup lang="ts">
import { allPieces, holdsPieces, piecesIn } from '#core/card/tree'
import { VueDraggable } from 'vue-draggable-plus'
import { movePiece } from '#core/edit/stack'
import type { Piece } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { useBench } from '~/stores/bench'
import { useStage } from '~/stores/stage'
import CoreSample from './CoreSample.vue'
import PieceRow from './PieceRow.vue'

/** `group` is the group whose pieces these are; null for the card's own list. */
const props = defineProps<{ pieces: Piece[]; group: string | null; outlook: PieceOutlook[] }>()
const bench = useBench()
const stage = useStage()

/** A folded group is opened by what is selected in it. */
const isOpen = (piece: Piece) =>
  !stage.folded.has(piece.id) || allPieces(piecesIn(piece)).some(({ id }) => bench.isSelected(id))

/** The list gives the new order; the piece that is not where it was is the one that was dragged. */
function reorder(order: Piece[]) {
  const old = props.pieces
  if (order.length < old.length) return // It arrives in another list, which says where.
  const moved =
    order.find((piece) => !old.includes(piece)) ??
    order.find((piece, i) => old[i] !== piece && old.indexOf(piece) !== i - 1) ??
    order.find((piece, i) => old[i] !== piece)
  if (moved) bench.edit(`Move ${moved.name}`, (card) => movePiece(card, moved.id, order.indexOf(moved), props.group))
}
</script>

<template>
  <VueDraggable
    :model-value="pieces"
    group="pieces"
    handle=".piece .body"
    :animation="120"
    class="pieces"
    :class="{ inner: group }"
    @update:model-value="reorder"
  >
    <div v-for="piece in pieces" :key="piece.id">
      <PieceRow :piece="piece" :outlook="outlook" />
      <CoreSample v-if="bench.selectedPiece === piece.id" :piece="piece" :outlook="outlook" />
      <PieceList
        v-if="holdsPieces(piece) && isOpen(piece)"
        :pieces="piece.pieces"
        :group="piece.id"
        :outlook="outlook"
      />
    </div>
  </VueDraggable>
</template>

<style scoped>
.pieces {
  min-height: 8px;
}
.inner {
  margin-left: 12px;
  border-left: 3px solid var(--line-strong);
}
</style>
