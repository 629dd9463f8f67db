<script setup lang="ts">
import { useIntersectionObserver, useIntervalFn, useLocalStorage, useTitle } from '@vueuse/core'
import { group as grouped } from 'd3'
import { computed, onMounted, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { RenderOptions, RenderWish } from '#core/formats/deliveries/render-options'
import type { ProofFinding } from '#core/judge/proof/definition'
import { CLEANING_WORDS } from '#server/renders/cleaning-rule'
import BatchItem from '~/components/press-room/BatchItem.vue'
import ChecksSheet from '~/components/press-room/ChecksSheet.vue'
import NewRender from '~/components/press-room/NewRender.vue'
import RenderItem from '~/components/press-room/RenderItem.vue'
import WorkersSheet from '~/components/press-room/WorkersSheet.vue'
import ProofSheet from '~/components/renders/ProofSheet.vue'
import RenderSheet from '~/components/renders/RenderSheet.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { api, faultOf } from '~/composables/api'
import { BACKDROPS } from '~/composables/backdrops'
import { useBatches } from '~/stores/batches'
import type { RenderRow } from '~/stores/renders'
import { isActive, useRenders } from '~/stores/renders'
import { useWorkers } from '~/stores/workers'
import { forgetCard, setCard } from '~/workers/engine-pool'
import { attempt } from '~/composables/attempt'

useTitle('Press room · Wax Ribbon')
const renders = useRenders()
const batches = useBatches()
const workers = useWorkers()
const failed = ref<Fault | null>(null)
const search = ref('')
const backdrop = useLocalStorage('wax-press-backdrop', 'dusk')
const order = useLocalStorage<'time' | 'card'>('wax-press-order', 'time')

/** What a sheet is about. */
const subject = shallowRef<{ row: RenderRow; document: Card | null } | null>(null)
const checking = ref(false)
const repeating = ref(false)
const proving = ref(false)
const making = ref(false)
const workersShown = ref(false)
const proofName = 'press-proof'

onMounted(load)
onScopeDispose(renders.follow())
/** Jobs of many files are asked for while one is in work. */
const busyBatches = computed(() =>
  batches.list.some(({ total, done, failed: lost, cancelled }) => done + lost + cancelled < total),
)
useIntervalFn(() => {
  if (busyBatches.value) void batches.load().catch(() => {})
}, 1000)
useIntervalFn(() => void workers.load().catch(() => {}), 3000, { immediateCallback: true })

async function load() {
  try {
    await Promise.all([renders.load(), batches.load()])
    failed.value = null
  } catch (error) {
    failed.value = faultOf(error)
  }
}

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return renders.list.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
})

const foundBatches = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return batches.list.filter(({ rosterName, cardName }) =>
    words.every((word) => `${rosterName} ${cardName}`.toLowerCase().includes(word)),
  )
})

interface Group {
  id: string
  name: string
  count: number
  rows: RenderRow[]
}

/** By card: those whose last render is newest stand first. As many are drawn as have been scrolled to. */
const groups = computed<Group[]>(() => {
  if (order.value === 'time') {
    return [{ id: '', name: '', count: found.value.length, rows: found.value.slice(0, drawn.value) }]
  }
  let room = drawn.value
  return [...grouped(found.value, ({ cardId }) => cardId)].flatMap(([id, all]) => {
    const rows = all.slice(0, Math.max(0, room))
    room -= rows.length
    return rows.length > 0 ? [{ id, name: all[0]!.name, count: all.length, rows }] : []
  })
})

/** Renders that are drawn; those below come when one is near them. */
const LOT = 40
const drawn = ref(LOT)
const end = useTemplateRef<HTMLElement>('end')
useIntersectionObserver(
  end,
  (entries) => {
    if (entries.some(({ isIntersecting }) => isIntersecting)) drawn.value += LOT
  },
  { rootMargin: '1200px' },
)
watch([search, order], () => (drawn.value = LOT))

function showChecks(row: RenderRow) {
  subject.value = { row, document: null }
  checking.value = true
}

const withDocument = (row: RenderRow, then: () => void) =>
  attempt(async () => {
    subject.value = { row, document: await api<Card>(`/renders/${row.id}/document`) }
    then()
  })

const again = (row: RenderRow) => withDocument(row, () => (repeating.value = true))

async function beginAgain(wish: RenderWish): Promise<Fault | null> {
  await renders.again(subject.value!.row.id, wish)
  return null
}

const proof = (row: RenderRow) =>
  withDocument(row, () => {
    setCard(proofName, subject.value!.document!)
    proving.value = true
  })
onScopeDispose(() => forgetCard(proofName))

function goTo({ piece, frame, row }: ProofFinding, roster: string) {
  const query = {
    ...(piece === null ? {} : { piece }),
    ...(frame === null ? {} : { frame: String(frame) }),
    ...(row === undefined ? {} : { roster, row }),
  }
  void navigateTo({ path: `/card/${subject.value!.row.cardId}`, query })
}

