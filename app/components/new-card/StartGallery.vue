<script setup lang="ts">
import { computed } from 'vue'
import type { StartingPoint, StartKind } from '#core/starting-points/definition'
import { STARTING_POINTS } from '#core/starting-points/table'
import type { FrameChoice } from './frame-sizes'
import StartTile from './StartTile.vue'

/** Whole designs; they play under the pointer. */
const props = defineProps<{ frame: FrameChoice; kind: StartKind | 'all' }>()
defineEmits<{ pick: [start: StartingPoint] }>()

const starts = computed(() => STARTING_POINTS.filter(({ kind }) => props.kind === 'all' || props.kind === kind))
/** Every tile is made anew for another frame: its pictures have another form. */
const form = computed(() => `${props.frame.width}×${props.frame.height} ${props.frame.rate}`)
</script>

<template>
  <div class="tiles">
    <StartTile
      v-for="start in starts"
      :key="`${start.id} ${form}`"
      :start="start"
      :frame="frame"
      @pick="$emit('pick', start)"
    />
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  gap: 14px;
}
</style>
