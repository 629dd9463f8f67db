<script setup lang="ts">
import { mdiClose, mdiRecordCircleOutline, mdiSineWave } from '@mdi/js'
import { line, scaleLinear } from 'd3'
import { computed, nextTick } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import { writeColour } from '#core/values/colour'
import { moveKeys } from '#core/edit/keys'
import { stopMoving, toggleKey } from '#core/edit/values'
import type { Moving } from '#core/values/moving'
import { momentOf } from '#core/time/ring'
import { sourcesOf } from '#core/values/links'
import { colourAt, motoredNumber } from '#core/values/moved'
import { useCounted } from '~/composables/counted'
import { followPointer } from '~/composables/follow-pointer'
import type { RibbonView } from '~/composables/ribbon-view'
import { NAMES } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import LaneName from './LaneName.vue'

const props = defineProps<{ lane: ParameterPlace; view: RibbonView; width: number }>()

const LANE = 30

const bench = useBench()
const ribbon = useRibbon()
const counted = useCounted()
const x = computed(() => props.view.x.value)
const length = computed(() => props.view.length.value)
const moving = computed(() => props.lane.value as Moving<never>)
const kind = computed(() => {
  const { type } = props.lane.parameter
  return type === 'number' || type === 'length' ? 'number' : type === 'colour' ? 'colour' : 'held'
})
const hasMotors = computed(() => (moving.value.motors ?? []).some(({ on }) => on))
/** The piece's own name stands on its row; the lane says what of it moves. */
const words = computed(() => {
  const { label, piece } = props.lane
  return piece ? label.slice(label.indexOf(' · ') + 3) : label
})
const shownKeys = computed(() => {
  const [from, to] = x.value.domain() as [number, number]
  const edge = Math.min(to, length.value)
  return moving.value.keys.filter(({ frame }) => frame >= Math.max(0, from) && frame <= edge)
})

/** The value over what is seen of the loop, beyond the seam too. */
function drawn(): string {
  const [from, to] = x.value.domain() as [number, number]
  const count = hasMotors.value ? 360 : 120
  const samples = Array.from({ length: count + 1 }, (_, i) => from + (i / count) * (to - from))
  const values = samples.map(motoredNumber(moving.value as Moving<number>, momentOf(bench.card!, 0)))
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const y = scaleLinear()
    .domain(high > low ? [low, high] : [low - 1, low + 1])
    .range([LANE - 6, 6])
  return line<number>((_, i) => x.value(samples[i]!), y)(values) ?? ''
}
/** Every edit gives another card; what does not follow other values is drawn anew only when it is other itself. */
let known: { from: unknown[]; path: string } | null = null
const curve = computed(() => {
  if (kind.value !== 'number') return ''
  const { seed, rate } = bench.card!
  const follows = sourcesOf(moving.value).length > 0
  const from = [moving.value, x.value, length.value, seed, rate.numerator, rate.denominator, follows && bench.card]
  if (!known || from.some((part, i) => part !== known!.from[i])) known = { from, path: drawn() }
  return known.path
})
const colours = computed(() => {
  const at = (i: number) => writeColour(colourAt(moving.value, momentOf(bench.card!, (i / 24) * length.value)))
  return `linear-gradient(90deg, ${Array.from({ length: 25 }, (_, i) => at(Math.min(i, 23.99))).join(', ')})`
})
const on = computed(() => {
  const { piece, part } = props.lane
  return part ? part === bench.selectedPart : piece === bench.selectedPiece
})
/** What is held from key to key: words, paths, switches. */
const held = computed(() =>
  moving.value.keys.map((key, i) => {
    const next = moving.value.keys[i + 1]?.frame ?? length.value
    const left = Math.max(NAMES, x.value(key.frame) + 8)
    return { left, width: Math.max(0, x.value(next) - left - 8), text: String(key.value).replace(/\n/g, ' ') }
  }),
)

function dragKey(event: PointerEvent, frame: number) {
  const key = { address: props.lane.address, frame }
  ribbon.choose(key, event.shiftKey || event.ctrlKey)
  if (!ribbon.isChosen(key.address, frame)) return
  bench.endStep()
  const before = bench.card!
  const chosen = ribbon.keys
  let last = 0
  followPointer(
    event,
    (next) => {
      const by = Math.round(x.value.invert(next.clientX) - x.value.invert(event.clientX))
      if (by === last) return
      last = by
      bench.dragging = true
      // From where it began each time, so that keys passed over on the way are not lost.
      const moved = moveKeys(before, chosen, by)
      bench.edit(
        chosen.length > 1 ? `Move ${chosen.length} keys` : `Move a key of ${props.lane.label}`,
        () => moved.card,
        'keys',
      )
      ribbon.keys = moved.keys
    },
    () => {
      bench.endStep()
      // A press without a drag on one of several leaves it alone.
      if (last === 0 && !event.shiftKey && !event.ctrlKey) ribbon.keys = [key]
    },
  )
}

