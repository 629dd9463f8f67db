<script setup lang="ts">
import {
  mdiAlignHorizontalCenter,
  mdiAlignHorizontalLeft,
  mdiAlignHorizontalRight,
  mdiAlignVerticalBottom,
  mdiAlignVerticalCenter,
  mdiAlignVerticalTop,
  mdiDistributeHorizontalCenter,
  mdiDistributeVerticalCenter,
} from '@mdi/js'
import { computed, ref } from 'vue'
import type { Edge } from '#core/edit/arrange'
import { alignPieces, boundsOf, distributePieces } from '#core/edit/arrange'
import { moveAnchor } from '#core/edit/grouping'
import type { PieceOutlook } from '#core/frame/outlook'
import { SAFE_AREAS, safeRect } from '#core/judge/safe-areas'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import HintText from '../fields/HintText.vue'

/** Aligns and shares out what is selected; sets the anchor of one piece. */
const props = defineProps<{ outlook: PieceOutlook[] }>()
const bench = useBench()
const ribbon = useRibbon()

type Target = 'selection' | 'frame' | 'action' | 'title'
const wished = ref<Target>('frame')
const several = computed(() => bench.pieces.length > 1)
const target = computed<Target>(() => (wished.value === 'selection' && !several.value ? 'frame' : wished.value))
const entries = computed(() => props.outlook.filter(({ id }) => bench.isSelected(id)))
const rect = computed(() => {
  const { frame } = bench.card!
  if (target.value === 'selection') return boundsOf(entries.value)
  if (target.value === 'frame') return safeRect(frame, 1)
  return safeRect(frame, SAFE_AREAS.find(({ id }) => id === target.value)!.share)
})

const EDGES: { edge: Edge; icon: string; label: string }[] = [
  { edge: 'left', icon: mdiAlignHorizontalLeft, label: 'Left edges' },
  { edge: 'centre', icon: mdiAlignHorizontalCenter, label: 'Middles, across' },
  { edge: 'right', icon: mdiAlignHorizontalRight, label: 'Right edges' },
  { edge: 'top', icon: mdiAlignVerticalTop, label: 'Upper edges' },
  { edge: 'middle', icon: mdiAlignVerticalCenter, label: 'Middles, up and down' },
  { edge: 'bottom', icon: mdiAlignVerticalBottom, label: 'Lower edges' },
]

function align(edge: Edge, label: string) {
  const to = rect.value
  if (to)
    bench.edit(`Align: ${label.toLowerCase()}`, (card) => alignPieces(card, entries.value, edge, to, ribbon.frame))
}

function share(axis: 'x' | 'y') {
  const within = target.value === 'selection' ? null : rect.value
  bench.edit('Share out evenly', (card) => distributePieces(card, entries.value, axis, within, ribbon.frame))
}

const ANCHORS = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y })))
const WORDS = [
  ['top left', 'top', 'top right'],
  ['left', 'middle', 'right'],
  ['bottom left', 'bottom', 'bottom right'],
]
const nameOf = ({ x, y }: { x: number; y: number }) => WORDS[y * 2]![x * 2]!

/** Each selected piece takes the same corner, side or middle of its own. */
function anchor(spot: { x: number; y: number }) {
  bench.edit(`Anchor: ${nameOf(spot)}`, (card) =>
    entries.value.reduce((next, { id, own }) => {
      const point = {
        x: own.left + (own.right - own.left) * spot.x,
        y: own.top + (own.bottom - own.top) * spot.y,
      }
      return moveAnchor(next, id, point, ribbon.frame)
    }, card),
  )
}

const standsAt = (spot: { x: number; y: number }) => {
  const [entry] = entries.value
  if (!entry || entries.value.length !== 1) return false
  const corner = entry.corners[0]
  const far = entry.corners[2]
  const [across, down] = [entry.corners[1], entry.corners[3]]
  const at = {
    x: corner.x + (across.x - corner.x) * spot.x + (down.x - corner.x) * spot.y,
    y: corner.y + (across.y - corner.y) * spot.x + (down.y - corner.y) * spot.y,
  }
  const size = Math.abs(far.x - corner.x) + Math.abs(far.y - corner.y)
  return size > 0 && Math.abs(at.x - entry.place.x) + Math.abs(at.y - entry.place.y) < 0.6
}
</script>

<template>
  <div v-if="entries.length > 0" class="arrange">
    <div class="align">
      <select v-model="wished" class="plain-field" aria-label="Align to" title="What edges are aligned to">
        <option value="frame">To the frame</option>
        <option value="selection" :disabled="!several">To each other</option>
        <option v-for="area in SAFE_AREAS" :key="area.id" :value="area.id">To {{ area.label.toLowerCase() }}</option>
      </select>
      <span class="buttons">
        <button
          v-for="{ edge, icon, label } in EDGES"
          :key="edge"
          class="icon-button"
          :aria-label="`Align: ${label.toLowerCase()}`"
          @click="align(edge, label)"
        >
          <VIcon :icon="icon" size="17" /><HintText :text="label" />
        </button>
        <button
          class="icon-button"
          aria-label="Share out across"
          :disabled="entries.length < (target === 'selection' ? 3 : 2)"
          @click="share('x')"
        >
          <VIcon :icon="mdiDistributeHorizontalCenter" size="17" />
          <HintText text="Equal gaps across" />
        </button>
        <button
          class="icon-button"
          aria-label="Share out up and down"
          :disabled="entries.length < (target === 'selection' ? 3 : 2)"
          @click="share('y')"
        >
          <VIcon :icon="mdiDistributeVerticalCenter" size="17" />
          <HintText text="Equal gaps up and down" />
        </button>
      </span>
    </div>
    <div class="anchors" role="group" aria-label="Anchor">
      <button
        v-for="spot in ANCHORS"
        :key="`${spot.x} ${spot.y}`"
        :class="{ on: standsAt(spot) }"
        :aria-label="`Anchor: ${nameOf(spot)}`"
        :title="`Anchor: ${nameOf(spot)}`"
        @click="anchor(spot)"
      />
    </div>
  </div>
</template>

<style scoped>
.arrange {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  padding: 2px 0 8px;
}
.align {
  display: grid;
  gap: 3px;
  min-width: 0;
}
select {
  width: 100%;
  padding: 0 4px;
}
.buttons {
  display: flex;
}
.buttons .icon-button {
  width: 25px;
}
.anchors {
  display: grid;
  flex: none;
  grid-template-columns: repeat(3, 24px);
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 5px;
}
.anchors button {
  width: 24px;
  height: 24px;
  padding: 0;
  cursor: pointer;
  background: radial-gradient(circle, var(--line-strong) 0 2.5px, transparent 3px);
  border: 0;
}
.anchors button:hover {
  background: radial-gradient(circle, var(--teal) 0 3px, transparent 3.5px);
}
.anchors button.on {
  background: radial-gradient(circle, var(--wax) 0 4px, transparent 4.5px);
}
</style>
