import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { listParameters } from '#core/card/addresses'
import { isMoving } from '#core/values/moving'
import type { Card, Coat, Finish, Mask, OutlineStep, Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { Fault } from '#core/errors'
import { api } from '~/composables/api'
import type { SaveRoad, SaveState } from '~/composables/document-saver'
import { DocumentSaver } from '~/composables/document-saver'
import { nanoid } from 'nanoid'

interface Step {
  label: string
  card: Card
}

/** Edits with the same mark within this time are one step: a value dragged is one undo. */
const ONE_GESTURE = 900

const ROAD: SaveRoad<Card> = {
  send: (card, request) => api(`/cards/${card}`, 'PUT', request),
  newId: () => nanoid(16),
  later: (ms, work) => {
    const timer = setTimeout(work, ms)
    return () => clearTimeout(timer)
  },
}

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
  /** A coat, a finish, an outline step or a mask of it. */
  const selectedPart = ref<string | null>(null)
  /** True while a control is dragged: the preview shows drafts. */
  const dragging = ref(false)

  /** True while another window has saved a newer revision than this one. */
  const newer = ref(false)
  const channel = new BroadcastChannel('wax-ribbon-cards')
  channel.onmessage = ({ data }: MessageEvent<{ id: string; revision: number }>) => heard(data.id, data.revision)

  let gesture = { mark: '', at: 0 }
  let saver: DocumentSaver<Card> | null = null
  /** Savers of cards that were left before all had arrived. */
  const leaving = new Map<string, DocumentSaver<Card>>()
  /** Which opening is the last: the answers of earlier ones come too late. */
  let opening = 0

  const selectedPiece = computed(() => selection.value.at(-1) ?? null)
  const piece = computed<Piece | null>(
    () => allPieces(card.value?.pieces ?? []).find((p) => p.id === selectedPiece.value) ?? null,
  )
  const coat = computed<Coat | null>(() => {
    const coats = piece.value?.coats
    return coats ? ([...coats.face, ...coats.behind].find((c) => c.id === selectedPart.value) ?? null) : null
  })
  const finish = computed<Finish | null>(() => piece.value?.finishes.find((f) => f.id === selectedPart.value) ?? null)
  const step = computed<OutlineStep | null>(
    () => piece.value?.outlineSteps.find((s) => s.id === selectedPart.value) ?? null,
  )
  const mask = computed<Mask | null>(() => piece.value?.masks.find((m) => m.id === selectedPart.value) ?? null)
  /** The finish, step or mask that is selected. */
  const entry = computed<Finish | OutlineStep | Mask | null>(() => finish.value ?? step.value ?? mask.value)
  /** The selected pieces in stack order. */
  const pieces = computed<Piece[]>(() =>
    allPieces(card.value?.pieces ?? []).filter((p) => selection.value.includes(p.id)),
  )
  const lanes = computed<ParameterPlace[]>(() =>
    card.value ? listParameters(card.value).filter(({ value }) => isMoving(value)) : [],
  )

  async function open(cardId: string) {
    const mine = ++opening
    park()
    // What was not saved when it was left goes first.
    const kept = leaving.get(cardId)
    await kept?.flush()
    if (kept?.hasUnsaved) {
      if (mine === opening) show(kept, kept.document)
      return
    }
    const row = await api<{ id: string; revision: number; document: Card }>(`/cards/${cardId}`)
    if (mine === opening) show(saverOf(row.id, row.revision, row.document), row.document)
  }

  function saverOf(cardId: string, at: number, document: Card): DocumentSaver<Card> {
    return new DocumentSaver(cardId, at, document, ROAD, (one, arrived) => {
      if (arrived) channel.postMessage({ id: one.id, revision: one.revision })
      if (one === saver) follow(one)
      else if (!one.hasUnsaved) leaving.delete(one.id)
    })
  }

  /** Leaves the card that is open to its saver. */
  function park() {
    if (saver?.hasUnsaved) leaving.set(saver.id, saver)
    saver = null
  }

  function show(one: DocumentSaver<Card>, document: Card) {
    leaving.delete(one.id)
    saver = one
    id.value = one.id
    card.value = document
    past.value = []
    future.value = []
    newer.value = false
    opened.value = document
    endStep()
    follow(one)
    // A card with fields is opened for what is to be filled in.
    select(document.fields.length > 0 ? null : (document.pieces[0]?.id ?? null))
  }

  function follow(one: DocumentSaver<Card>) {
    revision.value = one.revision
    saveState.value = one.state
    saveFault.value = one.fault
  }

  /** Changes the card as one named step. Edits with the same mark in quick succession are one step. */
  function edit(label: string, change: (card: Card) => Card, mark = '') {
    const before = card.value
    if (!before) return
    const after = change(before)
    if (after === before) return
    const now = Date.now()
    // A hand that rests in the middle of a drag goes on with the same step.
    const held = dragging.value || now - gesture.at < ONE_GESTURE
    const goesOn = mark !== '' && gesture.mark === mark && held && past.value.length > 0
    if (!goesOn) past.value = [...past.value, { label, card: before }]
    gesture = { mark, at: now }
    future.value = []
    put(after)
  }

  /** Ends a gesture: the next edit is a step of its own. */
  function endStep() {
    gesture = { mark: '', at: 0 }
    dragging.value = false
  }

  function undo() {
    const step = past.value.at(-1)
    if (!step || !card.value) return
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, { label: step.label, card: card.value }]
    endStep()
    put(step.card)
  }

  function redo() {
    const step = future.value.at(-1)
    if (!step || !card.value) return
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, { label: step.label, card: card.value }]
    endStep()
    put(step.card)
  }

  function put(next: Card) {
    card.value = next
    const there = new Set(allPieces(next.pieces).map((p) => p.id))
    if (selection.value.some((one) => !there.has(one))) selectAll(selection.value.filter((one) => there.has(one)))
    saver?.change(next)
  }

  /** Shows what another window has saved; what is not saved here is given up. */
  async function openNewer() {
    const row = await api<{ id: string; revision: number; document: Card }>(`/cards/${id.value}`)
    drop()
    show(saverOf(row.id, row.revision, row.document), row.document)
  }

  /** Gives up what is not saved. */
  function drop() {
    saver?.end()
    saver = null
  }

  /** Saves what is there; true when all of it has arrived. */
  const save = async () => (await saver?.flush()) ?? true

  /** After a conflict: saves what is on this bench over the newer one, which is kept as a version. */
  async function takeOver() {
    if (await saver?.takeOver()) newer.value = false
  }

  /** Somebody saved a newer revision: this bench is told before it runs into it. */
  function heard(of: string, newest: number) {
    // While an answer is out, the newer one may be this window's own.
    if (of === id.value && saver && !saver.isOpen && newest > saver.revision) newer.value = true
  }

  async function lookForNewer() {
    if (!id.value || document.hidden || saver?.isOpen) return
    const mine = id.value
    const head = await api<{ revision: number }>(`/cards/${mine}/head`).catch(() => null)
    if (head) heard(mine, head.revision)
  }

  /** After a conflict: what is on this bench becomes a card of its own; gives its id. */
  async function keepAsCopy(): Promise<string> {
    const before = card.value!
    const document = { ...before, name: `${before.name}, copy`.slice(0, 200) }
    const made = await api<{ id: string; revision: number }>('/cards', 'POST', { document })
    // What is edited until the copy is open belongs to the copy.
    saver?.end()
    saver = saverOf(made.id, made.revision, document)
    id.value = made.id
    put(card.value === before ? document : { ...card.value!, name: document.name })
    return made.id
  }

  function select(pieceId: string | null, partId: string | null = null) {
    // A coat, finish or step of a piece that is selected beside others keeps them: what they share is edited together.
    const kept = partId !== null && pieceId !== null && selection.value.includes(pieceId) ? selection.value : []
    selection.value = pieceId === null ? [] : [...kept.filter((one) => one !== pieceId), pieceId]
    selectedPart.value = partId
  }

  function selectAll(ids: readonly string[]) {
    selection.value = [...ids]
    selectedPart.value = null
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

  const hasUnsaved = () => (saver?.hasUnsaved ?? false) || leaving.size > 0

  return {
    ...{ id, revision, card, opened, past, future, saveState, saveFault, dragging },
    ...{ selection, selectedPiece, selectedPart, piece, coat, finish, step, mask, entry, pieces, lanes },
    ...{
      newer,
      open,
      openNewer,
      drop,
      edit,
      endStep,
      undo,
      redo,
      save,
      takeOver,
      lookForNewer,
      keepAsCopy,
      hasUnsaved,
    },
    ...{ select, selectAll, toggleSelected, selectTo, isSelected },
  }
})
