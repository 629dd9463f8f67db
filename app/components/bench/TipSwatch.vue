<script setup lang="ts">
import { computed } from 'vue'
import { USUAL } from '#core/brushes/definition'
import type { TipDefinition } from '#core/brushes/definition'
import type { BrushStroke } from '#core/brushes/stroke'
import { createCard, createPiece } from '#core/card/create'
import type { PaintingPiece } from '#core/card/schema'
import { useThumbnail } from '~/composables/thumbnail'
import StagePicture from './stage/StagePicture.vue'

/** A stroke of a tip, as the engine paints it. */
const props = defineProps<{ tip: TipDefinition }>()
const [WIDTH, HEIGHT] = [160, 56]
const RATE = { numerator: 25, denominator: 1 }

/** A wave that is pressed hardest in its middle. */
const points = Array.from({ length: 40 }, (_, i) => {
  const t = i / 39
  return [22 + t * (WIDTH - 44), HEIGHT / 2 + 9 * Math.sin(t * 5.6), 0.3 + 0.7 * Math.sin(t * Math.PI)]
}).flat()

const card = computed(() => {
  const blank = createCard('Tip', { width: WIDTH, height: HEIGHT, rate: RATE, length: 1 })
  const stroke: BrushStroke = {
    ...{ id: 'stroke', tip: props.tip.kind, erase: false, colour: '#2B2420', size: 26, seed: 3 },
    ...{ ...USUAL, ...props.tip.starts, points },
  }
  const painting = { ...(createPiece('painting', blank) as PaintingPiece), x: 0, y: 0, strokes: [stroke] }
  return { ...blank, pieces: [painting] }
})
const { picture } = useThumbnail(`tip-${props.tip.kind}`, card, WIDTH)
</script>

<template>
  <StagePicture class="tip" :bitmap="picture" :width="WIDTH" :height="HEIGHT" fluid />
</template>
