<script setup lang="ts">
import { computed, ref } from 'vue'
import { addPiece } from '#core/edit/stack'
import type { PieceKind } from '#core/pieces/table'
import { PIECE_KINDS } from '#core/pieces/table'
import type { PieceOutlook } from '#core/frame/outlook'
import type { ExampleFile } from '#core/formats/examples'
import { EXAMPLES } from '#core/formats/examples'
import { attempt } from '~/composables/attempt'
import { exampleFile } from '~/composables/example-files'
import { chosenFiles } from '~/composables/chosen-file'
import { useBringFiles } from '~/composables/bring-files'
import { useStackWork } from '~/composables/stack-work'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import type { DrawnKind } from '~/stores/stage'
import { useStage } from '~/stores/stage'
import PieceKindIcon from './PieceKindIcon.vue'
import PieceList from './PieceList.vue'

defineProps<{ outlook: PieceOutlook[] }>()
const bench = useBench()
const stage = useStage()
const brush = useBrush()
const pieces = computed(() => bench.card?.pieces ?? [])
const kinds = Object.entries(PIECE_KINDS) as [PieceKind, (typeof PIECE_KINDS)[PieceKind]][]
const open = ref(false)
const file = ref<HTMLInputElement>()
const { bringIn } = useBringFiles()
const work = useStackWork()
const isDrawn = (kind: PieceKind): kind is Exclude<DrawnKind, 'freehand' | 'mask'> =>
  !['type', 'group', 'twin', 'painting', 'picture', 'sequence', 'wash'].includes(kind)

function add(kind: PieceKind) {
  open.value = false
  // A twin of what is selected.
  if (kind === 'twin' && bench.piece && bench.piece.kind !== 'wash') return work.twin(bench.piece)
  let made = ''
  bench.edit(`Add ${kind}`, (card) => {
    const added = addPiece(card, kind)
    made = added.id
    return added.card
  })
  bench.select(made)
  // A new painting is there to be painted, new type to be written.
  if (kind === 'painting') brush.taken = true
  toBeWritten = kind === 'type'
}

let toBeWritten = false
/** The menu gives the keyboard back to its button first. */
function write() {
  if (!toBeWritten) return
  toBeWritten = false
  document.querySelector<HTMLTextAreaElement>('.settings [aria-label=Wording]')?.select()
}

function bring(event: Event) {
  open.value = false
  void bringIn(chosenFiles(event))
}

const EXAMPLES_HERE = EXAMPLES.filter(({ at }) => at === 'bench')
const tryOne = (example: ExampleFile) =>
  attempt(async () => {
    open.value = false
    await bringIn([await exampleFile(example)])
  })

function draw(kind: DrawnKind) {
  open.value = false
  stage.drawing = kind
}
</script>

<template>
  <aside class="stack" aria-label="Stack">
    <div class="head">
      <button class="panel-title card-button" @click="bench.select(null)">Stack, front to back</button>
      <button class="plain-button add">
        Add a piece
        <VMenu v-model="open" activator="parent" location="bottom end" @after-leave="write">
          <div class="sheet" role="menu" aria-label="Add a piece">
            <template v-for="[kind, { label, help }] in kinds" :key="kind">
              <button class="kind" role="menuitem" @click="add(kind)">
                <PieceKindIcon :kind="kind" />
                <span>
                  {{ label }}<small class="quiet">{{ help }}</small>
                </span>
              </button>
              <button
                v-if="isDrawn(kind)"
                class="plain-button draw"
                role="menuitem"
                :aria-label="`Draw ${label.toLowerCase()}`"
                @click="draw(kind)"
              >
                Draw
                <VTooltip activator="parent" text="Draw it on the stage" location="right" />
              </button>
              <span v-else />
              <template v-if="kind === 'path'">
                <button class="kind" role="menuitem" aria-label="Draw freehand" @click="draw('freehand')">
                  <PieceKindIcon kind="freehand" />
                  <span>Freehand<small class="quiet">Drawn in one go, its pressure kept</small></span>
                </button>
                <span />
              </template>
            </template>
            <button class="kind" role="menuitem" @click="file?.click()">
              <PieceKindIcon kind="files" />
              <span
                >Files…<small class="quiet">Pictures, sequences, SVG as paths; or drop them on the stage</small></span
              >
            </button>
            <span />
            <div class="examples" role="none">
              <small class="quiet">Try</small>
              <button
                v-for="example in EXAMPLES_HERE"
                :key="example.name"
                role="menuitem"
                :title="example.label"
                @click="tryOne(example)"
              >
                {{ example.name }}
              </button>
            </div>
          </div>
        </VMenu>
      </button>
    </div>
    <input
      ref="file"
      type="file"
      accept="image/*,video/*,.svg,.apng,.mov,.mkv,.zip"
      multiple
      hidden
      data-test="piece-file"
      @change="bring"
    />
    <div class="list">
      <PieceList :pieces="pieces" :group="null" :outlook="outlook" />
      <p v-if="pieces.length === 0" class="empty">
        The card is empty. Add a piece of type, choose its font, then pour coats on it.
      </p>
    </div>
  </aside>
</template>

<style scoped>
.stack {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--line);
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 8px 10px;
}
.examples {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 0 10px 4px 46px;
}
.examples button {
  min-height: 24px;
  padding: 0 2px;
  font: inherit;
  font-size: 12px;
  color: var(--teal);
  cursor: pointer;
  background: none;
  border: 0;
}
.card-button {
  padding: 0;
  font-family: inherit;
  cursor: pointer;
  background: none;
  border: 0;
}
.add {
  height: 26px;
  padding: 0 9px;
}
.sheet {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 6px;
  align-items: center;
  padding: 8px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  box-shadow: var(--float);
}
.kind {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 10px 6px 6px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 6px;
}
.kind:hover,
.kind:focus-visible {
  background: var(--teal-soft);
}
.draw {
  height: 26px;
  padding: 0 9px;
}
.kind small {
  display: block;
  font-size: 12px;
}
.list {
  flex: 1;
  min-height: 0;
  overflow: auto;
  border-bottom: 1px solid var(--line);
}
.empty {
  padding: 16px 12px;
  color: var(--ink-2);
}
</style>
