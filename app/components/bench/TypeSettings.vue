<script setup lang="ts">
import { computed, ref } from 'vue'
import { changePiece } from '#core/edit/stack'
import type { Piece, TypePiece } from '#core/card/schema'
import type { ExampleFile } from '#core/formats/examples'
import { EXAMPLES } from '#core/formats/examples'
import { attempt } from '~/composables/attempt'
import { exampleFile } from '~/composables/example-files'
import { withChosenFile } from '~/composables/chosen-file'
import { useRibbon } from '~/stores/ribbon'
import { useMoment } from '~/composables/moment'
import { TYPE_PARAMETERS } from '#core/pieces/type'
import { valueAt } from '#core/values/evaluated'
import { typePieces } from '#core/time/ring'
import { wordsFrom } from '#core/card/wording'
import { writeWording } from '#core/edit/wording'
import { useBench } from '~/stores/bench'
import { showSample, useFonts } from '~/stores/fonts'
import FieldMark from '../fields/FieldMark.vue'
import KeyOf from '../fields/KeyOf.vue'

const props = defineProps<{ piece: TypePiece }>()
const bench = useBench()
const ribbon = useRibbon()
const fonts = useFonts()
const file = ref<HTMLInputElement>()

const { base } = useMoment(() => props.piece.id)
/** The piece whose words are shown and written: itself, or the one that it is linked to. */
const pieces = computed(() => typePieces(bench.card!))
const source = computed(() => wordsFrom(props.piece, (id) => pieces.value.get(id)))
const wording = computed(() => valueAt(TYPE_PARAMETERS.wording, source.value.wording, base.value) as string)
const others = computed(() => [...pieces.value.values()].filter(({ id }) => id !== props.piece.id))

function link(to: string) {
  bench.edit('Words', (card) => changePiece(card, props.piece.id, { linked: to || null } as Partial<Piece>))
}

function write(words: string) {
  bench.edit(
    'Wording',
    (card) => writeWording(card, source.value.id, ribbon.frame, words.slice(0, 2000)),
    `${props.piece.id}/wording`,
  )
}

function choose(font: string | null) {
  if (font) bench.edit('Font', (card) => changePiece(card, props.piece.id, { font } as Partial<Piece>))
}

const bringIn = (event: Event) => withChosenFile(event, async (chosen) => choose(await fonts.bringIn(chosen)))

const examples = EXAMPLES.filter(({ at }) => at === 'font')
const bringExample = (example: ExampleFile) =>
  attempt(async () => choose(await fonts.bringIn(await exampleFile(example))))

function showAll(open: boolean) {
  if (open) for (const { id } of fonts.choices) showSample(id)
}
</script>

<template>
  <div class="type">
    <div class="words">
      <FieldMark :address="`${source.id}/wording`" />
      <textarea
        :value="wording"
        rows="2"
        aria-label="Wording"
        placeholder="Your words"
        @input="write(($event.target as HTMLTextAreaElement).value)"
        @change="bench.endStep()"
        @keydown.esc="($event.target as HTMLTextAreaElement).blur()"
      />
      <KeyOf :address="`${source.id}/wording`" />
    </div>
    <label v-if="others.length > 0" class="linked" title="One wording in several pieces: it is written in one place">
      Words
      <select
        class="plain-field"
        :value="piece.linked ?? ''"
        @change="link(($event.target as HTMLSelectElement).value)"
      >
        <option value="">its own</option>
        <option v-for="other in others" :key="other.id" :value="other.id">those of {{ other.name }}</option>
      </select>
    </label>
    <div class="font">
      <VAutocomplete
        :model-value="piece.font"
        :items="fonts.choices"
        item-value="id"
        item-title="title"
        label="Font"
        aria-label="Font"
        auto-select-first
        no-data-text="No font here is called so."
        @focus="($event.target as HTMLInputElement).select()"
        @update:model-value="choose"
        @update:menu="showAll"
      >
        <template #item="{ props: item, item: choice }">
          <VListItem v-bind="item" :title="undefined" density="compact">
            <span class="sample" :style="{ fontFamily: choice.css }">{{ choice.title }}</span>
            <small>{{ choice.kind }}</small>
          </VListItem>
        </template>
        <template #append-item>
          <VListItem
            v-for="example in examples"
            :key="example.name"
            density="compact"
            title="Try a font of your own"
            :subtitle="`An example comes: ${example.name}`"
            @click="bringExample(example)"
          />
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
.linked {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
}
.words {
  position: relative;
  display: grid;
  grid-template-columns: 1fr 24px;
  gap: 4px;
  align-items: center;
}
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
  box-shadow: 0 0 0 1px var(--teal);
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
