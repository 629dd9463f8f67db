<script setup lang="ts">
import { useElementSize, useElementVisibility } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { cardFrom } from '#core/starting-points/make'
import type { StartingPoint } from '#core/starting-points/definition'
import { START_KINDS } from '#core/starting-points/definition'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'
import type { FrameChoice } from './frame-sizes'
import { rateOf } from './frame-sizes'

const props = defineProps<{ start: StartingPoint; frame: FrameChoice }>()
defineEmits<{ pick: [] }>()

/** Neither dark nor bright, so that every design is seen. */
const GROUND = 'radial-gradient(90% 80% at 50% 40%, #9aa3a8, #66707a)'
const tile = useTemplateRef<HTMLElement>('tile')
const { width: wide } = useElementSize(useTemplateRef<HTMLElement>('room'))
const seen = useElementVisibility(tile, { rootMargin: '200px', once: true })
const near = computed(() => seen.value && wide.value > 0)
const card = computed(() => cardFrom(props.start, props.start.label, { ...props.frame, rate: rateOf(props.frame) }))
/** The picture as large as it goes into the tile. */
const size = computed(() => {
  const { width, height } = props.frame
  const fit = Math.min(wide.value / width, (wide.value * 9) / 16 / height)
  return { width: width * fit, height: height * fit }
})
const { picture, playing, progress } = useThumbnail(
  `start-${props.start.id}`,
  card,
  () => size.value.width,
  near,
  () => Math.round(((card.value.zones?.hold ?? 0) + (card.value.zones?.out ?? card.value.length)) / 2),
)
</script>

<template>
  <button
    ref="tile"
    type="button"
    class="tile"
    :aria-label="`${start.label}: ${start.tells}`"
    @pointerenter="playing = true"
    @pointerleave="playing = false"
    @focus="playing = true"
    @blur="playing = false"
    @click="$emit('pick')"
  >
    <span ref="room" class="room">
      <span class="frame" :style="{ width: `${size.width}px`, height: `${size.height}px`, background: GROUND }">
        <StagePicture :bitmap="picture" v-bind="size" />
      </span>
      <span class="progress" :style="{ width: `${progress * 100}%` }" />
    </span>
    <span class="about"
      ><b>{{ start.label }}</b
      ><span class="quiet">{{ START_KINDS[start.kind].toLowerCase() }}, {{ start.character }}</span></span
    >
  </button>
</template>

<style scoped>
.tile {
  display: grid;
  gap: 4px;
  padding: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 8px;
}
.room {
  position: relative;
  display: grid;
  place-items: center;
  aspect-ratio: 16 / 9;
  overflow: hidden;
  background: #57565a;
  border-radius: 8px;
}
.tile:hover .room,
.tile:focus-visible .room {
  box-shadow: 0 0 0 2px var(--teal);
}
.progress {
  position: absolute;
  bottom: 0;
  left: 0;
  height: 3px;
  background: var(--wax);
}
.about {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  padding: 0 2px;
}
.quiet {
  font-size: 12px;
}
</style>
