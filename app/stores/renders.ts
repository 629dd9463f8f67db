import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Fault } from '#core/errors'
import type { RenderOptions, RenderWish } from '#core/formats/deliveries/render-options'
import type { RenderStatus, StoredFile } from '#server/database/schema'
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
  files: StoredFile[]
  take: number
  revision: number | null
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
  async function start(cardId: string, revision: number, options: RenderWish) {
    const row = await api<RenderRow>('/renders', 'POST', { cardId, revision, options })
    list.value = [row, ...list.value]
  }

  /** How many renders of a card there have been. */
  const takes = (cardId: string) =>
    Math.max(0, ...list.value.filter((row) => row.cardId === cardId).map(({ take }) => take))

  async function cancel(id: string) {
    await api(`/renders/${id}/cancel`, 'POST')
    await load()
  }

  async function remove(id: string) {
    await api(`/renders/${id}`, 'DELETE')
    list.value = list.value.filter((row) => row.id !== id)
  }

  return { list, loaded, busy, load, takes, start, cancel, remove }
})
