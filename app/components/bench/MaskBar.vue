<script setup lang="ts">
import { mdiDraw } from '@mdi/js'
import type { Mask } from '#core/card/schema'
import { useStage } from '~/stores/stage'

/** How a mask is looked at on the stage; the area of a path is drawn there by hand. */
defineProps<{ mask: Mask }>()
const stage = useStage()
const VIEWS = [
  { id: 'off', label: 'Not shown', help: 'The stage shows what comes out' },
  { id: 'hatched', label: 'Hatched', help: 'What the mask covers is hatched over the picture' },
  { id: 'alone', label: 'Alone', help: 'What the mask covers, white on black' },
] as const
</script>

<template>
  <div class="bar">
    <div class="views" role="radiogroup" aria-label="Mask on the stage">
      <button
        v-for="{ id, label, help } in VIEWS"
        :key="id"
        class="plain-button"
        role="radio"
        :aria-checked="stage.maskView === id"
        :title="help"
        @click="stage.maskView = id"
      >
        {{ label }}
      </button>
    </div>
    <button
      v-if="mask.kind === 'path'"
      class="plain-button"
      :aria-pressed="stage.drawing === 'mask'"
      title="Drag around an area on the stage: its edge is fitted to few points"
      @click="stage.drawing = stage.drawing === 'mask' ? null : 'mask'"
    >
      <VIcon :icon="mdiDraw" size="15" /> Draw it
    </button>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 6px;
  justify-content: space-between;
  margin-bottom: 8px;
}
.views {
  display: flex;
}
.bar button {
  height: 26px;
  padding: 0 8px;
  font-size: 12px;
}
.views button {
  border-radius: 0;
}
.views button:first-child {
  border-radius: 6px 0 0 6px;
}
.views button:last-child {
  border-radius: 0 6px 6px 0;
}
.views button + button {
  margin-left: -1px;
}
[aria-checked='true'],
[aria-pressed='true'] {
  color: var(--wax-ink);
  background: var(--teal);
  border-color: var(--teal);
}
</style>
