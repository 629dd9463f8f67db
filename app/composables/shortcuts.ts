import { holdsPieces } from '#core/card/tree'
import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import { shiftPiece } from '#core/edit/arrange'
import type { PieceOutlook } from '#core/frame/outlook'
import type { KeyActionId } from '#core/help/key-actions'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import { useClipboard } from '~/stores/clipboard'
import { useRibbon } from '~/stores/ribbon'
import { useSeals } from '~/stores/seals'
import { usePanels } from '~/stores/panels'
import { useStage } from '~/stores/stage'
import { useKeys } from './keys'
import { useKeyWork } from './key-work'
import { useStackWork } from './stack-work'

const ARROWS: Record<string, ['x' | 'y', number]> = {
  ArrowLeft: ['x', -1],
  ArrowRight: ['x', 1],
  ArrowUp: ['y', -1],
  ArrowDown: ['y', 1],
}

/** What Enter presses when it has the focus. */
const PRESSED = 'button, a, summary, select, [role=button], [role=checkbox], [role=slider]'

/** The keys of the bench. Typing in a field is left alone. */
export function useShortcuts(
  { showSheet, find }: { showSheet: () => void; find: () => void },
  outlook: Ref<PieceOutlook[]>,
) {
  const bench = useBench()
  const ribbon = useRibbon()
  const clipboard = useClipboard()
  const seals = useSeals()
  const work = useStackWork()
  const keyWork = useKeyWork()
  const stage = useStage()
  const panels = usePanels()
  const brush = useBrush()

  const { actionOf } = useKeys()
  const go = (frame: number) => ribbon.go(frame, bench.card!.length)

  const does: Partial<Record<KeyActionId, () => unknown>> = {
    play: () => (ribbon.playing = !ribbon.playing),
    hold: () => (ribbon.holding = !ribbon.holding),
    frameBack: () => go(ribbon.frame - 1),
    frameOn: () => go(ribbon.frame + 1),
    toSeam: () => go(0),
    toLast: () => go(bench.card!.length - 1),
    undo: () => bench.undo(),
    redo: () => bench.redo(),
    save: () => bench.save(),
    remove,
    cut: () => (copy(), remove()),
    copy,
    paste: () => (clipboard.last === 'keys' ? keyWork.paste() : work.paste()),
    copyCore: () => bench.piece && work.copyCore(bench.piece),
    pasteCore: () => work.pasteCores(bench.pieces),
    duplicate,
    split: () => bench.piece && work.split(bench.piece),
    curves: () => (ribbon.curvesOpen = !ribbon.curvesOpen),
    motors: () => bench.piece && (ribbon.motorsOf = ribbon.keys[0]?.address ?? null),
    selectAll: () => bench.selectAll(bench.card!.pieces.map(({ id }) => id)),
    group: () => work.groupable(bench.pieces) && work.group(bench.pieces, outlook.value),
    ungroup: () => holdsPieces(bench.piece) && work.ungroup(bench.piece),
    seal: () => bench.piece && (seals.pressing = [...bench.selection]),
    paint: () => brush.target && (brush.taken = !brush.taken),
    erase: () => brush.target && (brush.erase = !brush.erase),
    narrower: () => brush.target && brush.resize(1 / 1.15),
    broader: () => brush.target && brush.resize(1.15),
    softer: () => brush.target && brush.harden(-10),
    harder: () => brush.target && brush.harden(10),
    alone: () => bench.piece && work.see(bench.piece.id, bench.selectedPart),
    escape: () =>
      panels.whole ? (panels.whole = false) : bench.select(bench.selectedPart ? bench.selectedPiece : null),
    find,
    whole: () => (panels.whole = !panels.whole),
    sheet: showSheet,
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement
    const typing = target.matches(
      'input:not([type=range]):not([type=checkbox]), textarea, select, [contenteditable=true]',
    )
    // What is open above the bench has the keys: Escape closes it and nothing else.
    if (document.querySelector('.v-overlay--active:not(.v-tooltip)')) return
    // A field has its own undo, copy, paste and select all.
    if (!bench.card || (typing && actionOf(event) !== 'save')) return
    if (handle(event)) event.preventDefault()
  })

  function handle(event: KeyboardEvent): boolean {
    const arrow = ARROWS[event.key]
    if (arrow && !event.ctrlKey && !event.altKey) {
      if (ribbon.keys.length > 0 && arrow[0] === 'x') {
        keyWork.nudge(arrow[1] * (event.shiftKey ? 10 : 1))
        return true
      }
      if (!bench.piece || (event.target as HTMLElement).matches('input[type=range]')) return false
      nudge(arrow, event.shiftKey ? 10 : 1)
      return true
    }
    const focused = event.target as HTMLElement
    if (
      event.key === 'Enter' &&
      !focused.matches(PRESSED) &&
      bench.piece?.kind === 'type' &&
      bench.pieces.length === 1
    ) {
      stage.editedWords = bench.piece.id
      return true
    }
    const action = actionOf(event)
    // A button that has the focus is what Space presses.
    if (action === 'play' && focused.matches('button, [role=button]')) return false
    const run = action && does[action]
    if (!run) return false
    void run()
    return true
  }

  function copy() {
    if (ribbon.keys.length > 0) keyWork.copy()
    else if (bench.coat) clipboard.keepCoat(bench.coat)
    else if (bench.entry) clipboard.keepEntry(bench.entry)
    else if (bench.piece) work.copyPieces(bench.pieces)
  }

  function duplicate() {
    if (bench.coat) work.duplicateCoatOf(bench.piece!, bench.coat)
    else if (bench.entry) work.duplicateEntryOf(bench.piece!, bench.entry)
    else if (bench.piece) work.duplicatePieces(bench.pieces)
  }

  /** Moves all that is selected, on the card's own axes. */
  function nudge([name, direction]: ['x' | 'y', number], step: number) {
    const by = { x: 0, y: 0, [name]: direction * step }
    const entries = outlook.value.filter(({ id }) => bench.isSelected(id))
    bench.edit(
      'Move',
      (card) => entries.reduce((next, entry) => shiftPiece(next, entry, by, ribbon.frame), card),
      `nudge/${bench.selection.join(' ')}`,
    )
  }

  function remove() {
    if (ribbon.keys.length > 0) keyWork.remove()
    else if (bench.coat && bench.piece) {
      work.removeCoatOf(bench.piece, bench.coat)
    } else if (bench.entry && bench.piece) {
      work.removeEntryOf(bench.piece, bench.entry)
    } else if (bench.piece) {
      work.removePieces(bench.pieces)
    }
  }

  return does
}
