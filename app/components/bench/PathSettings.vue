<script setup lang="ts">
import type { PathPiece } from '#core/card/schema'
import { useStage } from '~/stores/stage'

/** The points of a path are edited on the stage. */
defineProps<{ piece: PathPiece }>()
const stage = useStage()
</script>

<template>
  <button
    class="plain-button points"
    :aria-pressed="stage.editedPath === piece.id"
    @click="stage.editedPath = stage.editedPath === piece.id ? null : piece.id"
  >
    {{ stage.editedPath === piece.id ? 'Leave the points' : 'Edit the points' }}
  </button>
</template>

<style scoped>
.points {
  height: 26px;
  margin-bottom: 6px;
}
</style>
