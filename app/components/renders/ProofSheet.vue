<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { ProofFinding, ProofLine, Verdict } from '#core/judge/proof/definition'
import { zonesOf } from '#core/time/held'
import { backdropCss } from '~/composables/backdrops'
import { useProof } from '~/composables/proof'
import { useStage } from '~/stores/stage'
import { pictureOf } from '~/workers/engine-pool'
import StagePicture from '~/components/bench/stage/StagePicture.vue'

// What will be seen of a card once it is on air: each line is good, or leads to where it is not.

const props = defineProps<{
  card: Card
  /** By which the engines know the card. */
  engineName: string
}>()
const emit = defineEmits<{ goTo: [finding: ProofFinding] }>()
const open = defineModel<boolean>({ required: true })
const stage = useStage()
const { lines, share, fault, prove, stop } = useProof()

const bitmap = shallowRef<ImageBitmap | null>(null)
const WIDTH = 250
const height = computed(() => Math.round((WIDTH * props.card.frame.height) / props.card.frame.width))

/** Black, white, mid grey, and what the card is looked at against. */
const grounds = computed(() => {
  const own = ['black', 'white', 'grey', 'checker'].includes(stage.backdrop) ? 'dusk' : stage.backdrop
  return ['black', 'grey', 'white', own].map((id) => ({ id, ...backdropCss(id, stage.ownBackdrop) }))
})

const MARKS: Record<Verdict, string> = { good: 'good', look: 'look at it', bad: 'will not do' }

const names = computed(() => new Map(allPieces(props.card.pieces).map(({ id, name }) => [id, name])))
const worst = computed(() => {
  const count = (verdict: Verdict) => lines.value.filter((line) => line.verdict === verdict).length
  if (count('bad') > 0) return `${count('bad')} of ${lines.value.length} will not do`
  return count('look') > 0 ? `${count('look')} of ${lines.value.length} to look at` : 'all good'
})

function begin(now: Card) {
  void prove(now)
  const zones = zonesOf(now)
  const frame = zones ? Math.floor((zones.hold + zones.out) / 2) : Math.floor(now.length / 2)
  const scale = Math.min(1, (WIDTH * window.devicePixelRatio) / now.frame.width)
  void pictureOf(props.engineName, frame, { scale }).then((shown) => {
    if ('bitmap' in shown) bitmap.value = shown.bitmap
  })
}

watch(
  open,
  (now) => {
    if (now) begin(props.card)
    else stop()
  },
  { immediate: true },
)

const place = ({ piece, frame }: ProofFinding) =>
  [piece === null ? '' : (names.value.get(piece) ?? ''), frame === null ? '' : `frame ${frame}`]
    .filter(Boolean)
    .join(', ')

/** To the frame and the piece where it was found. */
function goTo(finding: ProofFinding) {
  emit('goTo', finding)
  open.value = false
}

const hint = ({ source }: ProofLine) => `By: ${source}`
</script>

<template>
  <VDialog v-model="open" max-width="860">
    <section class="proof dialog-sheet" aria-label="Proof">
      <header>
        <h2>Proof of {{ card.name }}</h2>
        <span v-if="share === null && lines.length > 0" class="quiet" role="status">{{ worst }}</span>
        <span v-else-if="share !== null" class="quiet" role="status">
          Looking at all frames: {{ Math.round(share * 100) }} %
        </span>
      </header>
      <div class="columns">
        <div class="grounds">
          <span
            v-for="ground in grounds"
            :key="ground.id"
            :class="ground.class"
            :style="{ background: ground.background }"
          >
            <StagePicture :bitmap="bitmap" :width="WIDTH" :height="height" fluid />
          </span>
        </div>
        <p v-if="fault" class="warn" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
        <ul v-else>
          <li
            v-for="line in lines"
            :key="line.check"
            :class="line.verdict"
            :data-check="line.check"
            :title="hint(line)"
          >
            <b>{{ line.label }}</b>
            <span>{{ line.said }}</span>
            <em>{{ MARKS[line.verdict] }}</em>
            <p v-for="(finding, i) in line.findings.slice(0, 4)" :key="i">
              <template v-if="place(finding)">{{ place(finding) }}: </template>{{ finding.message }}
              {{ finding.remedy }}
              <button v-if="place(finding)" type="button" @click="goTo(finding)">Go there</button>
            </p>
          </li>
        </ul>
      </div>
      <div class="foot">
        <button type="button" class="plain-button" :disabled="share !== null" @click="begin(card)">Prove again</button>
        <button type="button" class="plain-button" @click="open = false">Close</button>
      </div>
    </section>
  </VDialog>
</template>

<style scoped>
.proof {
  display: grid;
  gap: 14px;
}
header {
  display: flex;
  gap: 14px;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  margin: 0;
}
.columns {
  display: grid;
  grid-template-columns: 250px 1fr;
  gap: 20px;
  align-items: start;
}
.grounds {
  display: grid;
  gap: 8px;
}
.grounds span {
  display: block;
  overflow: hidden;
  border-radius: 4px;
}
ul {
  display: grid;
  max-height: 560px;
  padding: 0;
  margin: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 170px 1fr auto;
  gap: 2px 12px;
  padding: 6px 8px 6px 10px;
  border-bottom: 1px solid var(--line);
  border-left: 3px solid transparent;
}
li.look {
  border-left-color: var(--line-strong);
}
li.bad {
  border-left-color: var(--wax);
}
li b {
  font-weight: 600;
}
li span {
  color: var(--ink-2);
}
em {
  font-style: normal;
  font-weight: 600;
  color: var(--teal);
}
.look em {
  color: var(--ink);
}
.bad em {
  color: var(--wax);
}
li p {
  grid-column: 1 / -1;
  margin: 0;
  color: var(--ink-2);
}
li p button {
  padding: 0 4px;
  font: inherit;
  font-weight: 600;
  color: var(--teal);
  text-decoration: underline;
  cursor: pointer;
  background: none;
  border: 0;
}
.warn {
  margin: 0;
  color: var(--wax);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
}
</style>
