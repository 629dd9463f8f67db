import { useEventListener } from '@vueuse/core'

/** The usual keys of undo and redo, for pages without shortcuts of their own. Fields that are written in keep theirs. */
export function useUndoKeys({ undo, redo }: { undo: () => void; redo: () => void }) {
  useEventListener(window, 'keydown', (event) => {
    if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).matches('input, textarea')) return
    const key = event.key.toLowerCase()
    if (key !== 'z' && key !== 'y') return
    event.preventDefault()
    if (key === 'y' || event.shiftKey) redo()
    else undo()
  })
}
