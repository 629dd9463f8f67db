<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import type { CardSize } from '#core/card/create'
import type { Fault } from '#core/errors'
import { fileStem } from '#core/formats/file-stem'
import CardTile from '~/components/shelf/CardTile.vue'
import FaultList from '~/components/shelf/FaultList.vue'
import NewCardDialog from '~/components/shelf/NewCardDialog.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { faultOf } from '~/composables/api'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useNotices } from '~/stores/notices'

useTitle('Shelf · Wax Ribbon')
const cards = useCards()
const notices = useNotices()
const search = ref('')
const making = ref(false)
const failed = ref<Fault | null>(null)
const faults = ref<Fault[]>([])
const fileName = ref('')
const picker = ref<HTMLInputElement>()

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return cards.list.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
})

onMounted(load)

async function load() {
  failed.value = null
  try {
    await cards.load()
  } catch (error) {
    failed.value = faultOf(error)
  }
}

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

const create = (name: string, size: CardSize) =>
  attempt(async () => {
    const { id } = await cards.create(name, size)
    await navigateTo(`/card/${id}`)
  })

const remove = (card: ShelfCard) =>
  attempt(async () => {
    await cards.remove(card)
    notices.say(`“${card.name}” was deleted.`, { label: 'Undo', run: () => attempt(() => cards.restore(card)) })
  })

const bringIn = (event: Event) =>
  attempt(async () => {
    const input = event.target as HTMLInputElement
    const [file] = input.files ?? []
    input.value = ''
    if (!file) return
    fileName.value = file.name
    const outcome = await cards.bringIn(await file.text())
    if ('faults' in outcome) faults.value = outcome.faults
    else notices.say(`“${outcome.card.name}” is on the shelf.`)
  })

function save(card: ShelfCard) {
  const url = URL.createObjectURL(
    new Blob([`${JSON.stringify(card.document, null, 2)}\n`], { type: 'application/json' }),
  )
  const link = Object.assign(document.createElement('a'), { href: url, download: `${fileStem(card.name)}.card.json` })
  link.click()
  URL.revokeObjectURL(url)
}
</script>

<template>
  <div class="shelf">
    <PlaceBar>
      <input v-model="search" class="search" type="search" placeholder="Find a card" aria-label="Find a card" />
      <button class="plain-button" @click="picker?.click()">Bring in…</button>
      <input ref="picker" type="file" accept=".json,application/json" hidden data-test="card-file" @change="bringIn" />
      <button class="wax-button" @click="making = true">New card</button>
    </PlaceBar>
    <div class="room">
      <div class="head">
        <h1>Cards</h1>
        <span class="quiet">last touched first</span>
      </div>
      <p v-if="failed" class="failed" role="alert">
        {{ failed.message }} {{ failed.remedy }} <button class="plain-button" @click="load">Try again</button>
      </p>
      <div v-else class="tiles">
        <CardTile
          v-for="card in found"
          :key="card.id"
          :card="card"
          @rename="attempt(() => cards.rename(card, $event))"
          @duplicate="attempt(() => cards.duplicate(card))"
          @remove="remove(card)"
          @export="save(card)"
        />
        <button v-if="cards.loaded && !search" class="new" @click="making = true">
          <b>New card from a size</b>
          <span class="quiet">1920×1080 · 3840×2160 · 1080×1920 · your own</span>
        </button>
      </div>
      <p v-if="cards.loaded && search && found.length === 0" class="quiet">No card has “{{ search }}” in its name.</p>
    </div>
    <NewCardDialog v-model="making" @create="create" />
    <FaultList v-model="faults" :file-name="fileName" />
  </div>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.search {
  width: 240px;
  height: 30px;
  padding: 0 10px;
  margin-left: auto;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.room {
  flex: 1;
  padding: 18px 26px 40px;
  overflow: auto;
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  margin-bottom: 12px;
}
h1 {
  margin: 0;
  font-size: 17px;
  font-weight: 650;
}
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(282px, 1fr));
  gap: 20px 18px;
}
.new {
  display: grid;
  gap: 4px;
  place-content: center;
  aspect-ratio: 16 / 9;
  font: inherit;
  color: inherit;
  text-align: center;
  cursor: pointer;
  background: var(--paper-2);
  border: 1px dashed var(--line-strong);
  border-radius: 8px;
}
.new:hover {
  border-color: var(--teal);
}
.failed {
  color: var(--wax);
}
</style>
