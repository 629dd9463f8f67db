<script setup lang="ts">
import { ref } from 'vue'
import { addWash } from '#core/edit/finishes'
import type { ReadyWash } from '#core/edit/wash-mixes'
import { WASH_MIXES } from '#core/edit/wash-mixes'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** A wash at the playhead, with one of the ready-made mixes. */
const bench = useBench()
const ribbon = useRibbon()
const open = ref(false)

const framesOf = (mix: ReadyWash) => mix.frames(bench.card!)

/** A mix of some frames begins at the playhead; the others last for the whole loop. */
function add(mix: ReadyWash) {
  open.value = false
  const card = bench.card!
  const frames = framesOf(mix)
  const name = mix.name === 'Plain' ? 'Wash' : mix.name
  let made = ''
  bench.edit(`Add wash: ${name.toLowerCase()}`, (before) => {
    const added = addWash(before, frames === null ? 0 : ribbon.frame, frames ?? card.length, {
      name,
      finishes: mix.finishes(before),
    })
    made = added.id
    return added.card
  })
  bench.select(made)
}
</script>

<template>
  <button class="plain-button" title="A wash treats everything behind it, for the frames of its span">
    Wash here
    <VMenu v-model="open" activator="parent" location="top end">
      <div class="sheet" role="menu" aria-label="Wash here">
        <button v-for="mix in WASH_MIXES" :key="mix.name" role="menuitem" @click="add(mix)">
          {{ mix.name }}
          <small class="quiet">{{ mix.help }}</small>
          <span class="frames quiet">{{ framesOf(mix) === null ? 'whole loop' : `${framesOf(mix)} frames` }}</span>
        </button>
      </div>
    </VMenu>
  </button>
</template>

<style scoped>
.sheet {
  display: grid;
  padding: 6px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  box-shadow: var(--float);
}
.sheet button {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 18px;
  padding: 5px 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 6px;
}
.sheet button:hover,
.sheet button:focus-visible {
  background: var(--teal-soft);
}
small {
  grid-row: 2;
  font-size: 12px;
}
.frames {
  grid-row: 1;
  grid-column: 2;
  font-size: 12px;
}
</style>
