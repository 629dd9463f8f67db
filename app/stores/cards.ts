import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { api } from '~/composables/api'

/** A card as it is listed: what is said of it without its document. */
export interface ShelfCard {
  id: string
  name: string
  revision: number
  updatedAt: string
  frame: Card['frame']
  rate: Card['rate']
  /** Frames. */
  length: number
  /** Labels of its fields. */
  fields: string[]
}

/** What the server says of a card that it made. */
type MadeCard = Pick<ShelfCard, 'id' | 'revision' | 'updatedAt'>

export interface DeletedCard {
  id: string
  name: string
  deletedAt: string
}

/** The cards on the shelf; their documents are fetched one by one, where they are wanted. */
export const useCards = defineStore('cards', () => {
  const list = ref<ShelfCard[]>([])
  const loaded = ref(false)

  /** Documents that were fetched, by the ids of their cards, as long as they are the newest. */
  const documents = new Map<string, { revision: number; document: Promise<Card> }>()

  async function load() {
    list.value = await api<ShelfCard[]>('/cards')
    loaded.value = true
  }

  /** A card's document, fetched once for each of its revisions. */
  function documentOf({ id, revision }: Pick<ShelfCard, 'id' | 'revision'>): Promise<Card> {
    const known = documents.get(id)
    if (known?.revision === revision) return known.document
    const document = api<{ document: Card }>(`/cards/${id}`).then((whole) => whole.document)
    documents.set(id, { revision, document })
    document.catch(() => documents.delete(id))
    return document
  }

  async function add(document: Card): Promise<ShelfCard> {
    const made = await api<MadeCard>('/cards', 'POST', { document })
    return listed(made, document)
  }

  async function rename(card: ShelfCard, name: string) {
    const document = { ...(await documentOf(card)), name }
    const saved = await api<Pick<ShelfCard, 'revision' | 'updatedAt'>>(`/cards/${card.id}`, 'PUT', {
      ...{ document, revision: card.revision },
    })
    replace({ ...card, ...saved, name })
  }

  const duplicate = async (card: ShelfCard) =>
    add({ ...(await documentOf(card)), name: `${card.name}, copy`.slice(0, 200) })

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
      const path = `/archives?name=${encodeURIComponent(file.name)}`
      const { document, ...made } = await api<MadeCard & { document: Card }>(path, 'POST', file)
      return { card: listed(made, document) }
    }
    // What reads card files is large: the shelf does without it until one comes.
    const { readCardText } = await import('#core/card/read')
    const { card, faults } = readCardText(await file.text())
    return card ? { card: await add(card) } : { faults }
  }

  const loadDeleted = () => api<DeletedCard[]>('/cards/deleted')

  /** A new card in front of all others. */
  function listed({ id, revision, updatedAt }: MadeCard, { name, frame, rate, length, fields }: Card): ShelfCard {
    const card = { id, name, revision, updatedAt, frame, rate, length, fields: fields.map(({ label }) => label) }
    list.value = [card, ...list.value]
    return card
  }

  function replace(card: ShelfCard) {
    list.value = list.value.map((other) => (other.id === card.id ? card : other))
  }

  return { list, loaded, load, documentOf, add, rename, duplicate, remove, restore, bringIn, loadDeleted }
})
