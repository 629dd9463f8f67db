import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Fault } from '#core/errors'
import type { RenderStatus } from '#server/database/schema'
import type { RenderOptions } from '#server/renders/options'
import type { RenderReport } from '#server/renders/report'
import { api } from '~/composables/api'

export interface RenderRow {
  id: string
  cardId: string
  name: string
  options: RenderOptions
  status: RenderStatus
  framesTotal: number
  framesDone: number
  attempts: number
  fault: Fault | null
  report: RenderReport | null
  fileName: string | null
  fileBytes: number | null
  createdAt: string
  startedAt: string | null
  finishedAt: string | null
}

/** The press room's list. */
export const useRenders = defineStore('renders', () => {
  const list = ref<RenderRow[]>([])
  const loaded = ref(false)
  const busy = computed(() => list.value.some(({ status }) => ['queued', 'running', 'checking'].includes(status)))

  async function load() {
    list.value = await api<RenderRow[]>('/renders')
    loaded.value = true
  }

  /** Renders one revision of a card; the server refuses where a newer one has been saved. */
  async function start(cardId: string, revision: number, options: RenderOptions) {
    const row = await api<RenderRow>('/renders', 'POST', { cardId, revision, options })
    list.value = [row, ...list.value]
  }

  async function cancel(id: string) {
    await api(`/renders/${id}/cancel`, 'POST')
    await load()
  }

  async function remove(id: string) {
    await api(`/renders/${id}`, 'DELETE')
    list.value = list.value.filter((row) => row.id !== id)
  }

  return { list, loaded, busy, load, start, cancel, remove }
})
