<script setup lang="ts">
import { addMotorStart, MOTOR_STARTS } from '#core/edit/motor-starts'
import type { MotorStart } from '#core/edit/motor-starts'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** Lets the selected pieces move by themselves: ready-made motors, whose values can all be changed on the ribbon. */
const bench = useBench()
const ribbon = useRibbon()

const add = (start: MotorStart) =>
  bench.edit(start.label, (card) => addMotorStart(card, bench.selection, start, ribbon.frame))
</script>

<template>
  <button class="plain-button">
    Move by itself…
    <VMenu activator="parent" location="bottom start">
      <VList density="compact">
        <VListItem
          v-for="start in MOTOR_STARTS"
          :key="start.id"
          :title="start.label"
          :subtitle="start.help"
          @click="add(start)"
        />
      </VList>
    </VMenu>
  </button>
</template>
