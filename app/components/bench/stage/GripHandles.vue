<script setup lang="ts">
import type { Placement } from '#core/outline/outline'
import { place, unplace } from '#core/outline/outline'
import type { Grip } from '#core/steps/grips'
import type { Point } from '#core/units'
import type { StageHand } from '~/composables/stage-hand'
import HandleLine from './HandleLine.vue'

/** Points of some space on the card that stand for values: they are dragged, or moved by the arrow keys. */
const props = defineProps<{ hand: StageHand; grips: readonly Grip[]; placement: Placement }>()
const emit = defineEmits<{ put: [label: string, values: Record<string, number>] }>()
const { onScreen } = props.hand

const onCard = (point: Point) => place(props.placement, point)
/** What a grip is moved by stays the one that was taken hold of. */
function move(grip: Grip) {
  const { placement } = props
  return (point: Point) => emit('put', grip.label, grip.values(unplace(placement, point)))
}
</script>

<template>
  <g>
    <template v-for="grip in grips" :key="grip.label">
      <HandleLine v-if="grip.from" :from="onScreen(onCard(grip.from))" :to="onScreen(onCard(grip.at))" />
      <rect
        class="grip"
        :x="onScreen(onCard(grip.at)).x - 6.5"
        :y="onScreen(onCard(grip.at)).y - 6.5"
        width="13"
        height="13"
        :rx="grip.from ? 3 : 6.5"
        tabindex="0"
        role="button"
        :aria-label="`${grip.label}, on the stage: arrows move it`"
        @pointerdown.stop="hand.drag($event, move(grip))"
        @keydown="hand.nudge($event, onCard(grip.at), move(grip))"
      >
        <title>{{ grip.label }}</title>
      </rect>
    </template>
  </g>
</template>

<style scoped>
.grip {
  cursor: move;
  fill: #9b2d26;
  stroke: #fff6ee;
  stroke-width: 1.8;
}
</style>
