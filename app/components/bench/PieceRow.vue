<script setup lang="ts">
import { shownIn } from '#core/card/links'
import { allPieces, holdsPieces } from '#core/card/tree'
import { mdiChevronDown, mdiChevronRight, mdiDotsHorizontal, mdiLockOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import { changePiece } from '#core/edit/stack'
import { PIECE_KINDS } from '#core/pieces/table'
import type { Piece } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { coatPaint } from '~/composables/coat-words'
import { familyOf } from '~/composables/entry-words'
import { paintCss } from '~/composables/paint-css'
import { useStackWork } from '~/composables/stack-work'
import { switchValue } from '#core/values/evaluated'
import { useMoment } from '~/composables/moment'
import { wordingAt } from '#core/card/wording'
import { useBench } from '~/stores/bench'
import { useClipboard } from '~/stores/clipboard'
import { useSeals } from '~/stores/seals'
import { useSequences } from '~/stores/sequences'
import { useStage } from '~/stores/stage'
import NameInput from '../fields/NameInput.vue'
import EyeButton from './EyeButton.vue'

const props = defineProps<{ piece: Piece; outlook: PieceOutlook[] }>()

const bench = useBench()
const { shown: moment } = useMoment(() => props.piece.id)
/** Whether it is switched on at the playhead. */
const there = computed(() => switchValue(props.piece.on, moment.value))
const clipboard = useClipboard()
const seals = useSeals()
const sequences = useSequences()
const stage = useStage()
const work = useStackWork()
const folded = computed(() => stage.folded.has(props.piece.id))
const naming = ref(false)
const dropping = ref(false)

const open = computed(() => bench.selectedPiece === props.piece.id)
const all = computed(() => work.together(props.piece))
const several = computed(() => all.value.length > 1)
/** The piece itself, or the one that a twin shows. */
const sampled = computed(() => {
  const { piece } = props
  const shown = piece.kind === 'twin' && allPieces(bench.card!.pieces).find(({ id }) => id === piece.source)
  return shown || piece
})
const paint = computed(() => {
  const { face } = sampled.value.coats
  const coat = face.find(({ kind, on }) => kind === 'fill' && on !== false) ?? face[0]
  const { value: one } = sampled
  if (one.kind === 'painting')
    return one.strokes.length > 0 ? `linear-gradient(${one.strokes.at(-1)!.colour} 0 0)` : 'none'
  if (one.kind === 'sequence' && one.sequence && sequences.known[one.sequence.id]?.ended)
    return `center / cover url(/api/sequences/${one.sequence.id}/pictures/${Math.floor(one.sequence.frames / 2)}?across=96)`
  if (one.kind === 'picture' && one.picture) return `center / cover url(/api/pictures/${one.picture}/file)`
  if (holdsPieces(one)) return 'linear-gradient(#fff6ee 0 0)'
  if (props.piece.kind === 'wash') return 'repeating-linear-gradient(-55deg, #fff6ee66 0 3px, #fff6ee22 3px 7px)'
  return coat ? paintCss(coatPaint(coat), moment.value) : 'none'
})
/** The first letters of type, how many pieces a group holds. */
const letters = computed(() => {
  const { value: piece } = sampled
  if (holdsPieces(piece)) return String(piece.pieces.length)
  return piece.kind === 'type' ? wordingAt(piece, moment.value).trim().slice(0, 2) : ''
})

/** A piece that is off and shown by others all the same: who shows it. */
const serving = computed(() => {
  if (there.value) return ''
  const by = allPieces(bench.card!.pieces).filter((other) => shownIn(other).includes(props.piece.id))
  return by.length > 0 ? `Not shown itself; it serves ${by.map(({ name }) => name).join(', ')}` : ''
})

/** Shift takes the rows between, Ctrl one more. */
function choose(event: MouseEvent) {
  if (event.ctrlKey || event.metaKey) bench.toggleSelected(props.piece.id)
  else if (event.shiftKey) bench.selectTo(props.piece.id)
  else bench.select(props.piece.id)
}

function rename(name: string) {
  if (name && name !== props.piece.name)
    bench.edit('Rename', (card) => changePiece(card, props.piece.id, { name: name.slice(0, 200) }))
}

/** A slab that is dropped on the row pours its coat on the piece as well. */
function drop(event: DragEvent) {
  dropping.value = false
  const coat = stage.draggedCoat
  if (!coat || open.value) return
  event.preventDefault()
  event.stopPropagation()
  // Opened, the other piece takes this list's place: not before the drag library has put its own things away.
  document.addEventListener('dragend', () => setTimeout(() => work.pasteCoats([props.piece], coat)), {
    once: true,
    capture: true,
  })
}
</script>

<template>
  <div
    class="piece"
    :class="{ chosen: bench.isSelected(piece.id), open, off: !there, dropping, veil: piece.kind === 'wash' }"
    @dragover="stage.draggedCoat && !open && ($event.preventDefault(), (dropping = true))"
    @dragleave="dropping = false"
    @drop="drop"
  >
    <NameInput
      v-if="naming"
      class="naming"
      :value="piece.name"
      :label="`Name of ${piece.name}`"
      @name="rename"
      @close="naming = false"
    />
    <button v-else class="body" :aria-expanded="open" @click="choose" @dblclick="naming = true">
      <span
        class="sample"
        :class="{ box: sampled.kind !== 'type' && !holdsPieces(sampled) }"
        :style="{ '--paint': paint }"
        aria-hidden="true"
      >
        <span>{{ letters }}</span>
      </span>
      <span class="name">{{ piece.name }}</span>
      <small v-if="!piece.locked" :title="serving">{{
        serving ? 'matte' : PIECE_KINDS[piece.kind].label.toLowerCase()
      }}</small>
    </button>
    <button
      v-if="holdsPieces(piece) && piece.pieces.length > 0"
      class="icon-button fold"
      :aria-expanded="!folded"
      :aria-label="folded ? `Show what lies in ${piece.name}` : `Fold ${piece.name}`"
      @click="stage.fold(piece.id)"
    >
      <VIcon :icon="folded ? mdiChevronRight : mdiChevronDown" size="16" />
    </button>
    <button
      v-if="piece.locked"
      class="icon-button lock"
      :aria-label="`Unlock ${piece.name}`"
      @click="work.setLocked([piece], false)"
    >
      <VIcon :icon="mdiLockOutline" size="15" />
    </button>
    <button class="more icon-button" :aria-label="`${piece.name}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact" class="tight">
          <VListItem v-if="!several" title="Rename" subtitle="Double-click" @click="naming = true" />
          <VListItem v-if="!several" title="See alone" @click="work.see(piece.id, null)" />
          <VListItem title="Duplicate" subtitle="Ctrl+D" @click="work.duplicatePieces(all)" />
          <VListItem :title="piece.locked ? 'Unlock' : 'Lock'" @click="work.setLocked(all, !piece.locked)" />
          <VListItem v-if="work.groupable(all)" title="Group" subtitle="Ctrl+G" @click="work.group(all, outlook)" />
          <VListItem v-if="holdsPieces(piece) && !several" title="Take apart" @click="work.ungroup(piece)" />
          <template v-if="piece.kind !== 'wash' && !several">
            <VListItem title="Make a twin" @click="work.twin(piece)" />
            <VDivider />
            <VListItem title="Freeze here" @click="work.freeze(piece)" />
            <VListItem title="Play backward" @click="work.reverse(piece)" />
            <VListItem title="Repeat to here" @click="work.repeat(piece)" />
          </template>
          <VListItem v-if="!several" title="Split here" @click="work.split(piece)" />
          <VDivider />
          <VListItem title="Press a seal…" @click="seals.pressing = all.map(({ id }) => id)" />
          <VListItem v-if="!several" title="Save as a seal…" @click="seals.saving = piece.id" />
          <VListItem v-if="!several" title="Copy the core" @click="work.copyCore(piece)" />
          <VListItem title="Paste the core" :disabled="!clipboard.stack" @click="work.pasteCores(all)" />
          <VListItem
            v-if="piece.kind !== 'wash'"
            title="Paste the coat"
            :disabled="!clipboard.coat"
            @click="work.pasteCoats(all)"
          />
          <VListItem
            v-if="clipboard.entry"
            :title="`Paste the ${familyOf(clipboard.entry)}`"
            @click="work.pasteEntryOn(all)"
          />
          <VListItem title="Clear the core" @click="work.clearCores(all)" />
          <VDivider />
          <VListItem title="Delete" @click="work.removePieces(all)" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="there" :label="piece.name" @toggle="work.setOn(all, !there)" />
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
.piece.chosen {
  background: var(--teal-soft);
}
.piece.veil {
  background: repeating-linear-gradient(
    -55deg,
    transparent 0 5px,
    color-mix(in srgb, var(--teal) 9%, transparent) 5px 9px
  );
}
.piece.veil.chosen {
  background-color: var(--teal-soft);
}
.piece.open {
  font-weight: 650;
}
.piece.off .body {
  opacity: 0.5;
}
.piece.dropping {
  box-shadow: inset 0 0 0 2px var(--teal);
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
.lock,
.fold {
  width: 24px;
}
.more {
  width: 24px;
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
