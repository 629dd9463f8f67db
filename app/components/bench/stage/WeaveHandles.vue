<script setup lang="ts">
import { computed } from 'vue'
import { toggleWoven } from '#core/edit/type-parts'
import type { Piece } from '#core/card/schema'
import { place } from '#core/outline/outline'
import { PLACE_PARAMETERS } from '#core/pieces/place'
import { numbersIn } from '#core/type/ranges'
import { valueAt } from '#core/values/evaluated'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** The letters of the words that a piece is woven through: those that are ticked pass in front of it. */
const props = defineProps<{ hand: StageHand; piece: Piece }>()
const bench = useBench()
const ribbon = useRibbon()
const { base } = useMoment(() => props.piece.id)
const words = computed(() => props.hand.outlook().find(({ id }) => id === props.piece.weave))
const behind = computed(
  () => numbersIn(valueAt(PLACE_PARAMETERS.weaveLetters, props.piece.weaveLetters, base.value) as string) ?? new Set(),
)
const boxes = computed(() =>
  (words.value?.type?.letters ?? []).flatMap(({ corners, blank }, letter) => {
    if (blank) return []
    const at = corners.map((corner) => props.hand.onScreen(place(words.value!.placement, corner)))
    const foot = { x: (at[2]!.x + at[3]!.x) / 2, y: (at[2]!.y + at[3]!.y) / 2 }
    return [{ letter, foot, points: at.map(({ x, y }) => `${x},${y}`).join(' '), on: behind.value.has(letter) }]
  }),
)

function toggle(letter: number) {
  bench.edit('Weave', (card) => toggleWoven(card, props.piece, letter, ribbon.frame))
}
</script>

<template>
  <g class="weave">
    <g
      v-for="box in boxes"
      :key="box.letter"
      tabindex="0"
      role="checkbox"
      :aria-checked="box.on"
      :aria-label="`Letter ${box.letter + 1} passes in front`"
      :class="{ on: box.on }"
      @keydown.space.prevent.stop="toggle(box.letter)"
      @keydown.enter.prevent.stop="toggle(box.letter)"
    >
      <polygon :points="box.points" />
      <circle
        class="tick"
        :cx="box.foot.x"
        :cy="box.foot.y + 11"
        r="7"
        @pointerdown.stop
        @click.stop="toggle(box.letter)"
      />
      <path v-if="box.on" :d="`M${box.foot.x - 3} ${box.foot.y + 11}l2.5 2.5 4.5 -5`" />
      <title>
        {{ box.on ? 'Passes in front of it; click to put it behind' : 'Lies behind it; click to let it pass in front' }}
      </title>
    </g>
  </g>
</template>

<style scoped>
.tick {
  cursor: pointer;
}
/* The piece and its handles are reached through the letters. */
polygon,
path {
  pointer-events: none;
}
polygon {
  fill: transparent;
  stroke: #cfe0dc;
  stroke-width: 1;
  stroke-dasharray: 3 3;
}
g:has(.tick:hover) > polygon {
  fill: #cfe0dc22;
}
circle {
  fill: #2b2420b0;
  stroke: #fff6ee;
  stroke-width: 1.4;
}
.on circle {
  fill: #1e6b6a;
}
.on polygon {
  stroke: #fff6ee;
  stroke-dasharray: none;
}
path {
  fill: none;
  stroke: #fff6ee;
  stroke-width: 1.8;
}
</style>
