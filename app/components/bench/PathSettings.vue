<script setup lang="ts">
import { computed } from 'vue'
import { writeValue } from '#core/edit/values'
import { PATH_PARAMETERS } from '#core/pieces/path'
import { valueAt } from '#core/values/evaluated'
import type { PathPiece } from '#core/card/schema'
import { WaxError } from '#core/errors'
import { readPathData } from '#core/outline/svg-path'
import { useRibbon } from '~/stores/ribbon'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useStage } from '~/stores/stage'
import KeyOf from '../fields/KeyOf.vue'

const props = defineProps<{ piece: PathPiece }>()
const bench = useBench()
const notices = useNotices()
const ribbon = useRibbon()
const stage = useStage()
const { base } = useMoment(() => props.piece.id)
const shown = computed(() => valueAt(PATH_PARAMETERS.path, props.piece.path, base.value) as string)

function write(event: Event) {
  const input = event.target as HTMLTextAreaElement
  const path = input.value.trim()
  try {
    readPathData(path, props.piece.name)
    bench.edit('Path', (card) => writeValue(card, `${props.piece.id}/path`, ribbon.frame, path))
  } catch (error) {
    input.value = shown.value
    if (error instanceof WaxError) notices.fault(error.fault)
  }
}
</script>

<template>
  <button
    class="plain-button points"
    :aria-pressed="stage.editedPath === piece.id"
    @click="stage.editedPath = stage.editedPath === piece.id ? null : piece.id"
  >
    {{ stage.editedPath === piece.id ? 'Leave the points' : 'Edit the points' }}
  </button>
  <label class="path">
    <span>Path, as SVG path data around its place <KeyOf :address="`${piece.id}/path`" /></span>
    <textarea :value="shown" rows="4" spellcheck="false" aria-label="Path data" @change="write" />
  </label>
</template>

<style scoped>
.points {
  height: 26px;
  margin-bottom: 6px;
}
span {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.path {
  display: grid;
  gap: 3px;
  padding-bottom: 6px;
  color: var(--ink-2);
}
textarea {
  padding: 6px 8px;
  font:
    12px/1.4 ui-monospace,
    monospace;
  color: var(--ink);
  resize: vertical;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
</style>
