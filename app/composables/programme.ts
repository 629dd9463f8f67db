import type { Ref } from 'vue'
import { computed, ref } from 'vue'

/**
 * A title over footage: where it begins, whether it is played again and again, and which of its frames is over the footage at a
 * moment. `rate`: frames a second; `count`: frames of the title; `lasting`: seconds of the footage, null until they are known.
 */
export function useProgramme(rate: Ref<number>, count: Ref<number>, lasting: Ref<number | null>) {
  /** Seconds of the footage at which the title begins. */
  const inPoint = ref(1)
  const loops = ref(true)
  /** The frame of the programme that is shown. */
  const now = ref(0)

  const first = computed(() => Math.round(inPoint.value * rate.value))
  /** Frames of the programme: all of the footage, or until a second after the title. */
  const total = computed(() =>
    Math.max(1, Math.ceil((lasting.value ?? 0) * rate.value), first.value + count.value + Math.ceil(rate.value)),
  )
  /** Where the title is over the footage, as shares of the programme. */
  const span = computed(() => ({
    from: first.value / total.value,
    to: loops.value ? 1 : Math.min(1, (first.value + count.value) / total.value),
  }))
  /** Which of the title's frames is over the footage now; null before it begins and after it has ended. */
  const place = computed(() => {
    const since = now.value - first.value
    if (count.value === 0 || since < 0) return null
    return loops.value ? since % count.value : since < count.value ? since : null
  })

  function go(frame: number) {
    now.value = Math.min(total.value - 1, Math.max(0, Math.round(frame)))
  }

  return { inPoint, loops, now, first, total, span, place, go }
}
