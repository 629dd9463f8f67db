<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { ProofFinding, ProofLine, Verdict } from '#core/judge/proof/definition'
import type { ProofRow } from '#core/judge/proof/look'
import { proofRows } from '#core/rosters/proof-rows'
import { zonesOf } from '#core/time/held'
import { attempt } from '~/composables/attempt'
import { backdropCss } from '~/composables/backdrops'
import { ownGround } from '~/composables/own-ground'
import { useProof } from '~/composables/proof'
import { broughtIn, usePictures } from '~/stores/pictures'
import { useRosters } from '~/stores/rosters'
import { useStage } from '~/stores/stage'
import { pictureOf } from '~/workers/engine-pool'
import FlashChart from './FlashChart.vue'
import StagePicture from '~/components/bench/stage/StagePicture.vue'

// What will be seen of a card once it is on air: each line is good, or leads to where it is not.

const props = defineProps<{
  card: Card
  /** By which the engines know the card. */
  engineName: string
  /** By which the shelf knows it: rosters that fill it can be proved with it. */
  cardId: string
}>()
const emit = defineEmits<{ goTo: [finding: ProofFinding, roster: string] }>()
const open = defineModel<boolean>({ required: true })
const stage = useStage()
const rosters = useRosters()
const pictures = usePictures()
const { lines, flashes, share, fault, prove, pictureOf: picturedBy, stop } = useProof()

const bitmap = shallowRef<ImageBitmap | null>(null)
const WIDTH = 264
/** What is shown of a check instead of the grounds. */
const shown = shallowRef<{ check: string; bitmap: ImageBitmap | null; said: string } | null>(null)
const large = ref(false)
const height = computed(() => Math.round((WIDTH * props.card.frame.height) / props.card.frame.width))

/** Black, white, mid grey, and what the card is looked at against. */
const grounds = computed(() => {
  const own = ['black', 'white', 'grey', 'checker'].includes(stage.backdrop) ? 'dusk' : stage.backdrop
  return ['black', 'grey', 'white', own].map((id) => ({ id, ...backdropCss(id, stage.ownBackdrop) }))
})

/** A roster of more rows is proved with its card only when it is asked for. */
const FEW_ROWS = 200
const rosterId = ref('')
const fillIt = computed(() => rosters.list.filter(({ cardId }) => cardId === props.cardId))

/** The rosters that fill the card; the first one is proved with it by itself. */
async function findRosters() {
  rosterId.value = ''
  if (props.card.fields.length === 0) return
  // Without them the card itself is proved.
  await Promise.all([rosters.load(), pictures.load()]).catch(() => {})
  rosterId.value = fillIt.value.find(({ rows }) => rows <= FEW_ROWS)?.id ?? ''
}

async function rowsToProve(now: Card): Promise<ProofRow[]> {
  if (rosterId.value === '') return []
  const { document } = await rosters.find(rosterId.value)
  return proofRows(now, document, broughtIn(pictures.list))
}

const MARKS: Record<Verdict, string> = { good: 'good', look: 'look at it', bad: 'will not do' }

const names = computed(() => new Map(allPieces(props.card.pieces).map(({ id, name }) => [id, name])))
const worst = computed(() => {
  const count = (verdict: Verdict) => lines.value.filter((line) => line.verdict === verdict).length
  if (count('bad') > 0) return `${count('bad')} of ${lines.value.length} will not do`
  return count('look') > 0 ? `${count('look')} of ${lines.value.length} to look at` : 'all good'
})

/** Checks of which there is something to be seen. */
const PICTURED = ['contrast', 'halo', 'banding', 'flashes']

async function show(check: string) {
  if (shown.value?.check === check) {
    unshow()
    return
  }
  if (check === 'flashes') {
    shown.value = {
      check,
      bitmap: null,
      said: 'Mean luminance of every frame over mid grey; red where it changes as a flash does.',
    }
    return
  }
  const found = await picturedBy(check)
  if (found) shown.value = { check, bitmap: found.bitmap, said: `Frame ${found.frame}. ${found.caption}` }
}

function unshow() {
  shown.value?.bitmap?.close()
  shown.value = null
  large.value = false
}

