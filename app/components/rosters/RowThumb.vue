<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { computed, toRef, useTemplateRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { Rect } from '#core/units'
import { zonesOf } from '#core/time/held'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'
import { THUMB } from './grid-columns'

/** A small picture of a row, which plays under the pointer. It is made when it is seen. */
const props = defineProps<{ name: string; card: Card; crop: Rect }>()

const box = useTemplateRef<HTMLElement>('box')
const near = useElementVisibility(box)

const scale = computed(() => THUMB.width / (props.crop.right - props.crop.left))
const size = computed(() => ({
  width: props.card.frame.width * scale.value,
  height: props.card.frame.height * scale.value,
}))
/** From the middle of its hold, where all of it stands. */
const still = computed(() => {
  const zones = zonesOf(props.card)
  return zones ? Math.floor((zones.hold + zones.out) / 2) : Math.floor(props.card.length / 2)
})
const { picture, playing } = useThumbnail(
  props.name,
  toRef(() => props.card),
  () => size.value.width,
  near,
  () => still.value,
)
</script>

<template>
  <span
    ref="box"
    class="thumb"
    :style="{ width: `${THUMB.width}px`, height: `${THUMB.height}px` }"
    @pointerenter="playing = true"
    @pointerleave="playing = false"
  >
    <StagePicture
      class="picture"
      :bitmap="picture"
      v-bind="size"
      :style="{ left: `${-crop.left * scale}px`, top: `${-crop.top * scale}px` }"
    />
  </span>
</template>

<style scoped>
.picture {
  position: absolute;
}
.thumb {
  position: relative;
  display: block;
  overflow: hidden;
  background: radial-gradient(90% 80% at 50% 40%, #4b4650, #2c2831);
  border-radius: 4px;
}
</style>
