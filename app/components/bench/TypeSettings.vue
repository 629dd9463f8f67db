<script setup lang="ts">
import { ref } from 'vue'
import { changePiece } from '#core/card/edit/stack'
import type { Piece, TypePiece } from '#core/card/schema'
import { faultOf } from '~/composables/api'
import { useBench } from '~/stores/bench'
import { showSample, useFonts } from '~/stores/fonts'
import { useNotices } from '~/stores/notices'

const props = defineProps<{ piece: TypePiece }>()
const bench = useBench()
const fonts = useFonts()
const notices = useNotices()
const file = ref<HTMLInputElement>()

function write(wording: string) {
  bench.edit(
    'Wording',
    (card) => changePiece(card, props.piece.id, { wording: wording.slice(0, 2000) } as Partial<Piece>),
    `${props.piece.id}/wording`,
  )
}

function choose(font: string | null) {
  if (font) bench.edit('Font', (card) => changePiece(card, props.piece.id, { font } as Partial<Piece>))
}

async function bringIn(event: Event) {
  const input = event.target as HTMLInputElement
  const [chosen] = input.files ?? []
  input.value = ''
  if (!chosen) return
  try {
    choose(await fonts.bringIn(chosen))
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

function showAll(open: boolean) {
  if (open) for (const { id } of fonts.choices) showSample(id)
}
</script>

<template>
  <div class="type">
    <textarea
      :value="piece.wording"
      rows="2"
      aria-label="Wording"
      placeholder="Your words"
      @input="write(($event.target as HTMLTextAreaElement).value)"
      @change="bench.settle()"
    />
    <div class="font">
      <VAutocomplete
        :model-value="piece.font"
        :items="fonts.choices"
        item-value="id"
        item-title="title"
        label="Font"
        aria-label="Font"
        auto-select-first
        @update:model-value="choose"
        @update:menu="showAll"
      >
        <template #item="{ props: item, item: choice }">
          <VListItem v-bind="item" :title="undefined" density="compact">
            <span class="sample" :style="{ fontFamily: choice.css }">{{ choice.title }}</span>
            <small>{{ choice.kind }}</small>
          </VListItem>
        </template>
      </VAutocomplete>
      <button class="plain-button" @click="file?.click()">
        Bring in…
        <VTooltip activator="parent" text="A font file of your own: TTF, OTF, WOFF or WOFF2, up to 30 MB" />
      </button>
      <input ref="file" type="file" accept=".ttf,.otf,.woff,.woff2" hidden data-test="font-file" @change="bringIn" />
    </div>
  </div>
</template>

<style scoped>
.type {
  display: grid;
  gap: 10px;
  padding-bottom: 8px;
}
textarea {
  padding: 7px 9px;
  font: inherit;
  font-size: 14px;
  color: inherit;
  resize: vertical;
  background: var(--raised);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
}
textarea:focus {
  border-color: var(--teal);
  outline: 0;
}
.font {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  align-items: center;
}
.font .plain-button {
  height: 40px;
}
.sample {
  font-size: 18px;
}
small {
  float: right;
  color: var(--ink-2);
}
</style>
