<script setup lang="ts">
import { computed, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'

/** A sample of help, made by the engine; one that moves plays under the pointer. */
const props = defineProps<{ name: string; card: Card; plays: boolean; label: string; near: boolean }>()
const WIDTH = 232
const HEIGHT = Math.round((WIDTH * 9) / 16)
const card = shallowRef(props.card)
const near = computed(() => props.near)
const { picture, playing } = useThumbnail(`help-${props.name}`, card, WIDTH, near, () =>
  props.plays ? Math.floor(props.card.length / 3) : 0,
)
const play = (on: boolean) => (playing.value = on && props.plays)
</script>

<template>
  <figure @pointerenter="play(true)" @pointerleave="play(false)">
    <StagePicture
      :bitmap="picture"
      :width="WIDTH"
      :height="HEIGHT"
      :class="{ clear: props.card.background === null }"
    />
    <figcaption class="quiet">{{ label }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figure canvas {
  border-radius: 6px;
}
.clear {
  background: repeating-conic-gradient(#8a8a8a 0 25%, #747474 0 50%) 0 0 / 16px 16px;
}
figcaption {
  padding-top: 2px;
  font-size: 12px;
}
</style>
