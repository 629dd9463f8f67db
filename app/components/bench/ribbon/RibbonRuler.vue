<script setup lang="ts">
import { computed } from 'vue'
import { zonesOf } from '#core/time/held'
import { nominalRate } from '#core/time/timecode'
import { useCounted } from '~/composables/counted'
import { followPointer } from '~/composables/follow-pointer'
import type { RibbonView } from '~/composables/ribbon-view'
import { useRibbonTime } from '~/composables/ribbon-time'
import { NAMES } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

const props = defineProps<{ view: RibbonView; width: number }>()

const bench = useBench()
const ribbon = useRibbon()
const time = useRibbonTime()
const counted = useCounted()
const x = computed(() => props.view.x.value)
const length = computed(() => props.view.length.value)

/** Room that a mark's words need. */
const room = computed(() => (ribbon.counting === 'timecode' || ribbon.counting === 'drop' ? 84 : 52))
/** Frames between marks: parts of a second that can be read, as many as there is room for. */
const step = computed(() => {
  const rate = nominalRate(bench.card!.rate)
  // A second is cut into even parts, or not at all.
  const inFrames = [1, 2, 5, 10].filter((frames) => rate % frames === 0)
  const inSeconds = [0.5, 1, 2, 5, 10, 30, 60, 300, 600, 3600].map((s) => s * rate).filter(Number.isInteger)
  const wide = (frames: number) => x.value(frames) - x.value(0)
  return [...inFrames, ...inSeconds].find((frames) => wide(frames) >= room.value) ?? Math.round(7200 * rate)
})
const marks = computed(() => {
  const [from, to] = x.value.domain() as [number, number]
  const first = Math.max(0, Math.ceil(from / step.value))
  const last = Math.floor(Math.min(length.value, to) / step.value)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step.value)
})

const ready = computed(() =>
  (time.holder.value ? [] : ribbon.readyRuns).map(([from, to]) => {
    const left = Math.max(NAMES, x.value(from))
    return { left, width: Math.max(0, x.value(to) - left) }
  }),
)
// Zones, and what is ready to be played, are of the card's own time.
const zones = computed(() => (time.holder.value ? null : zonesOf(bench.card!)))

const frameAt = (event: PointerEvent, element: Element) =>
  Math.round(x.value.invert(event.clientX - element.getBoundingClientRect().left))

function scrub(event: PointerEvent) {
  const ruler = event.currentTarget as Element
  ribbon.playing = false
  const move = (next: PointerEvent) => time.go(frameAt(next, ruler))
  move(event)
  followPointer(event, move)
}

function dragZone(event: PointerEvent, edge: 'hold' | 'out') {
  const ruler = (event.currentTarget as Element).closest('svg')!
  bench.endStep()
  followPointer(
    event,
    (next) => {
      const frame = Math.min(length.value, Math.max(0, frameAt(next, ruler)))
      bench.edit(
        'Zones',
        (card) => {
          const now = zonesOf(card)
          if (!now) return card
          const { hold, out } = now
          const next =
            edge === 'hold' ? { hold: Math.min(frame, out - 1), out } : { hold, out: Math.max(frame, hold + 1) }
          return { ...card, zones: next }
        },
        `zones/${edge}`,
      )
    },
    () => bench.endStep(),
  )
}
</script>

<template>
  <svg class="ruler" :width="width" height="24" @pointerdown="scrub">
    <rect class="strip" :x="NAMES" width="100%" height="24" />
    <rect v-for="(run, i) in ready" :key="i" class="ready" :x="run.left" :width="run.width" y="0" height="2.5" />
    <template v-if="zones">
      <rect class="zone" :x="x(zones.hold)" :width="Math.max(0, x(zones.out) - x(zones.hold))" y="18" height="6" />
      <text class="zone-name" :x="(x(0) + x(zones.hold)) / 2" y="23">in</text>
      <text class="zone-name" :x="(x(zones.hold) + x(zones.out)) / 2" y="23">hold</text>
      <text class="zone-name" :x="(x(zones.out) + x(length)) / 2" y="23">out</text>
    </template>
    <text v-for="frame in marks" :key="frame" :x="x(frame) + 4" y="14">{{ counted(frame) }}</text>
    <line v-for="frame in marks" :key="`l${frame}`" :x1="x(frame)" :x2="x(frame)" y1="12" y2="24" />
    <template v-if="zones">
      <rect
        v-for="edge in ['hold', 'out'] as const"
        :key="edge"
        class="edge"
        :x="x(zones[edge]) - 3"
        y="14"
        width="6"
        height="10"
        rx="2"
        @pointerdown.stop="dragZone($event, edge)"
      >
        <title>{{ edge === 'hold' ? 'The hold begins here' : 'It goes out from here' }}</title>
      </rect>
    </template>
  </svg>
</template>

<style scoped>
.ruler {
  display: block;
  cursor: ew-resize;
  touch-action: none;
  border-bottom: 1px solid var(--line);
}
.strip {
  fill: var(--paper-2);
}
.ready {
  fill: var(--teal);
  opacity: 0.6;
}
.ruler text {
  font-size: 11px;
  fill: var(--ink-2);
}
.ruler line {
  stroke: var(--line-strong);
}
.zone {
  fill: var(--teal-soft);
}
.ruler .zone-name {
  font-size: 9px;
  text-anchor: middle;
}
.edge {
  fill: var(--teal);
  cursor: ew-resize;
}
</style>
