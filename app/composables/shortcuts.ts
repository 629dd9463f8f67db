import { useEventListener } from '@vueuse/core'
import { removeCoat, removePiece } from '#core/card/edit/stack'
import { removeKey, writeValue } from '#core/card/edit/values'
import { settleNumber } from '#core/card/settled'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

export const SHORTCUTS = [
  { keys: ['Space'], does: 'Play the loop, stop' },
  { keys: [',', '.'], does: 'One frame back, one frame on' },
  { keys: ['Home'], does: 'To the seam' },
  { keys: ['Arrows'], does: 'Move the piece by 1 px; with Shift by 10 px' },
  { keys: ['Ctrl+Z'], does: 'Undo' },
  { keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], does: 'Redo' },
  { keys: ['Delete'], does: 'Take away the key, coat or piece that is selected' },
  { keys: ['Esc'], does: 'Select the piece, then nothing' },
  { keys: ['?'], does: 'This sheet' },
]

const ARROWS: Record<string, ['x' | 'y', number]> = {
  ArrowLeft: ['x', -1],
  ArrowRight: ['x', 1],
  ArrowUp: ['y', -1],
  ArrowDown: ['y', 1],
}

/** The keys of the bench. Typing in a field is left alone. */
export function useShortcuts(showSheet: () => void) {
  const bench = useBench()
  const ribbon = useRibbon()

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const target = event.target as HTMLElement
    const typing = target.matches(
      'input:not([type=range]):not([type=checkbox]), textarea, select, [contenteditable=true]',
    )
    if (!bench.card || (typing && !(event.ctrlKey || event.metaKey)) || target.closest('.v-overlay__content')) return
    if (typing && event.key.toLowerCase() === 'z') return
    if (handle(event)) event.preventDefault()
  })

  function handle(event: KeyboardEvent): boolean {
    const length = bench.card!.length
    if (event.ctrlKey || event.metaKey) {
      const key = event.key.toLowerCase()
      if (key === 'z') return did(() => (event.shiftKey ? bench.redo() : bench.undo()))
      if (key === 'y') return did(() => bench.redo())
      if (key === 's') return did(() => bench.save())
      return false
    }
    const arrow = ARROWS[event.key]
    if (arrow && (event.target as HTMLElement).matches('input[type=range]')) return false
    if (arrow && bench.piece) return did(() => nudge(arrow, event.shiftKey ? 10 : 1))
    switch (event.key) {
      case ' ':
        if ((event.target as HTMLElement).matches('button, [role=button]')) return false
        ribbon.playing = !ribbon.playing
        return true
      case ',':
        return did(() => ribbon.go(ribbon.frame - 1, length))
      case '.':
        return did(() => ribbon.go(ribbon.frame + 1, length))
      case 'Home':
        return did(() => ribbon.go(0, length))
      case 'Delete':
      case 'Backspace':
        return did(() => remove())
      case 'Escape':
        return did(() => bench.select(bench.selectedCoat ? bench.selectedPiece : null))
      case '?':
        return did(() => showSheet())
      default:
        return false
    }
  }

  function did(work: () => unknown): true {
    void work()
    return true
  }

  function nudge([name, direction]: ['x' | 'y', number], step: number) {
    const { id } = bench.piece!
    const now = settleNumber(bench.piece![name], { frame: ribbon.frame, length: bench.card!.length })
    bench.edit('Move', (card) => writeValue(card, `${id}/${name}`, ribbon.frame, now + direction * step), `nudge/${id}`)
  }

  function remove() {
    const key = ribbon.selectedKey
    if (key) {
      bench.edit('Take a key away', (card) => removeKey(card, key.address, key.frame))
      ribbon.selectedKey = null
    } else if (bench.coat && bench.piece) {
      const { id } = bench.coat
      bench.edit('Take a coat away', (card) => removeCoat(card, bench.piece!.id, id))
      bench.select(bench.piece.id)
    } else if (bench.piece) {
      const { id, name } = bench.piece
      bench.edit(`Delete ${name}`, (card) => removePiece(card, id))
    }
  }
}
