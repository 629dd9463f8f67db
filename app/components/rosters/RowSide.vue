<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight, mdiPause, mdiPlay } from '@mdi/js'
import { computed, ref, toRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { zonesOf } from '#core/time/held'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { useThumbnail } from '~/composables/thumbnail'
import type { RowAbout } from './row-about'

/** The row that is chosen, large; what was found in it, and what can be done about it. */
const props = defineProps<{ about: RowAbout; cardId: string; rosterId: string; number: number; of: number }>()
const emit = defineEmits<{ step: [by: 1 | -1]; fit: [piece: string] }>()

const WIDTH = 300
const card = toRef(() => props.about.card)
const still = (of: Card) => {
  const zones = zonesOf(of)
  return Math.floor(zones ? (zones.hold + zones.out) / 2 : of.length / 2)
}
const { picture, playing, progress } = useThumbnail(`side-${props.rosterId}`, card, WIDTH, ref(true), () =>
  still(card.value),
)
watch(card, () => (playing.value = false))
const height = computed(() => (WIDTH * card.value.frame.height) / card.value.frame.width)
const pieceName = (id: string | null) =>
  allPieces(card.value.pieces).find((piece) => piece.id === id)?.name ?? 'The row'
</script>

<template>
  <aside class="side" aria-label="Row">
    <div class="picture">
      <StagePicture :bitmap="picture" :width="WIDTH" :height="height" />
      <span class="progress" :style="{ width: `${progress * 100}%` }" />
    </div>
    <div class="line">
      <button class="icon-button" aria-label="Row before" @click="emit('step', -1)">
        <VIcon :icon="mdiChevronLeft" size="18" />
      </button>
      <span class="title"
        ><b>{{ about.title }}</b
        ><small class="quiet">{{ number }} of {{ of }}{{ about.on ? '' : ', off' }}</small></span
      >
      <button class="icon-button" :aria-label="playing ? 'Stop' : 'Play'" @click="playing = !playing">
        <VIcon :icon="playing ? mdiPause : mdiPlay" size="18" />
      </button>
      <button class="icon-button" aria-label="Next row" @click="emit('step', 1)">
        <VIcon :icon="mdiChevronRight" size="18" />
      </button>
    </div>
    <ul>
      <li v-for="fault in about.faults" :key="`${fault.place} ${fault.code}`" class="bad">
        <b>{{ fault.place }}</b> {{ fault.message }} <span class="quiet">{{ fault.remedy }} It is not rendered.</span>
      </li>
      <li v-for="flag in about.flags ?? []" :key="`${flag.check} ${flag.piece} ${flag.message}`">
        <b>{{ pieceName(flag.piece) }}</b> {{ flag.message }}
        <span class="quiet">{{ flag.remedy }}</span>
        <button v-if="flag.fits && flag.piece" class="plain-button" @click="emit('fit', flag.piece)">
          Fit to width
          <VTooltip activator="parent" text="Changes the card: in every row, words without room are made smaller" />
        </button>
      </li>
    </ul>
    <p v-if="about.blank" class="quiet">Nothing is written here yet: it is not rendered.</p>
    <p v-else-if="about.flags === null" class="quiet">It is looked at…</p>
    <p v-else-if="about.flags.length + about.faults.length === 0" class="quiet">
      Nothing to say: all fits, in every frame of the hold.
    </p>
    <NuxtLink class="plain-button bench" :to="`/card/${cardId}?roster=${rosterId}&row=${about.id}`">
      Show it on the bench
    </NuxtLink>
  </aside>
</template>

<style scoped>
.side {
  display: grid;
  gap: 10px;
  align-content: start;
  width: 332px;
  padding: 14px 16px;
  overflow: auto;
  border-left: 1px solid var(--line);
}
.picture {
  position: relative;
  display: grid;
  place-items: center;
  overflow: hidden;
  background: radial-gradient(90% 80% at 50% 40%, #4b4650, #2c2831);
  border-radius: 8px;
}
.progress {
  position: absolute;
  bottom: 0;
  left: 0;
  height: 3px;
  background: var(--wax);
}
.line {
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  gap: 4px;
  align-items: center;
}
.title {
  display: grid;
  min-width: 0;
}
.title b {
  overflow: hidden;
  font-weight: 650;
  text-overflow: ellipsis;
  white-space: nowrap;
}
ul {
  display: grid;
  gap: 8px;
  padding: 0;
  margin: 0;
  list-style: none;
}
li {
  padding: 8px 10px;
  background: var(--paper-2);
  border-left: 3px solid var(--line-strong);
  border-radius: 4px;
}
li.bad {
  border-left-color: var(--wax);
}
li .plain-button {
  display: block;
  margin-top: 6px;
}
p {
  margin: 0;
}
.bench {
  justify-self: start;
  text-decoration: none;
}
</style>
