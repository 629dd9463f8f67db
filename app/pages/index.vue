<script setup lang="ts">
import { useLocalStorage, useTitle, whenever } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, onScopeDispose, ref, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { fileStem } from '#core/formats/file-stem'
import NewCardDialog from '~/components/new-card/NewCardDialog.vue'
import CardTile from '~/components/shelf/CardTile.vue'
import DeletedCards from '~/components/shelf/DeletedCards.vue'
import FaultList from '~/components/shelf/FaultList.vue'
import RosterShelf from '~/components/shelf/RosterShelf.vue'
import ExampleMenu from '~/components/shell/ExampleMenu.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { chosenFiles } from '~/composables/chosen-file'
import { faultOf } from '~/composables/api'
import { download } from '~/composables/download'
import { keepOnly } from '~/composables/kept-pictures'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useNotices } from '~/stores/notices'
import { useSeals } from '~/stores/seals'
import { attempt } from '~/composables/attempt'
import { inTurn, wakeEngines } from '~/workers/engine-pool'

// Swatches of seals need every kind of coat: they come when all cards are there.
const SealShelf = defineAsyncComponent(() => import('~/components/shelf/SealShelf.vue'))

useTitle('Shelf · Wax Ribbon')
const cards = useCards()
const seals = useSeals()
const notices = useNotices()
const search = ref('')
const making = ref(false)
const failed = ref<Fault | null>(null)
const faults = ref<Fault[]>([])
const fileName = ref('')
const picker = ref<HTMLInputElement>()
const dragging = ref(false)

const ORDERS = {
  touched: { label: 'last touched first', by: () => 0 },
  name: { label: 'by name', by: (a: ShelfCard, b: ShelfCard) => a.name.localeCompare(b.name) },
  size: {
    label: 'largest frame first',
    by: (a: ShelfCard, b: ShelfCard) => pixels(b) - pixels(a) || a.name.localeCompare(b.name),
  },
  length: { label: 'longest loop first', by: (a: ShelfCard, b: ShelfCard) => lasting(b) - lasting(a) },
}
const pixels = ({ frame }: ShelfCard) => frame.width * frame.height
const lasting = ({ length, rate }: ShelfCard) => (length * rate.denominator) / rate.numerator
const order = useLocalStorage<keyof typeof ORDERS>('wax-shelf-order', 'touched')

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const named = cards.list.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
  return order.value === 'touched' ? named : [...named].sort(ORDERS[order.value].by)
})

/** Tiles that are there: a screen of them at once, the others a few at a time as the page is idle: hundreds hold nobody up. */
const SCREEN = 16
const FEW = 4
const made = ref(SCREEN)
const shownTiles = computed(() => found.value.slice(0, made.value))
const whole = computed(() => cards.loaded && shownTiles.value.length === found.value.length)
/** On the way to a card: a tile more would keep its bench waiting. A way that leads nowhere ends here again. */
const leaving = ref(false)
onBeforeRouteLeave(() => void (leaving.value = true))
const router = useRouter()
onScopeDispose(router.afterEach((_to, _from, failure) => failure && (leaving.value = false)))
onScopeDispose(router.onError(() => (leaving.value = false)))
watch(
  [made, () => found.value.length, leaving],
  ([count, all, gone]) => {
    if (gone || count >= all) return
    requestIdleCallback(() => leaving.value || (made.value = count + FEW), { timeout: 200 })
  },
  { flush: 'post' },
)

onMounted(load)

async function load() {
  failed.value = null
  try {
    await Promise.all([cards.load(), seals.load()])
  } catch (error) {
    failed.value = faultOf(error)
  }
}

// When all that is looked at is there: the next step is most likely a card, and its bench and engines are waiting then.
const prepare = async () => {
  await keepOnly(cards.list.map(({ id }) => id))
  wakeEngines()
  await preloadRouteComponents('/card/next')
}
whenever(whole, () => inTurn(prepare, () => true), { immediate: true, once: true })

const create = (document: Card) =>
  attempt(async () => {
    const { id } = await cards.add(document)
    await navigateTo(`/card/${id}`)
  })

const remove = (card: ShelfCard) =>
  attempt(async () => {
    await cards.remove(card)
    notices.say(`“${card.name}” was deleted.`, { label: 'Undo', run: () => attempt(() => cards.restore(card)) })
  })

/** Cards, archives and sets of seals, told apart by their names. */
const bringIn = (files: readonly File[]) =>
  attempt(async () => {
    for (const file of files) {
      fileName.value = file.name
      const isSeals = /\.seals\.json$/i.test(file.name)
      const outcome = isSeals ? await seals.bringIn(await file.text()) : await cards.bringIn(file)
      if ('faults' in outcome) {
        faults.value = outcome.faults
        return
      }
      notices.say(
        'added' in outcome
          ? `${outcome.added.length} ${outcome.added.length === 1 ? 'seal was' : 'seals were'} brought in.`
          : `“${outcome.card.name}” is on the shelf.`,
      )
    }
  })

const chosen = (event: Event) => void bringIn(chosenFiles(event))

function drop(event: DragEvent) {
  dragging.value = false
  void bringIn([...(event.dataTransfer?.files ?? [])])
}

const save = (card: ShelfCard, whole: boolean) =>
  attempt(async () => {
    if (whole) download(`/api/cards/${card.id}/archive`, `${fileStem(card.name)}.card.zip`)
    else download(await cards.documentOf(card), `${fileStem(card.name)}.card.json`)
  })
</script>

<template>
  <div
    class="place-page"
    :class="{ dragging }"
    @dragover.prevent="dragging = true"
    @dragleave.self="dragging = false"
    @drop.prevent="drop"
  >
    <PlaceBar>
      <input v-model="search" class="place-search" type="search" placeholder="Find a card" aria-label="Find a card" />
      <button class="plain-button" @click="picker?.click()">Bring in…</button>
      <ExampleMenu at="shelf" @bring="bringIn" />
      <input
        ref="picker"
        type="file"
        accept=".json,.zip,application/json,application/zip"
        multiple
        hidden
        data-test="card-file"
        @change="chosen"
      />
      <button class="wax-button" @click="making = true">New card</button>
    </PlaceBar>
    <main class="place-room">
      <div class="place-head">
        <h1>Cards</h1>
        <select v-model="order" class="quiet-choice" aria-label="Order of the cards">
          <option v-for="({ label }, id) in ORDERS" :key="id" :value="id">{{ label }}</option>
        </select>
      </div>
      <p v-if="failed" class="failed" role="alert">
        {{ failed.message }} {{ failed.remedy }} <button class="plain-button" @click="load">Try again</button>
      </p>
      <div v-else class="tiles">
        <CardTile
          v-for="card in shownTiles"
          :key="card.id"
          :card="card"
          @rename="attempt(() => cards.rename(card, $event))"
          @duplicate="attempt(() => cards.duplicate(card))"
          @remove="remove(card)"
          @export="save(card, $event)"
        />
        <button v-if="cards.loaded && !search" class="new" @click="making = true">
          <b>New card</b>
          <span class="quiet">from a design, or an empty frame</span>
        </button>
      </div>
      <p v-if="cards.loaded && search && found.length === 0" class="quiet">No card has “{{ search }}” in its name.</p>
      <DeletedCards />
      <RosterShelf />
      <SealShelf v-if="whole" />
    </main>
    <NewCardDialog v-model="making" @create="create" />
    <FaultList v-model="faults" :file-name="fileName" />
  </div>
</template>

<style scoped>
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
.dragging .place-room {
  outline: 3px dashed var(--teal);
  outline-offset: -10px;
}
.failed {
  color: var(--wax);
}
</style>
