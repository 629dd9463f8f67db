import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { listParameters } from '#core/card/addresses'
import { isMoving } from '#core/card/moving'
import type { Card, Coat, Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { Fault } from '#core/errors'
import { ApiError, api, faultOf } from '~/composables/api'

interface Step {
  label: string
  card: Card
}

/** Edits with the same mark within this time are one step: a value dragged is one undo. */
const ONE_GESTURE = 900
const SAVE_AFTER = 500

type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict'

/** The card on the bench: its document, history, selection and saving. */
export const useBench = defineStore('bench', () => {
  const id = ref('')
  const revision = ref(0)
  const card = shallowRef<Card | null>(null)
  /** The card as it was when it was opened. */
  const opened = shallowRef<Card | null>(null)
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const saveState = ref<SaveState>('saved')
  const saveFault = ref<Fault | null>(null)
  /** Ids of the selected pieces; the last one is the piece that the stack unfolds. */
  const selection = ref<string[]>([])
  const selectedCoat = ref<string | null>(null)
  /** True while a control is dragged: the preview shows drafts. */
  const dragging = ref(false)

  /** True while another window has saved a newer revision than this one. */
  const newer = ref(false)
  const channel = new BroadcastChannel('wax-ribbon-cards')
  channel.onmessage = ({ data }: MessageEvent<{ id: string; revision: number }>) => heard(data.id, data.revision)

  let gesture = { mark: '', at: 0 }
  let timer: ReturnType<typeof setTimeout> | undefined
  let retry = 1000
  let unsaved = false

  const selectedPiece = computed(() => selection.value.at(-1) ?? null)
  const piece = computed<Piece | null>(
    () => allPieces(card.value?.pieces ?? []).find((p) => p.id === selectedPiece.value) ?? null,
  )
  const coat = computed<Coat | null>(() => {
    const coats = piece.value?.coats
    return coats ? ([...coats.face, ...coats.behind].find((c) => c.id === selectedCoat.value) ?? null) : null
  })
  /** The selected pieces in stack order. */
  const pieces = computed<Piece[]>(() =>
    allPieces(card.value?.pieces ?? []).filter((p) => selection.value.includes(p.id)),
  )
  const lanes = computed<ParameterPlace[]>(() =>
    card.value ? listParameters(card.value).filter(({ value }) => isMoving(value)) : [],
  )

  async function open(cardId: string) {
    clearTimeout(timer)
    const row = await api<{ id: string; revision: number; document: Card }>(`/cards/${cardId}`)
    id.value = row.id
    revision.value = row.revision
    card.value = row.document
    past.value = []
    future.value = []
    saveState.value = 'saved'
    saveFault.value = null
    newer.value = false
    unsaved = false
    opened.value = row.document
    select(row.document.pieces[0]?.id ?? null)
  }

  /** Changes the card as one named step. Edits with the same mark in quick succession are one step. */
  function edit(label: string, change: (card: Card) => Card, mark = '') {
    const before = card.value
    if (!before) return
    const after = change(before)
    if (after === before) return
    const now = Date.now()
    const goesOn = mark !== '' && gesture.mark === mark && now - gesture.at < ONE_GESTURE && past.value.length > 0
    if (!goesOn) past.value = [...past.value, { label, card: before }]
    gesture = { mark, at: now }
    future.value = []
    put(after)
  }

  /** Ends a gesture: the next edit is a step of its own. */
  function settle() {
    gesture = { mark: '', at: 0 }
    dragging.value = false
  }

  function undo() {
    const step = past.value.at(-1)
    if (!step || !card.value) return
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, { label: step.label, card: card.value }]
    settle()
    put(step.card)
  }

  function redo() {
    const step = future.value.at(-1)
    if (!step || !card.value) return
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, { label: step.label, card: card.value }]
    settle()
    put(step.card)
  }

  function put(next: Card) {
    card.value = next
    const there = new Set(allPieces(next.pieces).map((p) => p.id))
    if (selection.value.some((one) => !there.has(one))) selectAll(selection.value.filter((one) => there.has(one)))
    unsaved = true
    if (saveState.value !== 'conflict') saveState.value = 'waiting'
    schedule(SAVE_AFTER)
  }

  function schedule(after: number) {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), after)
  }

  /** Saves what is there; a lost server or database is tried again until it is back. */
  async function save() {
    clearTimeout(timer)
    const document = card.value
    if (!document || !unsaved || saveState.value === 'conflict' || saveState.value === 'saving') return
    saveState.value = 'saving'
    try {
      const saved = await api<{ revision: number }>(`/cards/${id.value}`, 'PUT', { document, revision: revision.value })
      revision.value = saved.revision
      saveFault.value = null
      retry = 1000
      channel.postMessage({ id: id.value, revision: saved.revision })
      // What was changed while it was under way is saved next.
      unsaved = card.value !== document
      saveState.value = unsaved ? 'waiting' : 'saved'
      if (unsaved) schedule(SAVE_AFTER)
    } catch (error) {
      saveFault.value = faultOf(error)
      const refused = error instanceof ApiError && error.status >= 400 && error.status < 500
      saveState.value = error instanceof ApiError && error.status === 409 ? 'conflict' : 'failed'
      if (refused) return
      retry = Math.min(15_000, retry * 1.6)
      schedule(retry)
    }
  }

  /** After a conflict: saves what is on this bench over the newer one, which is kept as a version. */
  async function takeOver() {
    const document = card.value!
    const saved = await api<{ revision: number }>(`/cards/${id.value}`, 'PUT', { document, takeOver: true })
    revision.value = saved.revision
    channel.postMessage({ id: id.value, revision: saved.revision })
    unsaved = card.value !== document
    saveState.value = unsaved ? 'waiting' : 'saved'
    newer.value = false
    if (unsaved) schedule(SAVE_AFTER)
  }

  /** Somebody saved a newer revision: this bench is told before it runs into it. */
  function heard(of: string, newest: number) {
    if (of === id.value && newest > revision.value && saveState.value !== 'saving') newer.value = true
  }

  async function lookForNewer() {
    if (!id.value || document.hidden || saveState.value === 'saving') return
    const mine = id.value
    const head = await api<{ revision: number }>(`/cards/${mine}/head`).catch(() => null)
    if (head) heard(mine, head.revision)
  }

  /** After a conflict: what is on this bench becomes a card of its own; gives its id. */
  async function keepAsCopy(): Promise<string> {
    const document = { ...card.value!, name: `${card.value!.name}, copy`.slice(0, 200) }
    const made = await api<{ id: string }>('/cards', 'POST', { document })
    unsaved = false
    return made.id
  }

  function select(pieceId: string | null, coatId: string | null = null) {
    // A coat of a piece that is selected beside others keeps them: shared coats are edited together.
    const kept = coatId !== null && pieceId !== null && selection.value.includes(pieceId) ? selection.value : []
    selection.value = pieceId === null ? [] : [...kept.filter((one) => one !== pieceId), pieceId]
    selectedCoat.value = coatId
  }

  function selectAll(ids: readonly string[]) {
    selection.value = [...ids]
    selectedCoat.value = null
  }

  /** Adds a piece to the selection, or takes it out. */
  function toggleSelected(pieceId: string) {
    const rest = selection.value.filter((one) => one !== pieceId)
    selectAll(rest.length === selection.value.length ? [...rest, pieceId] : rest)
  }

  /** Selects the pieces from the last selected one to this one, in stack order. */
  function selectTo(pieceId: string) {
    const order = allPieces(card.value?.pieces ?? []).map((p) => p.id)
    const [a, b] = [order.indexOf(selectedPiece.value ?? pieceId), order.indexOf(pieceId)]
    const between = order.slice(Math.min(a, b), Math.max(a, b) + 1)
    selectAll([...between.filter((one) => one !== pieceId), pieceId])
  }

  const isSelected = (pieceId: string) => selection.value.includes(pieceId)

  const hasUnsaved = () => unsaved

  return {
    ...{ id, revision, card, opened, past, future, saveState, saveFault, dragging },
    ...{ selection, selectedPiece, selectedCoat, piece, coat, pieces, lanes },
    ...{ newer, open, edit, settle, undo, redo, save, takeOver, lookForNewer, keepAsCopy, hasUnsaved },
    ...{ select, selectAll, toggleSelected, selectTo, isSelected },
  }
})
