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

const MOST_STEPS = 300
/** Edits with the same mark within this time are one step: a value dragged is one undo. */
const ONE_GESTURE = 900
const SAVE_AFTER = 500

type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict'

/** The card on the bench: its document, history, selection and saving. */
export const useBench = defineStore('bench', () => {
  const id = ref('')
  const revision = ref(0)
  const card = shallowRef<Card | null>(null)
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const saveState = ref<SaveState>('saved')
  const saveFault = ref<Fault | null>(null)
  const selectedPiece = ref<string | null>(null)
  const selectedCoat = ref<string | null>(null)
  /** True while a control is dragged: the preview shows drafts. */
  const dragging = ref(false)

  let gesture = { mark: '', at: 0 }
  let timer: ReturnType<typeof setTimeout> | undefined
  let retry = 1000
  let unsaved = false

  const piece = computed<Piece | null>(
    () => allPieces(card.value?.pieces ?? []).find((p) => p.id === selectedPiece.value) ?? null,
  )
  const coat = computed<Coat | null>(() => {
    const coats = piece.value?.coats
    return coats ? ([...coats.face, ...coats.behind].find((c) => c.id === selectedCoat.value) ?? null) : null
  })
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
    unsaved = false
    selectedPiece.value = row.document.pieces[0]?.id ?? null
    selectedCoat.value = null
  }

  /** Changes the card as one named step. Edits with the same mark in quick succession are one step. */
  function edit(label: string, change: (card: Card) => Card, mark = '') {
    const before = card.value
    if (!before) return
    const after = change(before)
    if (after === before) return
    const now = Date.now()
    const goesOn = mark !== '' && gesture.mark === mark && now - gesture.at < ONE_GESTURE && past.value.length > 0
    if (!goesOn) past.value = [...past.value, { label, card: before }].slice(-MOST_STEPS)
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
    if (selectedPiece.value && !allPieces(next.pieces).some((p) => p.id === selectedPiece.value)) select(null)
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

  /** After a conflict: what is on this bench becomes a card of its own; gives its id. */
  async function keepAsCopy(): Promise<string> {
    const document = { ...card.value!, name: `${card.value!.name}, copy`.slice(0, 200) }
    const made = await api<{ id: string }>('/cards', 'POST', { document })
    unsaved = false
    return made.id
  }

  function select(pieceId: string | null, coatId: string | null = null) {
    selectedPiece.value = pieceId
    selectedCoat.value = coatId
  }

  const hasUnsaved = () => unsaved

  return {
    ...{ id, revision, card, past, future, saveState, saveFault, selectedPiece, selectedCoat, dragging },
    ...{ piece, coat, lanes },
    ...{ open, edit, settle, undo, redo, save, keepAsCopy, select, hasUnsaved },
  }
})
