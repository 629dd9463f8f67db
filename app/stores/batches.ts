import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { ListedBatch } from '#server/renders/batch/listed'
import type { ListedRender } from '#server/renders/listed'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import { api } from '~/composables/api'

export interface BatchWish {
  cardId: string
  rosterId: string
  revision: number
  rosterRevision: number
  as: 'rows' | 'programme'
  options: RenderWish
}

/** Jobs of many files: a roster that is rendered. */
export const useBatches = defineStore('batches', () => {
  const list = ref<ListedBatch[]>([])
  /** Renders of those that are unfolded, in the order of their rows. */
  const rows = ref<Record<string, ListedRender[]>>({})

  const load = async () => {
    list.value = await api<ListedBatch[]>('/batches')
  }

  async function loadRows(id: string) {
    const { renders, ...batch } = await api<ListedBatch & { renders: ListedRender[] }>(`/batches/${id}`)
    rows.value = { ...rows.value, [id]: renders }
    put(batch)
  }

  function put(batch: ListedBatch) {
    const known = list.value.some(({ id }) => id === batch.id)
    list.value = known ? list.value.map((one) => (one.id === batch.id ? batch : one)) : [batch, ...list.value]
  }

  const start = async (wish: BatchWish) => put(await api<ListedBatch>('/batches', 'POST', wish))
  const cancel = async (id: string) => put(await api<ListedBatch>(`/batches/${id}/cancel`, 'POST'))
  const goOn = async (id: string) => put(await api<ListedBatch>(`/batches/${id}/go-on`, 'POST'))

  async function remove(id: string) {
    await api(`/batches/${id}`, 'DELETE')
    list.value = list.value.filter((one) => one.id !== id)
  }

  return { list, rows, load, loadRows, put, start, cancel, goOn, remove }
})
