<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { defineAsyncComponent, onMounted, ref, watch } from 'vue'
import type { Roster } from '#core/rosters/roster'
import ExampleMenu from '~/components/shell/ExampleMenu.vue'
import { download } from '~/composables/download'
import { chosenFiles } from '~/composables/chosen-file'
import { useCards } from '~/stores/cards'
import { useNotices } from '~/stores/notices'
import type { ShelfRoster } from '~/stores/rosters'
import { useRosters } from '~/stores/rosters'
import { attempt } from '~/composables/attempt'

/** All rosters: tables of rows that fill the fields of cards. What reads tables comes with the first one that is brought in. */
const BringTable = defineAsyncComponent(() => import('~/components/rosters/BringTable.vue'))
const rosters = useRosters()
const cards = useCards()
const notices = useNotices()
const picker = ref<HTMLInputElement>()
const bringing = ref<File | null>(null)
const asked = ref(false)
watch(bringing, (file) => (asked.value ||= file !== null))

onMounted(() => attempt(() => rosters.load()))
const cardName = ({ cardId }: ShelfRoster) => cards.list.find(({ id }) => id === cardId)?.name ?? null

const create = () =>
  attempt(async () => {
    const { id } = await rosters.create('New roster', [], null)
    await navigateTo(`/roster/${id}`)
  })

const take = (table: Roster) =>
  attempt(async () => {
    bringing.value = null
    // The card whose fields it has by the same names is the one that it most likely fills.
    const headings = new Set(table.columns.map(({ name }) => name.toLowerCase()))
    const fitting = cards.list
      .map(({ id, fields }) => ({ id, count: fields.filter((label) => headings.has(label.toLowerCase())).length }))
      .sort((a, b) => b.count - a.count)[0]
    const { id } = await rosters.add(table, fitting && fitting.count > 0 ? fitting.id : null)
    await navigateTo(`/roster/${id}`)
  })

const remove = (roster: ShelfRoster) =>
  attempt(async () => {
    await rosters.remove(roster)
    notices.say(`“${roster.name}” was deleted.`, { label: 'Undo', run: () => attempt(() => rosters.restore(roster)) })
  })
</script>

<template>
  <section class="rosters" aria-label="Rosters">
    <div class="head">
      <h2>Rosters</h2>
      <span class="quiet">Many names out of one card: each row fills its fields and becomes a file</span>
      <span class="gap" />
      <button class="plain-button" @click="picker?.click()">Bring a table in…</button>
      <ExampleMenu at="roster" @bring="bringing = $event[0] ?? null" />
      <button class="plain-button" @click="create">New roster</button>
      <input
        ref="picker"
        type="file"
        accept=".csv,.tsv,.txt,.json,text/csv"
        hidden
        data-test="roster-file"
        @change="bringing = chosenFiles($event)[0] ?? null"
      />
    </div>
    <ul>
      <li v-for="roster in rosters.list" :key="roster.id">
        <NuxtLink :to="`/roster/${roster.id}`">
          <b>{{ roster.name }}</b>
          <span>{{ roster.rows }} {{ roster.rows === 1 ? 'row' : 'rows' }}</span>
          <span class="quiet">{{ roster.columns.join(', ') }}</span>
          <span class="quiet">{{ cardName(roster) ? `fills ${cardName(roster)}` : 'fills no card yet' }}</span>
        </NuxtLink>
        <button class="icon-button" :aria-label="`${roster.name}, more`">
          <VIcon :icon="mdiDotsHorizontal" size="18" />
          <VMenu activator="parent" location="bottom end">
            <VList density="compact">
              <VListItem
                title="Save as a file"
                subtitle=".csv"
                @click="download(`/api/rosters/${roster.id}/csv`, '')"
              />
              <VListItem title="Delete" @click="remove(roster)" />
            </VList>
          </VMenu>
        </button>
      </li>
    </ul>
    <p v-if="rosters.loaded && rosters.list.length === 0" class="quiet">
      None yet: bring a CSV in, or make one by hand.
    </p>
    <BringTable v-if="asked" :file="bringing" :fields="[]" @take="take" @close="bringing = null" />
  </section>
</template>

<style scoped>
.rosters {
  margin-top: 34px;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 10px;
}
h2 {
  margin: 0;
  font-size: 16px;
  font-weight: 650;
}
.gap {
  flex: 1;
}
ul {
  padding: 0;
  margin: 0;
  list-style: none;
  border-top: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 4px 6px;
  border-bottom: 1px solid var(--line);
}
li a {
  display: grid;
  grid-template-columns: minmax(0, 2fr) 80px minmax(0, 2fr) minmax(0, 2fr);
  gap: 12px;
  padding: 6px 0;
  color: inherit;
  text-decoration: none;
}
li a:hover b {
  color: var(--wax);
}
b,
li span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
b {
  font-weight: 600;
}
</style>
