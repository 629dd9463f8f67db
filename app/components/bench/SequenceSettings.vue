<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { changePiece } from '#core/edit/stack'
import type { Piece, SequencePiece } from '#core/card/schema'
import { MOST_COMPARED } from '#core/judge/best-cut'
import type { Rate } from '#core/values/rate'
import { COMMON_RATES, rateLabel } from '#core/values/rate'
import { sequenceValues } from '~/composables/bring-files'
import { chosenFiles } from '~/composables/chosen-file'
import { faultOf } from '~/composables/api'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import type { OwnSequence } from '~/stores/sequences'
import { useSequences } from '~/stores/sequences'
import CutSheet from './CutSheet.vue'

const props = defineProps<{ piece: SequencePiece }>()
const bench = useBench()
const notices = useNotices()
const sequences = useSequences()
const file = ref<HTMLInputElement>()
const cutting = ref(false)

void sequences.load().catch(() => {})
watch(
  () => props.piece.sequence?.id,
  (id) => id && void sequences.follow(id).catch(() => {}),
  { immediate: true },
)

const known = computed(() => (props.piece.sequence ? sequences.known[props.piece.sequence.id] : undefined))
const read = computed(() => {
  const { there = 0, stored = 0, ended = true } = known.value ?? {}
  return ended ? null : { there, stored }
})

/** Another file for the same piece: what was done to it stays. */
function show(found: OwnSequence) {
  const values = sequenceValues(found, bench.card!)
  bench.edit('Sequence', (card) => changePiece(card, props.piece.id, values as Partial<Piece>))
}

async function choose(id: string) {
  try {
    show(await sequences.follow(id))
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

async function bringIn(event: Event) {
  const files = chosenFiles(event)
  if (files.length === 0) return
  try {
    show(await sequences.bringIn(files))
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

/** Rates to choose from: that of the card, those in use, and its own. */
const same = (a: Rate, b: Rate) => a.numerator * b.denominator === b.numerator * a.denominator
const rates = computed(() => {
  const more = [known.value?.rate, props.piece.rate].filter((rate): rate is Rate => !!rate)
  return more.reduce((all, rate) => (all.some((one) => same(one, rate)) ? all : [...all, rate]), [...COMMON_RATES])
})
const rateIndex = computed(() => rates.value.findIndex((rate) => props.piece.rate && same(rate, props.piece.rate)))

function setRate(index: number) {
  const rate = rates.value[index] ?? null
  bench.edit('Rate of the sequence', (card) => changePiece(card, props.piece.id, { rate } as Partial<Piece>))
}
const label = (rate: Rate) =>
  `${rateLabel(rate)} a second${known.value?.rate && same(known.value.rate, rate) ? ', as its file says' : ''}`
</script>

<template>
  <div class="sequence">
    <div class="file">
      <select
        class="plain-field"
        :value="piece.sequence?.id ?? ''"
        aria-label="Sequence"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option value="" disabled>Choose a sequence</option>
        <option v-for="{ id, fileName, frames } in sequences.list" :key="id" :value="id">
          {{ fileName }} · {{ frames }} pictures
        </option>
      </select>
      <button class="plain-button" @click="file?.click()">Bring in…</button>
      <input
        ref="file"
        type="file"
        accept="image/png,image/apng,image/webp,image/gif,video/*,.mov,.mkv,.zip,application/zip"
        multiple
        hidden
        data-test="sequence-file"
        @change="bringIn"
      />
    </div>
    <template v-if="piece.sequence && known">
      <p class="quiet facts">
        {{ known.frames }} pictures of {{ known.width }}×{{ known.height }} px, {{ known.bits }} bit
      </p>
      <p v-for="note in known.notes" :key="note" class="facts note">{{ note }}</p>
      <div v-if="read" class="reading" role="status">
        <progress :value="read.there" :max="read.stored" /> {{ read.there }} of {{ read.stored }} read
      </div>
      <div class="file">
        <select
          class="plain-field"
          :value="rateIndex"
          aria-label="Rate of the sequence"
          title="At which rate it plays: at another one than the card's, pictures are left out, shown twice or mixed"
          @change="setRate(Number(($event.target as HTMLSelectElement).value))"
        >
          <option :value="-1">A picture each frame</option>
          <option v-for="(rate, i) in rates" :key="i" :value="i">{{ label(rate) }}</option>
        </select>
        <button
          class="plain-button"
          :disabled="!known.ended || piece.sequence.frames < 3 || piece.sequence.frames > MOST_COMPARED"
          title="Finds where it repeats itself, and the cut whose seam shows least"
          @click="cutting = true"
        >
          Best cut…
        </button>
      </div>
      <CutSheet v-if="cutting" v-model="cutting" :piece="piece" />
    </template>
  </div>
</template>

<style scoped>
.sequence {
  display: grid;
  gap: 6px;
  padding-bottom: 8px;
}
.file {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
}
select {
  min-width: 0;
  height: 30px;
}
.facts {
  margin: 0;
  font-size: 12px;
}
.note {
  padding-left: 8px;
  border-left: 2px solid var(--wax);
}
.reading {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12px;
}
progress {
  flex: 1;
  height: 6px;
  accent-color: var(--teal);
}
</style>
