<script setup lang="ts">
import { computed } from 'vue'
import { fittedTo } from '#core/card/links'
import type { Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { StageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import HandleLine from './HandleLine.vue'

/** What a selected shape fits, and what fits a selected piece: a line from the one to the other. */
const props = defineProps<{ hand: StageHand; piece: Piece }>()
const bench = useBench()
const boundsOf = (id: string) => props.hand.outlook().find((entry) => entry.id === id)?.bounds
const links = computed(() => {
  const from = allPieces(bench.card!.pieces).flatMap((other) => {
    const fits = fittedTo(other)
    if (other.id === props.piece.id) return fits.map((to) => [other.id, to] as const)
    return fits.includes(props.piece.id) ? [[other.id, props.piece.id] as const] : []
  })
  return from.flatMap(([a, b]) => {
    const [own, other] = [boundsOf(a), boundsOf(b)]
    if (!own || !other) return []
    // From the foot of what fits to the foot of what it fits, to the side of both so that it is seen.
    const x = Math.min(other.right, own.right)
    return [
      {
        key: `${a} ${b}`,
        from: props.hand.onScreen({ x, y: own.bottom }),
        to: props.hand.onScreen({ x, y: other.bottom }),
        frame: {
          a: props.hand.onScreen({ x: other.left, y: other.top }),
          b: props.hand.onScreen({ x: other.right, y: other.bottom }),
        },
      },
    ]
  })
})
</script>

<template>
  <g v-for="link in links" :key="link.key" class="fit" aria-hidden="true">
    <rect
      :x="link.frame.a.x"
      :y="link.frame.a.y"
      :width="link.frame.b.x - link.frame.a.x"
      :height="link.frame.b.y - link.frame.a.y"
    />
    <HandleLine :from="link.from" :to="link.to" />
    <circle :cx="link.to.x" :cy="link.to.y" r="3.5" />
  </g>
</template>

<style scoped>
.fit {
  pointer-events: none;
}
rect {
  fill: none;
  stroke: #8fd0c4;
  stroke-width: 1.2;
  stroke-dasharray: 2 3;
}
circle {
  fill: #1e6b6a;
  stroke: #fff6ee;
}
</style>
