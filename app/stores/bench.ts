import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { listParameters } from '#core/card/addresses'
import { isMoving } from '#core/values/moving'
import type { Card, Coat, Finish, Mask, OutlineStep, Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { api, SAVE_LIMIT } from '~/composables/api'
import { useHistory } from '~/composables/history'
import { CARD_VERSION } from '#core/card/schema'
import { useSavedDocument } from '~/composables/saved-document'
import { offerUnsaved } from '~/composables/unsaved-offer'

/** The card on the bench: its document, history, selection and saving. */
export const useBench = defineStore('bench', () => {
  const card = shallowRef<Card | null>(null)
  /** The card as it was when it was opened. */
  const opened = shallowRef<Card | null>(null)
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

  const history = useHistory<Card>({ now: () => card.value, put, isHeld: () => dragging.value })
  const saved = useSavedDocument<Card>({
    kind: 'card',
    load: (one) => api(`/cards/${one}`),
    send: (one, request) => api(`/cards/${one}`, 'PUT', request, SAVE_LIMIT),
    show,
    arrived: (one, newest) => channel.postMessage({ id: one, revision: newest }),
    found: (kept) => void offerKept(kept.document as Card),
  })
  const { id } = saved

  /** What an application of an earlier version kept is given the form of today, or its next save would be another card. */
  async function offerKept(kept: Card) {
    const { value: own } = id
    const isOld = (kept.version as number) !== CARD_VERSION
    // What reads card files is large: the bench does without it until one comes.
    const card = isOld ? (await import('#core/card/read')).readCard(kept).card : kept
    if (card && id.value === own) offerUnsaved(history, saved, card)
  }

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

  function show(_: string, document: Card) {
    card.value = document
    history.begin()
    newer.value = false
    opened.value = document
    dragging.value = false
    // A card with fields is opened for what is to be filled in.
    select(document.fields.length > 0 ? null : (document.pieces[0]?.id ?? null))
  }

  /** Ends a gesture: the next edit is a step of its own. */
  function endStep() {
    history.endStep()
    dragging.value = false
  }

  function undo() {
    dragging.value = false
    history.undo()
  }

  function redo() {
    dragging.value = false
    history.redo()
  }

  function put(next: Card) {
    card.value = next
    const there = new Set(allPieces(next.pieces).map((p) => p.id))
    if (selection.value.some((one) => !there.has(one))) selectAll(selection.value.filter((one) => there.has(one)))
    saved.change(next)
  }

  /** After a conflict: saves what is on this bench over the newer one, which is kept as a version. */
  async function takeOver() {
    if (await saved.takeOver()) newer.value = false
  }

  /** Somebody saved a newer revision: this bench is told before it runs into it. */
  function heard(of: string, newest: number) {
    if (saved.isNewer(of, newest)) newer.value = true
  }

  async function lookForNewer() {
    if (!id.value || document.hidden || saved.isOpen()) return
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
    saved.become({ ...made, document })
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

  return {
    ...{ id, revision: saved.revision, card, opened, past: history.past, future: history.future, dragging },
    ...{ saveState: saved.saveState, saveFault: saved.saveFault },
    ...{ selection, selectedPiece, selectedPart, piece, coat, finish, step, mask, entry, pieces, lanes },
    ...{ newer, open: saved.open, openNewer: saved.openNewer, drop: saved.drop, edit: history.edit, endStep },
    ...{ undo, redo, save: saved.save, takeOver, lookForNewer, keepAsCopy, hasUnsaved: saved.hasUnsaved },
    ...{ select, selectAll, toggleSelected, selectTo, isSelected },
  }
})
