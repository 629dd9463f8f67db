<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { computed, ref, toRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { zonesOf } from '#core/time/held'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'

/** A small picture of a row, which plays under the pointer. It is made when it is seen. */
const props = defineProps<{ name: string; card: Card; height: number }>()

const box = useTemplateRef<HTMLElement>('box')
const visible = useElementVisibility(box)
const near = ref(false)
watch(visible, (now) => (near.value ||= now), { immediate: true })

const width = computed(() => Math.round((props.height * props.card.frame.width) / props.card.frame.height))
/** From the middle of its hold, where all of it stands. */
const still = computed(() => {
  const zones = zonesOf(props.card)
  return zones ? Math.floor((zones.hold + zones.out) / 2) : Math.floor(props.card.length / 2)
})
const { picture, playing } = useThumbnail(
  props.name,
  toRef(() => props.card),
  width.value,
  near,
  () => still.value,
)
</script>

<template>
  <span
    ref="box"
    class="thumb"
    :style="{ width: `${width}px`, height: `${height}px` }"
    @pointerenter="playing = true"
    @pointerleave="playing = false"
  >
    <StagePicture :bitmap="picture" :width="width" :height="height" />
  </span>
</template>

<style scoped>
.thumb {
  display: block;
  overflow: hidden;
  background: radial-gradient(90% 80% at 50% 40%, #4b4650, #2c2831);
  border-radius: 4px;
}
</style>
