<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import RenderSheet from '~/components/renders/RenderSheet.vue'
import { faultOf } from '~/composables/api'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useRenders } from '~/stores/renders'

// A render from the press room: first of which card.

const open = defineModel<boolean>({ required: true })
const cards = useCards()
const renders = useRenders()
const search = ref('')
const chosen = shallowRef<{ card: ShelfCard; document: Card } | null>(null)
const choosing = ref(false)
const fault = ref<Fault | null>(null)

const found = computed(() =>
  cards.list.filter(({ name }) => name.toLowerCase().includes(search.value.trim().toLowerCase())),
)

watch(open, async (now) => {
  chosen.value = null
  search.value = ''
  fault.value = null
  if (!now) return
  try {
    await cards.load()
  } catch (error) {
    fault.value = faultOf(error)
  }
})

async function choose(card: ShelfCard) {
  try {
    chosen.value = { card, document: await cards.documentOf(card) }
    choosing.value = true
  } catch (error) {
    fault.value = faultOf(error)
  }
}
// Whoever leaves the second sheet has left both.
watch(choosing, (now) => {
  if (!now) open.value = false
})

async function begin(wish: RenderWish): Promise<Fault | null> {
  const { id, revision } = chosen.value!.card
  await renders.start(id, revision, wish)
  return null
}
</script>

<template>
  <VDialog :model-value="open && !choosing" max-width="520" @update:model-value="open = $event">
    <section class="sheet dialog-sheet" aria-label="New render">
      <h2>Render which card?</h2>
      <input v-model="search" class="plain-field" type="search" placeholder="Find a card" aria-label="Find a card" />
      <p v-if="fault" class="fault-text" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <ul>
        <li v-for="card in found" :key="card.id">
          <button type="button" @click="choose(card)">
            <b>{{ card.name }}</b>
            <span class="quiet">{{ card.frame.width }}×{{ card.frame.height }}</span>
          </button>
        </li>
      </ul>
      <p v-if="cards.loaded && found.length === 0" class="quiet">No card has this in its name.</p>
    </section>
  </VDialog>
  <RenderSheet
    v-if="chosen"
    v-model="choosing"
    :card="chosen.document"
    :frame="Math.floor(chosen.document.length / 2)"
    :takes="renders.takes(chosen.card.id)"
    :begin="begin"
  />
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 12px;
}
input {
  height: 30px;
}
ul {
  max-height: 420px;
  padding: 0;
  margin: 0;
  overflow: auto;
  list-style: none;
}
li button {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  width: 100%;
  padding: 7px 8px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--line);
}
li button:hover {
  background: var(--paper-2);
}
b {
  font-weight: 600;
}
p {
  margin: 0;
}
</style>
