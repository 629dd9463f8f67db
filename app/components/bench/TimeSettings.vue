<script setup lang="ts">
import { computed } from 'vue'
import { changePiece } from '#core/edit/stack'
import type { Piece } from '#core/card/schema'
import { holdersOf } from '#core/card/tree'
import MotorStarts from './MotorStarts.vue'
import { useBench } from '~/stores/bench'

/** How the selected pieces see time: pictures held for some frames, and motion blur. */
const bench = useBench()
const piece = computed(() => bench.piece!)
/** What a group holds is exposed with it: its own switch counts for nothing. */
const exposedWithGroup = computed(() => holdersOf(bench.card!.pieces, piece.value.id).some((group) => isExposed(group)))
const isExposed = ({ blurred, steps }: Piece) => blurred && steps === 1

function change(label: string, part: Partial<Piece>) {
  bench.edit(label, (card) => bench.selection.reduce((next, id) => changePiece(next, id, part), card))
}

function hold(event: Event) {
  const steps = Math.round(Number((event.target as HTMLInputElement).value))
  if (steps >= 1 && steps <= 1000) change('Stepped time', { steps })
  else (event.target as HTMLInputElement).value = String(piece.value.steps)
}
</script>

<template>
  <div class="time">
    <MotorStarts v-if="piece.kind !== 'wash'" />
    <label title="Stepped time: for how many frames each of its pictures is held; 2 is on twos">
      Held for
      <input
        class="plain-field"
        type="number"
        :value="piece.steps"
        min="1"
        max="1000"
        aria-label="Frames for which each picture is held"
        @change="hold"
      />
      {{ piece.steps === 1 ? 'frame' : 'frames' }}
    </label>
    <label
      v-if="bench.card!.shutter"
      class="check"
      :title="exposedWithGroup ? 'It is exposed with the group that it lies in' : undefined"
    >
      <input
        type="checkbox"
        :checked="piece.blurred"
        :disabled="piece.steps > 1 || exposedWithGroup"
        @change="change('Motion blur', { blurred: !piece.blurred })"
      />
      Motion blur
    </label>
  </div>
</template>

<style scoped>
.time,
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.time {
  flex-wrap: wrap;
  justify-content: space-between;
  min-height: 30px;
  padding-top: 4px;
  color: var(--ink-2);
}
input[type='number'] {
  width: 58px;
  height: 24px;
}
input[type='checkbox'] {
  width: 15px;
  height: 15px;
  accent-color: var(--teal);
}
</style>