function press(event: KeyboardEvent, frame: number) {
  ribbon.choose({ address: props.lane.address, frame }, event.shiftKey)
}

const key = () => bench.edit(`Key: ${props.lane.label}`, (card) => toggleKey(card, props.lane.address, ribbon.frame))
const still = () =>
  bench.edit(`${props.lane.label} stands still`, (card) => stopMoving(card, props.lane.address, ribbon.frame))

/** All keys of the lane; what it belongs to is selected. */
function choose() {
  const { address, piece, part } = props.lane
  if (piece) bench.select(piece, part)
  const all = moving.value.keys.filter(({ frame }) => frame < length.value).map(({ frame }) => ({ address, frame }))
  // The selection lets go of other keys first.
  void nextTick(() => (ribbon.keys = all))
}
</script>

<template>
  <div class="lane" :data-lane="lane.address">
    <LaneName :title="lane.label" :words="words" :on="on" @choose="choose">
      <button
        class="icon-button tool"
        aria-label="Key here"
        title="Set or take away a key at the playhead"
        @click="key()"
      >
        <VIcon :icon="mdiRecordCircleOutline" size="14" />
      </button>
      <button
        v-if="kind === 'number' && !isOfMotor(lane.address)"
        class="icon-button tool"
        :class="{ running: hasMotors }"
        :aria-label="`Motors of ${lane.label}`"
        title="Motors: what moves it beside its keys"
        @click="ribbon.motorsOf = ribbon.motorsOf === lane.address ? null : lane.address"
      >
        <VIcon :icon="mdiSineWave" size="14" />
      </button>
      <button
        class="icon-button tool"
        aria-label="Stand still"
        title="Stop moving; the present value stays"
        @click="still()"
      >
        <VIcon :icon="mdiClose" size="14" />
      </button>
    </LaneName>
    <svg :width="width" :height="LANE">
      <foreignObject
        v-if="kind === 'colour'"
        :x="Math.max(NAMES, x(0))"
        y="9"
        :width="Math.max(0, x(length) - Math.max(NAMES, x(0)))"
        height="12"
        pointer-events="none"
      >
        <div class="colours" :style="{ background: colours }" />
      </foreignObject>
      <template v-else-if="kind === 'held'">
        <g v-for="(run, i) in held" :key="i" pointer-events="none">
          <rect class="held" :x="run.left" y="9" :width="run.width" height="12" rx="3" />
          <foreignObject :x="run.left + 3" y="7" :width="Math.max(0, run.width - 6)" height="16">
            <div class="words">{{ run.text }}</div>
          </foreignObject>
        </g>
      </template>
      <path v-else class="curve" :class="{ driven: hasMotors }" :d="curve" />
      <circle
        v-for="{ frame } in shownKeys"
        :key="frame"
        class="key"
        :class="{ on: ribbon.isChosen(lane.address, frame) }"
        :cx="x(frame)"
        :cy="LANE / 2"
        r="5.5"
        tabindex="0"
        role="button"
        :aria-pressed="ribbon.isChosen(lane.address, frame)"
        :aria-label="`Key of ${lane.label} at ${counted(frame)}`"
        @pointerdown.stop="dragKey($event, frame)"
        @keydown.enter="press($event, frame)"
      />
    </svg>
  </div>
</template>

<style scoped>
.lane {
  position: relative;
  height: 30px;
  border-bottom: 1px solid var(--line);
}
.lane > svg {
  position: absolute;
  inset: 0;
}
.tool {
  width: 22px;
  opacity: 0;
}
.tool.running {
  color: var(--teal);
  opacity: 1;
}
.lane:hover .tool,
.lane:focus-within .tool {
  opacity: 1;
}
.curve {
  pointer-events: none;
  fill: none;
  stroke: var(--teal);
  stroke-width: 1.6;
}
.curve.driven {
  stroke-width: 1.2;
}
.colours {
  height: 12px;
  border-radius: 6px;
}
.held {
  fill: var(--teal-soft);
}
.words {
  overflow: hidden;
  font-size: 11px;
  line-height: 16px;
  color: var(--ink);
  text-overflow: ellipsis;
  white-space: nowrap;
}
.key {
  cursor: ew-resize;
  fill: var(--wax);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.key.on {
  fill: var(--paper);
  stroke: var(--wax);
  stroke-width: 3;
}
</style>
