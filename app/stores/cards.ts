import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { CardSize } from '#core/card/create'
import { createCard } from '#core/card/create'
import { readCardText } from '#core/card/read'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { api } from '~/composables/api'

export interface ShelfCard {
  id: string
  name: string
  revision: number
  updatedAt: string
  document: Card
}

export interface DeletedCard {
  id: string
  name: string
  deletedAt: string
}

/** The cards on the shelf. */
export const useCards = defineStore('cards', () => {
  const list = ref<ShelfCard[]>([])
  const loaded = ref(false)

  async function load() {
    list.value = await api<ShelfCard[]>('/cards')
    loaded.value = true
  }

  async function create(name: string, size: CardSize): Promise<ShelfCard> {
    return add(createCard(name, size))
  }

  async function add(document: Card): Promise<ShelfCard> {
    const card = await api<ShelfCard>('/cards', 'POST', { document })
    list.value = [card, ...list.value]
    return card
  }

  async function rename(card: ShelfCard, name: string) {
    const document = { ...card.document, name }
    const saved = await api<ShelfCard>(`/cards/${card.id}`, 'PUT', { document, revision: card.revision })
    replace({ ...saved, document })
  }

  const duplicate = (card: ShelfCard) => add({ ...card.document, name: `${card.name}, copy`.slice(0, 200) })

  async function remove(card: ShelfCard) {
    await api(`/cards/${card.id}`, 'DELETE')
    list.value = list.value.filter(({ id }) => id !== card.id)
  }

  async function restore(card: Pick<ShelfCard, 'id'>) {
    await api(`/cards/${card.id}/restore`, 'POST')
    await load()
  }

  /** Brings a card file or an archive in; gives every fault where a card is broken. */
  async function bringIn(file: File): Promise<{ card: ShelfCard } | { faults: Fault[] }> {
    if (/\.zip$/i.test(file.name)) {
      const card = await api<ShelfCard>(`/archives?name=${encodeURIComponent(file.name)}`, 'POST', file)
      list.value = [card, ...list.value]
      return { card }
    }
    const { card, faults } = readCardText(await file.text())
    return card ? { card: await add(card) } : { faults }
  }

  const loadDeleted = () => api<DeletedCard[]>('/cards/deleted')

  function replace(card: ShelfCard) {
    list.value = list.value.map((other) => (other.id === card.id ? card : other))
  }

  return { list, loaded, load, create, add, rename, duplicate, remove, restore, bringIn, loadDeleted }
})
