import { addClock, freezePiece, repeatPiece, reversePiece } from '#core/edit/clocks'
import type { Entry } from '#core/edit/entries'
import { changeEntry, duplicateEntry, pasteEntries, pasteEntry, removeEntry } from '#core/edit/entries'
import { groupPieces, canGroup, ungroupPiece } from '#core/edit/grouping'
import {
  changeCoat,
  changePiece,
  duplicateCoat,
  duplicatePiece,
  pasteCoat,
  pasteStack,
  pastePieces,
  removeCoat,
  removePiece,
} from '#core/edit/stack'
import { splitPiece } from '#core/edit/spans'
import { addTwin } from '#core/edit/twins'
import { writeValue } from '#core/edit/values'
import { frameIn } from '#core/time/clock'
import type { Card, Coat, Piece } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { boundsOf } from '#core/edit/arrange'
import { unplace } from '#core/outline/outline'
import { useBench } from '~/stores/bench'
import { useClipboard } from '~/stores/clipboard'
import { useNotices } from '~/stores/notices'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'
import { coatTitle } from './coat-words'
import { entryTitle, familyOf } from './entry-words'

/** What hands do with pieces, coats, finishes and steps as a whole; used by the stack's menus and by the keys. */
export function useStackWork() {
  const bench = useBench()
  const clipboard = useClipboard()
  const notices = useNotices()
  const ribbon = useRibbon()
  const stage = useStage()

  /** The piece with all others that are selected, if it is one of them. */
  const together = (piece: Piece): Piece[] => (bench.isSelected(piece.id) ? bench.pieces : [piece])
  const named = (pieces: readonly Piece[]) => (pieces.length === 1 ? pieces[0]!.name : `${pieces.length} pieces`)

  function editing<T>(label: string, change: (card: Card) => { card: Card } & T): T {
    let result: T | null = null
    bench.edit(label, (card) => {
      const { card: next, ...rest } = change(card)
      result = rest as T
      return next
    })
    return result!
  }

  function duplicatePieces(pieces: readonly Piece[]) {
    const ids: string[] = []
    bench.edit(`Duplicate ${named(pieces)}`, (card) =>
      pieces.reduce((next, piece) => {
        const copied = duplicatePiece(next, piece.id)
        ids.push(copied.id)
        return copied.card
      }, card),
    )
    bench.selectAll(ids)
  }

  function removePieces(pieces: readonly Piece[]) {
    bench.edit(`Delete ${named(pieces)}`, (card) => pieces.reduce((next, { id }) => removePiece(next, id), card))
  }

  function copyPieces(pieces: readonly Piece[]) {
    clipboard.keepPieces(pieces)
    notices.say(`Copied: ${named(pieces)}`)
  }

  function paste() {
    if (clipboard.last === 'coat' && clipboard.coat && bench.pieces.length > 0) pasteCoats(bench.pieces)
    else if (clipboard.last === 'entry' && clipboard.entry && bench.pieces.length > 0) pasteEntryOn(bench.pieces)
    else if (clipboard.pieces.length > 0) {
      const { ids } = editing(`Paste ${named(clipboard.pieces)}`, (card) => pastePieces(card, clipboard.pieces))
      bench.selectAll(ids)
    }
  }

  function pasteCoats(pieces: readonly Piece[], coat: Coat = clipboard.coat!) {
    let made = ''
    bench.edit(`Paste ${coatTitle(coat).toLowerCase()}`, (card) =>
      pieces.reduce((next, { id }) => {
        const pasted = pasteCoat(next, id, coat)
        made = pasted.id
        return pasted.card
      }, card),
    )
    bench.select(pieces.at(-1)!.id, made)
  }

  function pasteEntryOn(pieces: readonly Piece[], entry: Entry = clipboard.entry!) {
    let made = ''
    bench.edit(`Paste ${entryTitle(entry).toLowerCase()}`, (card) =>
      pieces.reduce((next, { id }) => {
        const pasted = pasteEntry(next, id, familyOf(entry), entry)
        made = pasted.id
        return pasted.card
      }, card),
    )
    bench.select(pieces.at(-1)!.id, made)
  }

  function copyCore({ coats, finishes, outlineSteps, name }: Piece) {
    clipboard.stack = { coats, finishes, outlineSteps }
    notices.say(`Copied: the core of ${name}`)
  }

  function pasteCores(pieces: readonly Piece[]) {
    const { stack } = clipboard
    if (!stack) return
    bench.edit('Paste the core', (card) =>
      pieces.reduce((next, { id }) => {
        const finished = pasteEntries(pasteStack(next, id, stack.coats), id, 'finish', stack.finishes)
        return pasteEntries(finished, id, 'step', stack.outlineSteps)
      }, card),
    )
  }

  function clearCores(pieces: readonly Piece[]) {
    bench.edit(`Clear the core of ${named(pieces)}`, (card) =>
      pieces.reduce(
        (next, { id }) => changePiece(next, id, { coats: { face: [], behind: [] }, finishes: [], outlineSteps: [] }),
        card,
      ),
    )
  }

  function setOn(pieces: readonly Piece[], on: boolean) {
    bench.edit(`${named(pieces)} ${on ? 'on' : 'off'}`, (card) =>
      pieces.reduce((next, { id }) => writeValue(next, `${id}/on`, ribbon.frame, on), card),
    )
  }

  function setLocked(pieces: readonly Piece[], locked: boolean) {
    bench.edit(`${locked ? 'Lock' : 'Unlock'} ${named(pieces)}`, (card) =>
      pieces.reduce((next, { id }) => changePiece(next, id, { locked }), card),
    )
  }

  const groupable = (pieces: readonly Piece[]) =>
    canGroup(
      bench.card!,
      pieces.map(({ id }) => id),
    )

  /** The group turns and grows about the middle of what it holds. */
  function group(pieces: readonly Piece[], outlook: readonly PieceOutlook[]) {
    const ids = pieces.map(({ id }) => id)
    const entries = outlook.filter(({ id }) => ids.includes(id))
    const bounds = boundsOf(entries)
    const middle = bounds && { x: (bounds.left + bounds.right) / 2, y: (bounds.top + bounds.bottom) / 2 }
    const centre = middle && unplace(entries[0]!.parent, middle)
    const made = editing(`Group ${named(pieces)}`, (card) => groupPieces(card, ids, centre ?? undefined))
    if (made.id) bench.select(made.id)
  }

  function ungroup(piece: Piece) {
    const { ids } = editing(`Take ${piece.name} apart`, (card) => ungroupPiece(card, piece.id, ribbon.frame))
    bench.selectAll(ids)
  }

  /** A change of the time within a piece; what has the clock afterwards is selected. */
  function inTime(label: string, change: (card: Card) => { card: Card; id: string }) {
    const { id } = editing(label, change)
    bench.select(id)
  }
  const giveClock = (piece: Piece) => inTime(`Clock of ${piece.name}`, (card) => addClock(card, piece.id))
  const freeze = (piece: Piece) => inTime(`Freeze ${piece.name}`, (card) => freezePiece(card, piece.id, ribbon.frame))
  const reverse = (piece: Piece) => inTime(`${piece.name} backward`, (card) => reversePiece(card, piece.id))
  const repeat = (piece: Piece) => inTime(`Repeat ${piece.name}`, (card) => repeatPiece(card, piece.id, ribbon.frame))
  const twin = (piece: Piece) => inTime(`Twin of ${piece.name}`, (card) => addTwin(card, piece.id, ribbon.frame))

  /** Cuts a piece in two at the playhead. */
  function split(piece: Piece) {
    let second: string | null = null
    bench.edit(`Split ${piece.name}`, (card) => {
      const done = splitPiece(card, piece.id, Math.round(frameIn(card, piece.id, ribbon.frame)))
      second = done?.id ?? null
      return done?.card ?? card
    })
    if (second) bench.select(second)
  }

  function see(piece: string, part: string | null) {
    const { alone } = stage
    stage.alone = alone?.piece === piece && alone.part === part ? null : { piece, part }
  }

  function duplicateCoatOf(piece: Piece, coat: Coat) {
    const { id } = editing(`Duplicate ${coatTitle(coat).toLowerCase()}`, (card) =>
      duplicateCoat(card, piece.id, coat.id),
    )
    bench.select(piece.id, id)
  }

  function removeCoatOf(piece: Piece, coat: Coat) {
    bench.edit(`Take away ${coatTitle(coat).toLowerCase()}`, (card) => removeCoat(card, piece.id, coat.id))
    if (bench.selectedPart === coat.id) bench.select(piece.id)
  }

  function renameCoat(piece: Piece, coat: Coat, name: string) {
    if (name !== coat.name) bench.edit('Rename', (card) => changeCoat(card, piece.id, coat.id, { name }))
  }

  function duplicateEntryOf(piece: Piece, entry: Entry) {
    const { id } = editing(`Duplicate ${entryTitle(entry).toLowerCase()}`, (card) =>
      duplicateEntry(card, piece.id, entry.id),
    )
    bench.select(piece.id, id)
  }

  function removeEntryOf(piece: Piece, entry: Entry) {
    bench.edit(`Take away ${entryTitle(entry).toLowerCase()}`, (card) => removeEntry(card, piece.id, entry.id))
    if (bench.selectedPart === entry.id) bench.select(piece.id)
  }

  function renameEntry(piece: Piece, entry: Entry, name: string) {
    if (name !== entry.name) bench.edit('Rename', (card) => changeEntry(card, piece.id, entry.id, { name }))
  }

  return {
    ...{ pasteEntryOn, duplicateEntryOf, removeEntryOf, renameEntry },
    ...{ together, duplicatePieces, removePieces, copyPieces, paste, pasteCoats, copyCore, pasteCores, clearCores },
    ...{ giveClock, freeze, reverse, repeat, twin, split },
    ...{ setOn, setLocked, groupable, group, ungroup, see, duplicateCoatOf, removeCoatOf, renameCoat },
  }
}
