import type { Ref } from 'vue'
import { watch } from 'vue'

/** Pictures after which a sheet is where it stays. */
const PATIENCE = 30

/**
 * The field of a sheet has the keyboard as soon as the sheet is seen: what is typed at once goes there. Its content is first
 * made when it opens, and hidden until its place is known.
 */
export function useOpenedField(open: Ref<boolean>, field: Readonly<Ref<HTMLElement | null | undefined>>): void {
  watch(
    [open, field],
    ([now, input]) => {
      let left = PATIENCE
      const take = () => {
        if (!open.value || !input || document.activeElement === input || left-- === 0) return
        input.focus()
        requestAnimationFrame(take)
      }
      if (now) take()
    },
    { flush: 'post' },
  )
}
