import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Roster } from '#core/rosters/roster'
import type { CardField } from '#core/card/fields'
import { api } from '~/composables/api'

/** A roster as the shelf lists it. */
export interface ShelfRoster {
  id: string
  name: string
  cardId: string | null
  revision: number
  rows: number
  columns: string[]
  updatedAt: string
}

export interface WholeRoster {
  id: string
  name: string
  cardId: string | null
  revision: number
  document: Roster
}

/** Rows of a roster that is made by hand begin empty. */
const FIRST_ROWS = 5

/** The rosters on the shelf. */
export const useRosters = defineStore('rosters', () => {
  const list = ref<ShelfRoster[]>([])
  const loaded = ref(false)

  async function load() {
    list.value = await api<ShelfRoster[]>('/rosters')
    loaded.value = true
  }

  const find = (id: string) => api<WholeRoster>(`/rosters/${id}`)

  async function add(document: Roster, cardId: string | null): Promise<WholeRoster> {
    const made = await api<WholeRoster>('/rosters', 'POST', { document, cardId })
    loaded.value = false
    return made
  }

  /** An empty roster for the fields of a card: a column for each. */
  async function create(name: string, fields: readonly Pick<CardField, 'label'>[], cardId: string | null) {
    const [{ createRoster }, { addColumn, addRows }] = await Promise.all([
      import('#core/rosters/roster'),
      import('#core/rosters/edit'),
    ])
    const headings = fields.length > 0 ? fields.map(({ label }) => label) : ['Name']
    const columned = headings.reduce((roster, label) => addColumn(roster, label).roster, createRoster(name))
    return add(addRows(columned, FIRST_ROWS).roster, cardId)
  }

  async function remove({ id }: Pick<ShelfRoster, 'id'>) {
    await api(`/rosters/${id}`, 'DELETE')
    list.value = list.value.filter((one) => one.id !== id)
  }

  async function restore({ id }: Pick<ShelfRoster, 'id'>) {
    await api(`/rosters/${id}/restore`, 'POST')
    await load()
  }

  return { list, loaded, load, find, add, create, remove, restore }
})
