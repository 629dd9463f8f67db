import type { VNode } from 'vue'
import { getCurrentInstance, onBeforeUnmount, render } from 'vue'

type Drawn = 'picture' | 'flags'

interface Drawing {
  kind: Drawn
  row: string
  element: HTMLElement
}

/** Drawings that are kept: of thousands of rows, those that were scrolled past longest ago go. */
const MOST_KEPT = 240

/** What the page draws into cells of the grid by components of its own. `node`: what belongs there; null for nothing yet. */
export function useRowDrawings(node: (kind: Drawn, row: string) => VNode | null) {
  const context = getCurrentInstance()!.appContext
  const drawn = new Map<string, Drawing>()

  function fill({ kind, row, element }: Drawing) {
    const made = node(kind, row)
    if (made) made.appContext = context
    render(made, element)
  }

  /** The element for a cell, with what belongs there. */
  function draw(kind: Drawn, row: string): HTMLElement {
    const key = `${kind} ${row}`
    const one = drawn.get(key) ?? { kind, row, element: document.createElement('span') }
    // The one that was drawn last stands last.
    drawn.delete(key)
    drawn.set(key, one)
    fill(one)
    if (drawn.size > MOST_KEPT) forgetOldest()
    return one.element
  }

  function forgetOldest() {
    for (const [key, { element }] of drawn) {
      if (drawn.size <= MOST_KEPT / 2) return
      if (element.isConnected) continue
      render(null, element)
      drawn.delete(key)
    }
  }

  /** Where something else is known of rows: those that are seen are drawn again, all others when they are seen. */
  function drawAgain() {
    for (const one of drawn.values()) if (one.element.isConnected) fill(one)
  }

  onBeforeUnmount(() => {
    for (const { element } of drawn.values()) render(null, element)
  })

  return { draw, drawAgain }
}
