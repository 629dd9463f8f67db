<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import { moveFinish } from '#core/edit/finishes'
import { writeValue } from '#core/edit/values'
import type { Finish, Piece } from '#core/card/schema'
import { switchValue } from '#core/values/evaluated'
import { finishTitle } from '~/composables/finish-words'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import FinishSlab from './FinishSlab.vue'

/** The finishes of a piece, thin glazes on top of its core: the lowest one works first. */
const props = defineProps<{ piece: Piece }>()
const bench = useBench()
const ribbon = useRibbon()
const { shown: moment } = useMoment(() => props.piece.id)

/** The list gives the new order; the finish that is not where it was is the one that was dragged. */
function reorder(finishes: Finish[]) {
  const old = props.piece.finishes
  const moved =
    finishes.find((finish, i) => old[i] !== finish && old.indexOf(finish) !== i - 1) ??
    finishes.find((finish, i) => old[i] !== finish)
  if (!moved || finishes.length !== old.length) return
  bench.edit(`Move ${finishTitle(moved).toLowerCase()}`, (card) =>
    moveFinish(card, props.piece.id, moved.id, finishes.indexOf(moved)),
  )
}

function toggle(finish: Finish) {
  const on = !switchValue(finish.on, moment.value)
  bench.edit(`${finishTitle(finish)} ${on ? 'on' : 'off'}`, (card) =>
    writeValue(card, `${props.piece.id}/${finish.id}/on`, ribbon.frame, on),
  )
}
</script>

<template>
  <VueDraggable
    :model-value="piece.finishes"
    class="glazes"
    :animation="120"
    aria-label="finishes"
    filter=".eye, .more"
    :prevent-on-filter="false"
    @update:model-value="reorder"
  >
    <FinishSlab
      v-for="finish in piece.finishes"
      :key="finish.id"
      :finish="finish"
      :piece="piece"
      :selected="bench.selectedPart === finish.id"
      @select="bench.select(piece.id, finish.id)"
      @toggle="toggle(finish)"
    />
  </VueDraggable>
</template>
