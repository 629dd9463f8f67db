import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import type { ListedRender } from '#server/renders/listed'
import { api } from '~/composables/api'
import type { Pace } from '~/composables/pace'
import { paceOf } from '~/composables/pace'
import { hearOfRenders } from '~/composables/render-stream'

export type RenderRow = ListedRender

export const isActive = ({ status }: RenderRow): boolean => ['queued', 'running', 'checking'].includes(status)

/** The press room's list. */
export const useRenders = defineStore('renders', () => {
  const list = ref<RenderRow[]>([])
  const loaded = ref(false)
  /** How fast those are that are in work. */
  const paces = ref(new Map<string, Pace>())
  const busy = computed(() => list.value.some(isActive))

  function notePace(row: RenderRow) {
    const pace = isActive(row) ? paceOf(paces.value.get(row.id), row, performance.now()) : null
    if (pace) paces.value.set(row.id, pace)
    else paces.value.delete(row.id)
  }

  async function load() {
    list.value = await api<RenderRow[]>('/renders')
    list.value.forEach(notePace)
    loaded.value = true
  }

  /** Puts a row in its place. */
  function put(row: RenderRow) {
    notePace(row)
    const at = list.value.findIndex(({ id }) => id === row.id)
    if (at < 0) list.value = [row, ...list.value]
    else list.value.splice(at, 1, row)
  }

  function drop(id: string) {
    list.value = list.value.filter((row) => row.id !== id)
    paces.value.delete(id)
  }

  /** Keeps the list as the server has it, until the function that is given back is called. */
  function follow(): () => void {
    return hearOfRenders((message) => {
      // What changed while nobody listened is asked for.
      if ('open' in message) void load().catch(() => {})
      else if (message.event === 'gone') drop(message.data)
      else put(JSON.parse(message.data) as RenderRow)
    })
  }

  /** Renders one revision of a card; the server refuses where a newer one has been saved. */
  async function start(cardId: string, revision: number, options: RenderWish) {
    put(await api<RenderRow>('/renders', 'POST', { cardId, revision, options }))
  }

  /** Renders the card of an earlier render, as it was. */
  async function again(renderId: string, options: RenderWish) {
    put(await api<RenderRow>('/renders', 'POST', { renderId, options }))
  }

  /** How many renders of a card there have been. */
  const takes = (cardId: string) =>
    Math.max(0, ...list.value.filter((row) => row.cardId === cardId).map(({ take }) => take))

  const cancel = async (id: string) => put(await api<RenderRow>(`/renders/${id}/cancel`, 'POST'))
  const goOn = async (id: string) => put(await api<RenderRow>(`/renders/${id}/go-on`, 'POST'))
  const keep = async (id: string, kept: boolean) => put(await api<RenderRow>(`/renders/${id}`, 'PATCH', { kept }))

  async function remove(id: string) {
    await api(`/renders/${id}`, 'DELETE')
    drop(id)
  }

  return { list, loaded, paces, busy, load, follow, takes, start, again, cancel, goOn, keep, remove }
})