const options = computed(() => subject.value?.row.options as RenderOptions | undefined)
const inWork = computed(() => renders.list.filter(isActive).length)
</script>

<template>
  <div class="place-page">
    <PlaceBar>
      <input
        v-model="search"
        class="place-search"
        type="search"
        placeholder="Find a render"
        aria-label="Find a render"
      />
      <button class="plain-button" @click="workersShown = true">{{ workers.words }}</button>
      <button class="wax-button" @click="making = true">New render</button>
    </PlaceBar>
    <main class="place-room">
      <div class="place-head">
        <h1>Renders</h1>
        <span v-if="inWork > 0" class="quiet">{{ inWork }} in work</span>
        <select v-model="order" class="quiet-choice" aria-label="Order of the renders">
          <option value="time">newest first</option>
          <option value="card">by card</option>
        </select>
        <select v-model="backdrop" class="quiet-choice" aria-label="Backdrop of the pictures">
          <option v-for="{ id, label } in BACKDROPS" :key="id" :value="id">over {{ label.toLowerCase() }}</option>
        </select>
      </div>
      <p v-if="failed" class="failed" role="alert">
        {{ failed.message }} {{ failed.remedy }} <button class="plain-button" @click="load">Try again</button>
      </p>
      <section v-if="foundBatches.length > 0" class="list" aria-label="Rosters">
        <BatchItem
          v-for="batch in foundBatches"
          :key="batch.id"
          :batch="batch"
          :backdrop="backdrop"
          @cancel="attempt(() => batches.cancel(batch.id))"
          @go-on="attempt(() => batches.goOn(batch.id))"
          @remove="attempt(() => batches.remove(batch.id))"
          @checks="showChecks"
          @cancel-row="
            (row) => attempt(() => api(`/renders/${row}/cancel`, 'POST').then(() => batches.loadRows(batch.id)))
          "
          @go-on-row="
            (row) => attempt(() => api(`/renders/${row}/go-on`, 'POST').then(() => batches.loadRows(batch.id)))
          "
        />
      </section>
      <section v-for="group in groups" :key="group.id" class="list" :aria-label="group.name || 'All renders'">
        <h2 v-if="group.id">
          <NuxtLink :to="`/card/${group.id}`">{{ group.name }}</NuxtLink>
          <span class="quiet">{{ group.count }} {{ group.count === 1 ? 'render' : 'renders' }}</span>
        </h2>
        <RenderItem
          v-for="row in group.rows"
          :key="row.id"
          :row="row"
          :backdrop="backdrop"
          @cancel="attempt(() => renders.cancel(row.id))"
          @remove="attempt(() => renders.remove(row.id))"
          @go-on="attempt(() => renders.goOn(row.id))"
          @keep="attempt(() => renders.keep(row.id, $event))"
          @checks="showChecks(row)"
          @again="again(row)"
          @proof="proof(row)"
        />
      </section>
      <div v-if="drawn < found.length" :key="drawn" ref="end" class="end" />
      <p v-if="renders.loaded && search && found.length === 0" class="quiet">
        No render has “{{ search }}” in its name.
      </p>
      <div v-if="renders.loaded && renders.list.length + batches.list.length === 0" class="empty">
        <h2>Nothing was rendered yet</h2>
        <p>
          Choose a card and a form, such as ProRes 4444 for an edit suite. The file is read again when it is written,
          and offered here once its transparency is verified.
        </p>
        <button class="wax-button" @click="making = true">New render</button>
      </div>
      <p v-else-if="renders.loaded" class="quiet rule">{{ CLEANING_WORDS }}</p>
    </main>
    <ChecksSheet v-model="checking" :row="subject?.row ?? null" />
    <WorkersSheet v-model="workersShown" />
    <NewRender v-model="making" />
    <template v-if="subject?.document">
      <RenderSheet
        v-model="repeating"
        :card="subject.document"
        :frame="options?.from ?? 0"
        :takes="renders.takes(subject.row.cardId)"
        :initial="options ?? null"
        :begin="beginAgain"
      />
      <ProofSheet
        v-model="proving"
        :card="subject.document"
        :card-id="subject.row.cardId"
        :engine-name="proofName"
        @go-to="goTo"
      />
    </template>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 10px;
}
.list + .list {
  margin-top: 22px;
}
h2 {
  display: flex;
  gap: 10px;
  align-items: baseline;
  margin: 0;
  font-size: 14px;
  font-weight: 650;
}
h2 a {
  color: inherit;
}
h2 .quiet {
  font-weight: 400;
}
.end {
  height: 1px;
}
.empty {
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 560px;
  padding: 28px;
  background: var(--paper-2);
  border-radius: 8px;
}
.empty p {
  margin: 0;
}
.rule {
  margin: 16px 2px 0;
  font-size: 12px;
}
.failed {
  color: var(--wax);
}
</style>
