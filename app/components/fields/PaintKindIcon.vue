<script setup lang="ts">
import { computed } from 'vue'
import type { StoredPaint } from '#core/values/moving'

const props = defineProps<{ type: StoredPaint['type'] }>()

/** Small pictures of the kinds, in the ink of the page. */
const GROUNDS: Record<StoredPaint['type'], string> = {
  solid: 'linear-gradient(currentcolor 0 0)',
  linear: 'linear-gradient(90deg, currentcolor, transparent)',
  radial: 'radial-gradient(circle, currentcolor 15%, transparent 75%)',
  conic: 'conic-gradient(from 90deg, currentcolor, transparent)',
  edge: 'radial-gradient(closest-side, transparent 45%, currentcolor)',
  texture: 'repeating-linear-gradient(45deg, currentcolor 0 2px, transparent 2px 5px)',
}
const ground = computed(() => GROUNDS[props.type])
</script>

<template>
  <span class="icon" :style="{ background: ground }" aria-hidden="true" />
</template>

<style scoped>
.icon {
  width: 18px;
  height: 16px;
  border: 1px solid currentcolor;
  border-radius: 4px;
}
</style>
