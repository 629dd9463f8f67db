/**
 * Follows a pressed pointer until it is let go. It listens on the window: what was pressed may be replaced while
 * it is dragged.
 */
export function followPointer(
  event: PointerEvent,
  move: (event: PointerEvent) => void,
  end: () => void = () => {},
): void {
  const { pointerId } = event
  const moved = (next: PointerEvent) => {
    if (next.pointerId === pointerId) move(next)
  }
  const ended = (next: PointerEvent) => {
    if (next.pointerId !== pointerId) return
    window.removeEventListener('pointermove', moved)
    window.removeEventListener('pointerup', ended)
    window.removeEventListener('pointercancel', ended)
    end()
  }
  window.addEventListener('pointermove', moved)
  window.addEventListener('pointerup', ended)
  window.addEventListener('pointercancel', ended)
}
