import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Fault } from '#core/errors'
import type { Seal } from '#core/seals/schema'
import { api } from '~/composables/api'

export interface ShelfSeal {
  id: string
  name: string
  revision: number
  updatedAt: string
  document: Seal
}

/** The seals on the shelf, and which of the bench's sheets for them is open. */
export const useSeals = defineStore('seals', () => {
  const list = ref<ShelfSeal[]>([])
  const loaded = ref(false)
  /** Ids of the pieces on which a seal is about to be pressed; null while the sheet is closed. */
  const pressing = ref<string[] | null>(null)
  /** The piece whose core is about to be saved as a seal. */
  const saving = ref<string | null>(null)

  async function load() {
    list.value = await api<ShelfSeal[]>('/seals')
    loaded.value = true
  }

  const byName = (a: ShelfSeal, b: ShelfSeal) => a.name.localeCompare(b.name)

  async function add(document: Seal): Promise<ShelfSeal> {
    const seal = await api<ShelfSeal>('/seals', 'POST', { document })
    list.value = [...list.value, seal].sort(byName)
    return seal
  }

  async function change(seal: ShelfSeal, document: Seal): Promise<ShelfSeal> {
    const saved = await api<ShelfSeal>(`/seals/${seal.id}`, 'PUT', { document, revision: seal.revision })
    list.value = list.value.map((other) => (other.id === saved.id ? saved : other)).sort(byName)
    return saved
  }

  async function remove(seal: ShelfSeal) {
    await api(`/seals/${seal.id}`, 'DELETE')
    list.value = list.value.filter(({ id }) => id !== seal.id)
  }

  async function restore(seal: ShelfSeal) {
    await api(`/seals/${seal.id}/restore`, 'POST')
    await load()
  }

  /** Brings a set of seals in; gives every fault where the file is broken, and then adds none of it. */
  async function bringIn(text: string): Promise<{ added: ShelfSeal[] } | { faults: Fault[] }> {
    const { readSealsText } = await import('#core/seals/read')
    const { document, faults } = readSealsText(text)
    if (faults) return { faults }
    const added: ShelfSeal[] = []
    for (const seal of document.seals) added.push(await add(seal))
    return { added }
  }

  async function asFile(name: string, seals: readonly ShelfSeal[]) {
    const { writeSeals } = await import('#core/seals/read')
    return writeSeals(
      name,
      seals.map(({ document }) => document),
    )
  }

  /** Seals whose name or tags hold all words. */
  function search(words: string): ShelfSeal[] {
    const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
    return list.value.filter(({ document: { name, tags } }) => {
      const text = [name, ...tags].join(' ').toLowerCase()
      return wanted.every((word) => text.includes(word))
    })
  }

  return { list, loaded, pressing, saving, load, add, change, remove, restore, bringIn, asFile, search }
})
