<script setup lang="ts">
import { bin, max, scaleLinear } from 'd3'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Fault } from '#core/errors'
import { closeLoop } from '#core/edit/close-loop'
import { motionFaults } from '#core/judge/motion-faults'
import { ringDifference } from '#core/judge/ring-difference'
import { seamReport } from '#core/judge/seam'
import { useCounted } from '~/composables/counted'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import type { Differences } from '~/workers/engine.worker'
import { onEngine, poolSize } from '~/workers/engine-pool'

const props = defineProps<{ engineName: string }>()

/** Frames that an engine compares at once. */
const PART = 6
/** Width of the pictures that are compared. */
const ACROSS = 240
const CHART = { w: 560, h: 96 }
const WORDS = {
  closed: 'closes',
  turn: 'closes, its speed changes',
  held: 'jumps as elsewhere',
  unseen: 'jumps unseen',
  jump: 'jumps',
} as const

const bench = useBench()
const ribbon = useRibbon()
const counted = useCounted()
const open = ref(false)

const report = computed(() => (bench.card && !bench.dragging ? seamReport(bench.card) : []))
const jumps = computed(() => report.value.filter(({ verdict }) => verdict === 'jump'))
const faults = computed(() => (bench.card && !bench.dragging ? motionFaults(bench.card) : []))
const closing = computed(() => (open.value && bench.card ? closeLoop(bench.card) : null))
const state = computed(() => {
  if (faults.value.length > 0)
    return { text: `${faults.value.length} fault${faults.value.length > 1 ? 's' : ''} in motion`, bad: true }
  if (jumps.value.length > 0)
    return { text: `${jumps.value.length} jump${jumps.value.length > 1 ? 's' : ''} at the seam`, bad: true }
  return { text: 'Loop closes', bad: false }
})

const steps = shallowRef<(number | undefined)[]>([])
const done = computed(() => steps.value.filter((step) => step !== undefined).length)
const ring = computed(() =>
  done.value === steps.value.length && done.value > 0 ? ringDifference(steps.value as number[]) : null,
)
/** Why the pictures cannot be made. */
const broken = ref<Fault | null>(null)
let turn = 0

/** Compares neighbouring pictures all round the ring, small, part by part. */
async function compare() {
  const mine = ++turn
  broken.value = null
  const { length, frame } = bench.card!
  const scale = Math.min(1, ACROSS / frame.width)
  steps.value = new Array<number | undefined>(length).fill(undefined)
  let next = 0
  const work = async () => {
    while (next < length && mine === turn && open.value) {
      const from = next
      next += PART
      const to = Math.min(length, from + PART)
      const found = await onEngine<Differences>(
        (face) => face.differences(props.engineName, from, to, scale) as Promise<Differences>,
        (fault) => ({ fault }),
      )
      if (mine !== turn) return
      if ('fault' in found) {
        turn++
        broken.value = found.fault
        return
      }
      const all = [...steps.value]
      found.steps.forEach((step, i) => (all[from + i] = step))
      steps.value = all
    }
  }
  await Promise.all(Array.from({ length: poolSize }, work))
}

watch([open, () => bench.card], () => {
  turn++
  if (open.value) void compare()
})

/** One bar for some frames; the seam, between the last frame and the first, has a bar of its own at the end. */
const bars = computed(() => {
  const known = steps.value.map((step, frame) => ({ frame, step: step ?? 0 }))
  const most = max(known, ({ step }) => step) || 1
  const y = scaleLinear()
    .domain([0, most])
    .range([0, CHART.h - 6])
  const x = scaleLinear()
    .domain([0, Math.max(1, known.length)])
    .range([0, CHART.w])
  const count = Math.min(known.length, 280)
  const groups = bin<{ frame: number; step: number }, number>()
    .value(({ frame }) => frame)
    .domain([0, Math.max(1, known.length)])
    .thresholds(count)(known)
  return groups
    .filter((group) => group.length > 0)
    .map((group) => {
      const step = max(group, (one) => one.step)!
      const height = y(step)
      const isSeam = group.some(({ frame }) => frame === known.length - 1)
      return {
        x: x(group.x0!),
        w: Math.max(1, x(group.x1!) - x(group.x0!) - 0.4),
        h: height,
        isSeam,
        frame: group[0]!.frame,
      }
    })
})

function close() {
  const { card } = closing.value!
  bench.edit('Close the loop', () => card)
}

function choose(address: string) {
  const lane = bench.lanes.find((one) => one.address === address)
  if (lane?.piece) bench.select(lane.piece, lane.part)
  open.value = false
}
</script>

