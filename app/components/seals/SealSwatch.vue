<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { createCard } from '#core/card/create'
import { sampleCard } from '#core/seals/press'
import type { SealVariant } from '#core/seals/schema'
import { useThumbnail } from '~/composables/thumbnail'
import StagePicture from '../bench/stage/StagePicture.vue'

/** A variant of a seal on a sample word, rendered by the engine. */
const props = defineProps<{ id: string; variant: SealVariant; word?: string; light?: boolean }>()

const [WIDTH, HEIGHT] = [320, 180]
const blank = createCard('Sample', {
  width: WIDTH,
  height: HEIGHT,
  rate: { numerator: 25, denominator: 1 },
  length: 1,
})
const card = computed(() => sampleCard(blank, props.variant, props.word))
const swatch = useTemplateRef<HTMLElement>('swatch')
const near = useElementVisibility(swatch, { rootMargin: '200px' })
const { picture } = useThumbnail(`seal-${props.id}`, card, WIDTH, near)
</script>

<template>
  <span ref="swatch" class="swatch" :class="{ light }">
    <StagePicture :bitmap="picture" :width="WIDTH" :height="HEIGHT" fluid />
  </span>
</template>

<style scoped>
.swatch {
  display: block;
  aspect-ratio: 16 / 9;
  overflow: hidden;
  background: radial-gradient(120% 120% at 30% 20%, #4a4450, #2a2630);
}
.light {
  background: radial-gradient(120% 120% at 30% 20%, #f4f1ea, #cfc8bb);
}
</style>
