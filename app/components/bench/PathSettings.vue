<script setup lang="ts">
import { changePiece } from '#core/card/edit/stack'
import type { PathPiece, Piece } from '#core/card/schema'
import { WaxError } from '#core/errors'
import { readPathData } from '#core/formats/svg-path'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'

const props = defineProps<{ piece: PathPiece }>()
const bench = useBench()
const notices = useNotices()

function write(event: Event) {
  const input = event.target as HTMLTextAreaElement
  const path = input.value.trim()
  try {
    readPathData(path, props.piece.name)
    bench.edit('Path', (card) => changePiece(card, props.piece.id, { path } as Partial<Piece>))
  } catch (error) {
    input.value = props.piece.path
    if (error instanceof WaxError) notices.fault(error.fault)
  }
}
</script>

<template>
  <label class="path">
    Path, as SVG path data around its place
    <textarea :value="piece.path" rows="4" spellcheck="false" aria-label="Path data" @change="write" />
  </label>
</template>

<style scoped>
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
