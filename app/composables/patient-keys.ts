import { useEventListener } from '@vueuse/core'
import { nextTick, watch } from 'vue'
import type { Ref } from 'vue'

/** Where words are written the arrows move the caret. */
const isWritten = (target: EventTarget) => (target as Partial<Element>).matches?.('input, textarea, [contenteditable]')

const ARROWS = new Set(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'])

/**
 * Arrow keys on handles within an element wait until it is known where these stand: a press right after an edit would count from
 * where they stood before it. None is lost, and their order stays.
 */
export function usePatientKeys(within: Ref<EventTarget | undefined>, isKnown: () => boolean): void {
  const waiting: { target: EventTarget; event: KeyboardEvent }[] = []
  const passed = new WeakSet<Event>()

  useEventListener(
    within,
    'keydown',
    (event: KeyboardEvent) => {
      if (passed.has(event) || !ARROWS.has(event.key) || !event.target || isWritten(event.target)) return
      if (waiting.length === 0 && isKnown()) return
      event.preventDefault()
      event.stopImmediatePropagation()
      waiting.push({ target: event.target, event })
    },
    { capture: true },
  )

  /** One after the other: what one of them changes, the next one waits for. */
  async function goOn() {
    while (waiting.length > 0 && isKnown()) {
      const { target, event } = waiting.shift()!
      const again = new (event.constructor as typeof KeyboardEvent)(event.type, event)
      passed.add(again)
      target.dispatchEvent(again)
      await nextTick()
    }
  }

  watch(isKnown, (known) => known && void goOn(), { flush: 'post' })
}
