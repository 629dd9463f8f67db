<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'
import { changePiece, duplicatePiece, pasteCore, removePiece } from '#core/card/edit/stack'
import { PIECE_KINDS } from '#core/card/pieces'
import type { Piece } from '#core/card/schema'
import { coatPaint } from '~/composables/coat-words'
import { paintCss } from '~/composables/paint-css'
import { useBench } from '~/stores/bench'
import { useClipboard } from '~/stores/clipboard'
import { useRibbon } from '~/stores/ribbon'
import EyeButton from './EyeButton.vue'

const props = defineProps<{ piece: Piece; open: boolean }>()

const bench = useBench()
const clipboard = useClipboard()
const ribbon = useRibbon()
const naming = ref(false)
const field = ref<HTMLInputElement>()

const paint = computed(() => {
  const coat = props.piece.coats.face.find(({ kind, on }) => kind === 'fill' && on) ?? props.piece.coats.face[0]
  if (props.piece.kind === 'group') return 'linear-gradient(#fff6ee 0 0)'
  return coat ? paintCss(coatPaint(coat), { frame: ribbon.frame, length: bench.card!.length }) : 'none'
})
/** The first letters of type, how many pieces a group holds. */
const letters = computed(() => {
  if (props.piece.kind === 'group') return String(props.piece.pieces.length)
  return props.piece.kind === 'type' ? props.piece.wording.trim().slice(0, 2) : ''
})

async function startNaming() {
  naming.value = true
  await nextTick()
  field.value?.select()
}

function rename() {
  const name = field.value?.value.trim()
  naming.value = false
  if (name && name !== props.piece.name)
    bench.edit('Rename', (card) => changePiece(card, props.piece.id, { name: name.slice(0, 200) }))
}

function toggle() {
  const { id, name, on } = props.piece
  bench.edit(`${name} ${on ? 'off' : 'on'}`, (card) => changePiece(card, id, { on: !on }))
}

function duplicate() {
  let made = ''
  bench.edit(`Duplicate ${props.piece.name}`, (card) => {
    const copied = duplicatePiece(card, props.piece.id)
    made = copied.id
    return copied.card
  })
  bench.select(made)
}

const remove = () => bench.edit(`Delete ${props.piece.name}`, (card) => removePiece(card, props.piece.id))
const paste = () => bench.edit('Paste the core', (card) => pasteCore(card, props.piece.id, clipboard.core!))
</script>

<template>
  <div class="piece" :class="{ open, off: !piece.on }">
    <input
      v-if="naming"
      ref="field"
      class="naming"
      :value="piece.name"
      :aria-label="`Name of ${piece.name}`"
      @keydown.enter="rename"
      @keydown.escape="naming = false"
      @blur="rename"
    />
    <button v-else class="body" :aria-expanded="open" @click="bench.select(piece.id)" @dblclick="startNaming">
      <span
        class="sample"
        :class="{ box: piece.kind !== 'type' && piece.kind !== 'group' }"
        :style="{ '--paint': paint }"
        aria-hidden="true"
      >
        <span>{{ letters }}</span>
      </span>
      <span class="name">{{ piece.name }}</span>
      <small>{{ PIECE_KINDS[piece.kind].label.toLowerCase() }}</small>
    </button>
    <button class="more icon-button" :aria-label="`${piece.name}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="Rename" @click="startNaming" />
          <VListItem title="Duplicate" @click="duplicate" />
          <VListItem title="Copy the core" @click="clipboard.core = piece.coats" />
          <VListItem title="Paste the core" :disabled="!clipboard.core" @click="paste" />
          <VListItem title="Delete" @click="remove" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="piece.on" :label="piece.name" @toggle="toggle" />
  </div>
</template>

<style scoped>
.piece {
  display: flex;
  align-items: center;
  height: 34px;
  padding-right: 8px;
  border-top: 1px solid var(--line);
}
.piece.open {
  font-weight: 650;
  background: var(--teal-soft);
}
.piece.off .body {
  opacity: 0.5;
}
.body {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  height: 100%;
  min-width: 0;
  padding: 0 4px 0 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
}
.sample {
  display: grid;
  flex: none;
  place-items: center;
  width: 34px;
  height: 22px;
  overflow: hidden;
  background: #3b3f46;
  border-radius: 4px;
}
.sample span {
  font-size: 14px;
  font-weight: 800;
  color: transparent;
  background: var(--paint);
  background-clip: text;
}
.sample.box {
  background: var(--paint), #3b3f46;
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
small {
  font-weight: 400;
  color: var(--ink-2);
}
.more {
  width: 20px;
  opacity: 0;
}
.piece:hover .more,
.piece:focus-within .more {
  opacity: 1;
}
.naming {
  flex: 1;
  height: 24px;
  padding: 0 6px;
  margin: 0 8px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--teal);
  border-radius: 5px;
}
</style>