function begin(now: Card) {
  unshow()
  void attempt(async () => {
    // A picture that cannot be read cannot be looked at against either.
    const own = await ownGround(stage.backdrop, stage.ownBackdrop).catch(() => null)
    const rows = await rowsToProve(now)
    // Closed meanwhile.
    if (open.value) await prove(now, { own: own ? [own] : [], rows })
  })
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
    if (now) void findRosters().then(() => begin(props.card))
    else {
      unshow()
      stop()
    }
  },
  { immediate: true },
)

const place = ({ piece, frame }: ProofFinding) =>
  [piece === null ? '' : (names.value.get(piece) ?? ''), frame === null ? '' : `frame ${frame}`]
    .filter(Boolean)
    .join(', ')

/** To the frame and the piece where it was found. */
function goTo(finding: ProofFinding) {
  emit('goTo', finding, rosterId.value)
  open.value = false
}

const hint = ({ source }: ProofLine) => `By: ${source}`
</script>

<template>
  <VDialog v-model="open" :max-width="large ? 1180 : 920">
    <section class="proof dialog-sheet" aria-label="Proof">
      <header>
        <h2>Proof of {{ card.name }}</h2>
        <span v-if="share === null && lines.length > 0" class="quiet" role="status">{{ worst }}</span>
        <span v-else-if="share !== null" class="quiet" role="status">
          Looking at all frames: {{ Math.round(share * 100) }} %
        </span>
      </header>
      <div class="columns" :class="{ large }">
        <figure v-if="shown" class="shown" :data-shown="shown.check">
          <FlashChart v-if="shown.check === 'flashes'" :flashes="flashes!" />
          <button v-else type="button" :title="large ? 'Smaller' : 'Larger'" @click="large = !large">
            <StagePicture :bitmap="shown.bitmap" :width="WIDTH" :height="height" fluid />
          </button>
          <figcaption>
            {{ shown.said }}
            <button type="button" class="link" @click="unshow">Back to the backdrops</button>
          </figcaption>
        </figure>
        <div v-else class="grounds" :class="{ pairs: card.frame.height > card.frame.width * 0.7 }">
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
            <button
              v-if="PICTURED.includes(line.check) && share === null"
              type="button"
              class="link"
              :aria-pressed="shown?.check === line.check"
              @click="show(line.check)"
            >
              See it
            </button>
            <span v-else />
            <p v-for="(finding, i) in line.findings.slice(0, 4)" :key="i">
              <template v-if="place(finding)">{{ place(finding) }}: </template>{{ finding.message }}
              {{ finding.remedy }}
              <button v-if="place(finding) || finding.row" type="button" @click="goTo(finding)">Go there</button>
            </p>
          </li>
        </ul>
      </div>
      <div class="foot">
        <label v-if="fillIt.length > 0" class="rows">
          With the rows of
          <select v-model="rosterId" class="plain-field" :disabled="share !== null" @change="begin(card)">
            <option value="">no roster</option>
            <option v-for="one in fillIt" :key="one.id" :value="one.id">
              {{ one.name }} · {{ one.rows }} {{ one.rows === 1 ? 'row' : 'rows' }}
            </option>
          </select>
        </label>
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
  grid-template-columns: 264px 1fr;
  gap: 20px;
  align-items: start;
}
.columns.large {
  grid-template-columns: 1fr;
}
.shown {
  margin: 0;
}
.shown > button {
  display: block;
  width: 100%;
  padding: 0;
  cursor: zoom-in;
  background: none;
  border: 0;
}
.large .shown > button {
  cursor: zoom-out;
}
figcaption {
  margin-top: 8px;
  color: var(--ink-2);
}
.grounds {
  display: grid;
  gap: 8px;
}
.grounds.pairs {
  grid-template-columns: 1fr 1fr;
}
.grounds span {
  display: block;
  overflow: hidden;
  border: 1px solid var(--line);
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
  grid-template-columns: 160px 1fr auto 50px;
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
li p button,
.link {
  padding: 0 4px;
  font: inherit;
  font-weight: 600;
  color: var(--teal);
  text-decoration: underline;
  white-space: nowrap;
  cursor: pointer;
  background: none;
  border: 0;
}
.rows {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-right: auto;
  color: var(--ink-2);
}
.warn {
  margin: 0;
  color: var(--wax);
}
</style>