<template>
  <button class="plain-button state" :class="{ bad: state.bad }" aria-haspopup="dialog" @click="open = true">
    {{ state.text }}
  </button>
  <VDialog v-model="open" max-width="620">
    <div class="sheet">
      <h2>The seam</h2>
      <p class="quiet">What happens between the last frame and the first, value by value and in the picture.</p>

      <svg
        class="ring"
        :viewBox="`0 0 ${CHART.w} ${CHART.h}`"
        role="img"
        aria-label="Difference of neighbouring pictures round the ring"
      >
        <rect class="ground" width="100%" height="100%" />
        <rect
          v-for="bar in bars"
          :key="bar.frame"
          class="bar"
          :class="{ seam: bar.isSeam }"
          :x="bar.x"
          :y="CHART.h - bar.h"
          :width="bar.isSeam ? Math.max(3, bar.w) : bar.w"
          :height="bar.h"
        />
      </svg>
      <p class="result" role="status">
        <template v-if="ring">
          <b :class="{ bad: ring.shows }">{{ ring.shows ? 'The seam shows' : 'The seam does not show' }}</b>: pictures
          differ by {{ ring.seam.toFixed(2) }} of 255 across it, by at most {{ ring.largest.step.toFixed(2) }} elsewhere
          (after {{ counted(ring.largest.frame) }}).
        </template>
        <span v-else-if="broken" class="bad">{{ broken.message }} {{ broken.remedy }}</span>
        <template v-else>Comparing pictures, {{ done }} of {{ steps.length }}…</template>
      </p>

      <div class="values">
        <p v-if="report.length === 0" class="quiet">Nothing moves yet.</p>
        <button v-for="entry in report" :key="entry.address" class="entry" @click="choose(entry.address)">
          <span class="mark" :class="entry.verdict" />
          <span>{{ entry.label }}</span>
          <span class="quiet">
            {{ WORDS[entry.verdict]
            }}<template v-if="entry.verdict === 'jump'"> by {{ Math.round(entry.value.jump * 100) / 100 }}</template>
            <template v-if="entry.why.length > 0">: {{ entry.why.join('; ') }}</template>
          </span>
        </button>
        <p v-for="fault in faults" :key="`${fault.address} ${fault.motor}`" class="bad">
          {{ fault.label }}: {{ fault.message }} {{ fault.remedy }}
        </p>
      </div>

      <template v-if="closing && (closing.changes.length > 0 || closing.left.length > 0)">
        <h3>Close the loop</h3>
        <ul v-if="closing.changes.length > 0">
          <li v-for="(one, i) in closing.changes" :key="i">
            <b>{{ one.label }}</b> {{ one.says }}
          </li>
        </ul>
        <p v-for="one in closing.left" :key="one.address" class="quiet">
          {{ one.label }} stays as it is: {{ one.why.join('; ') || 'its keys make it jump' }}.
        </p>
      </template>
      <footer>
        <button class="wax-button" :disabled="!closing || closing.changes.length === 0" @click="close">
          Close the loop
        </button>
        <button class="plain-button" @click="((ribbon.frame = 0), (open = false))">Go to the seam</button>
        <button class="plain-button" @click="open = false">Done</button>
      </footer>
    </div>
  </VDialog>
</template>

<style scoped>
.state {
  color: var(--teal);
}
.bad,
.state.bad {
  color: var(--wax);
}
.sheet {
  display: grid;
  gap: 8px;
  max-height: 86vh;
  padding: 20px;
  overflow: hidden auto;
  color: var(--ink);
  background: var(--paper);
  border-radius: 10px;
}
h2,
h3,
p,
ul {
  margin: 0;
}
h2 {
  font-size: 16px;
}
h3 {
  font-size: 14px;
}
.ring {
  width: 100%;
}
.ground {
  fill: var(--raised);
}
.bar {
  fill: var(--teal);
}
.bar.seam {
  fill: var(--wax);
}
.values {
  max-height: 190px;
  overflow: hidden auto;
  border-block: 1px solid var(--line);
}
.entry {
  display: grid;
  grid-template-columns: 14px minmax(140px, auto) 1fr;
  gap: 6px;
  align-items: baseline;
  width: 100%;
  padding: 4px 2px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
}
.entry:hover {
  background: var(--teal-soft);
}
.mark {
  width: 9px;
  height: 9px;
  background: var(--teal);
  border-radius: 50%;
}
.mark.jump {
  background: var(--wax);
}
.mark.held,
.mark.unseen,
.mark.turn {
  background: none;
  border: 2px solid var(--teal);
}
ul {
  padding-left: 18px;
}
footer {
  display: flex;
  gap: 8px;
}
</style>
