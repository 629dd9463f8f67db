import { createSharedComposable, useDebounceFn, useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** Milliseconds without a scroll after which the page rests. */
const REST = 100

/** Whether something on the page scrolls just now: meanwhile it needs the cores for itself. */
export const useScrolling = createSharedComposable(() => {
  const scrolling = ref(false)
  const rest = useDebounceFn(() => (scrolling.value = false), REST)
  useEventListener(
    document,
    'scroll',
    () => {
      scrolling.value = true
      void rest()
    },
    { capture: true, passive: true },
  )
  return scrolling
})
