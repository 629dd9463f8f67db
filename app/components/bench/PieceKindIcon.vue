<script setup lang="ts">
import type { PieceKind } from '#core/pieces/table'

/** A small picture of a kind of piece, and of other ways to get one. */
defineProps<{ kind: PieceKind | 'freehand' | 'files' }>()
const FORMS: Record<PieceKind | 'freehand' | 'files', string> = {
  type: 'M5 5h16v4M5 5v4M13 5v16M10 21h6',
  box: 'M4 7a2 2 0 0 1 2-2h14a2 2 0 0 1 2 2v12a2 2 0 0 1-2 2H6a2 2 0 0 1-2-2z',
  ellipse: 'M3 13a10 8 0 1 0 20 0a10 8 0 1 0-20 0z',
  polygon: 'M13 3l3 6.4 7 .8-5.2 4.7 1.5 6.9L13 18.2 6.7 21.8l1.5-6.9L3 10.2l7-.8z',
  line: 'M4 20L22 6',
  path: 'M3 19C7 4 12 4 13 13s6 9 10-6',
  painting: 'M4 20c3 2 6 1 6-2s-3-3-4-1-1 3-2 3zM10 16L21 4l2 2L12 18',
  sequence: 'M3 5h20v16H3zM8 5v16M18 5v16M3 9.5h5M3 16.5h5M18 9.5h5M18 16.5h5',
  group: 'M3 9V4h5M18 4h5v5M23 17v5h-5M8 22H3v-5M8 9h7v6H8zM12 12h7v6h-7z',
  twin: 'M10 9h12v12H10zM16 6V4H4v12h3',
  wash: 'M4 6c3-3 6 3 9 0s6 3 9 0M4 13c3-3 6 3 9 0s6 3 9 0M4 20c3-3 6 3 9 0s6 3 9 0',
  freehand: 'M3 21c2-8 6-14 7-11s-4 10-1 10 5-8 7-7-2 5 0 6 4-2 7-5',
  files: 'M3 7v13h20V9H13l-2-3H3zM13 12v5M10.5 14.5h5',
  picture: 'M3 5h20v16H3zM3 17l6-6 5 5 3-3 6 6M17 10a1.5 1.5 0 1 0 0-.1z',
}
</script>

<template>
  <svg viewBox="0 0 26 26" width="26" height="26" aria-hidden="true"><path :d="FORMS[kind]" /></svg>
</template>

<style scoped>
path {
  fill: none;
  stroke: currentcolor;
  stroke-linecap: round;
  stroke-linejoin: round;
  stroke-width: 1.7;
}
</style>
