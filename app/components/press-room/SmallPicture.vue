<script setup lang="ts">
import { computed } from 'vue'
import { backdropCss } from '~/composables/backdrops'
import type { RenderRow } from '~/stores/renders'

/** What a render shows, moving, over a backdrop. */
const props = defineProps<{
  row: Pick<RenderRow, 'id' | 'small' | 'status' | 'framesDone' | 'attempts'>
  backdrop: string
}>()

const ground = computed(() => backdropCss(props.backdrop, null))
const source = computed(() => {
  const { id, small, status, framesDone, attempts } = props.row
  if (!small) return null
  // Of one that goes on it is another one every moment.
  return `/api/renders/${id}/small?of=${status === 'done' ? 'all' : `${attempts}-${framesDone}`}`
})
</script>

<template>
  <span class="small" :class="ground.class" :style="{ background: ground.background }">
    <img v-if="source" :src="source" alt="" loading="lazy" decoding="async" />
  </span>
</template>

<style scoped>
.small {
  display: grid;
  place-items: center;
  width: 176px;
  height: 99px;
  overflow: hidden;
  border-radius: 5px;
}
img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
