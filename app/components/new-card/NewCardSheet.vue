<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { ref } from 'vue'
import type { Card } from '#core/card/schema'
import type { StartingPoint, StartKind } from '#core/starting-points/definition'
import { START_KINDS } from '#core/starting-points/definition'
import EmptyCard from './EmptyCard.vue'
import FrameSize from './FrameSize.vue'
import StartAnswers from './StartAnswers.vue'
import StartGallery from './StartGallery.vue'
import type { FrameChoice } from './frame-sizes'
import { FIRST_FRAME } from './frame-sizes'

/** Where a card begins: a whole design whose words and colours are asked for, or an empty frame. */
const emit = defineEmits<{ create: [card: Card]; close: [] }>()

const frame = ref<FrameChoice>({ ...FIRST_FRAME })
const kind = ref<StartKind | 'all' | 'empty'>('all')
const chosen = ref<StartingPoint | null>(null)
const KINDS: [StartKind | 'all', string][] = [
  ['all', 'All designs'],
  ...(Object.entries(START_KINDS) as [StartKind, string][]),
]

function show(which: StartKind | 'all' | 'empty') {
  kind.value = which
  chosen.value = null
}
</script>

<template>
  <section class="sheet dialog-sheet" aria-label="New card">
    <header>
      <h2>New card</h2>
      <FrameSize v-model="frame" />
      <button class="icon-button close" aria-label="Close" @click="emit('close')">
        <VIcon :icon="mdiClose" size="18" />
      </button>
    </header>
    <nav aria-label="What it is for">
      <button v-for="[id, label] in KINDS" :key="id" :aria-current="kind === id" @click="show(id)">{{ label }}</button>
      <button class="apart" :aria-current="kind === 'empty'" @click="show('empty')">Empty card</button>
    </nav>
    <EmptyCard v-if="kind === 'empty'" v-model="frame" @create="emit('create', $event)" />
    <StartAnswers
      v-else-if="chosen"
      :key="chosen.id"
      :start="chosen"
      :frame="frame"
      @back="chosen = null"
      @create="emit('create', $event)"
    />
    <div v-else class="scrolled">
      <StartGallery :frame="frame" :kind="kind" @pick="chosen = $event" />
    </div>
  </section>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template: auto minmax(0, 1fr) / 150px minmax(0, 1fr);
  gap: 14px 18px;
  height: min(760px, 92vh);
}
header {
  display: flex;
  grid-column: 1 / -1;
  gap: 18px;
  align-items: center;
}
h2 {
  min-width: 132px;
}
.close {
  margin-left: auto;
}
nav {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
nav button {
  height: 30px;
  padding: 0 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 6px;
}
nav button:hover {
  background: var(--paper-2);
}
nav button[aria-current='true'] {
  font-weight: 650;
  color: var(--ink);
  background: var(--teal-soft);
}
.apart {
  margin-top: 10px;
}
.scrolled {
  padding: 2px;
  overflow: auto;
}
@media (max-width: 900px) {
  header {
    flex-wrap: wrap;
  }
  .sheet {
    height: auto;
    grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  }
  nav {
    flex-flow: row wrap;
  }
}
</style>
