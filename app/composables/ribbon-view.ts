import { scaleLinear } from 'd3'
import type { Ref } from 'vue'
import { computed, ref, watch } from 'vue'
import type { Piece } from '#core/card/schema'
import { useBench } from '~/stores/bench'

/** Width of the names beside the lanes, in px. */
export const NAMES = 210
/** Height of a piece's own row, in px: a sequence shows its pictures in it. */
export const heightOfSpan = ({ kind }: Piece): number => (kind === 'sequence' ? 40 : 22)
/** Frames beyond the seam that are shown, as a share of what is seen. */
const BEYOND = 0.05
/** Fewest frames that the ribbon is zoomed to. */
const CLOSEST = 12

/** Which frames the ribbon shows, and where: the whole loop and a little beyond the seam, or a part of it. */
export function useRibbonView(width: Ref<number>) {
  const bench = useBench()
  const length = computed(() => bench.card?.length ?? 1)
  const from = ref(0)
  const span = ref(0)
  const whole = () => {
    from.value = -length.value * BEYOND
    span.value = length.value * (1 + 2 * BEYOND)
  }
  watch(length, whole, { immediate: true })

  const x = computed(() =>
    scaleLinear()
      .domain([from.value, from.value + span.value])
      .range([NAMES, Math.max(NAMES + 10, width.value)]),
  )
  const isWhole = computed(() => span.value >= length.value)

  function show(start: number, frames: number) {
    const most = length.value * (1 + 2 * BEYOND)
    span.value = Math.min(most, Math.max(CLOSEST, frames))
    const margin = span.value * BEYOND
    from.value = Math.min(length.value + margin - span.value, Math.max(-margin, start))
    if (span.value >= most) whole()
  }

  /** Ctrl and wheel zoom about the pointer; Shift and wheel, or a sideways wheel, go along. */
  function wheel(event: WheelEvent) {
    const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
    if (event.ctrlKey) {
      event.preventDefault()
      const at = x.value.invert(Math.max(NAMES, event.clientX - bounds.left))
      const next = span.value * Math.exp(event.deltaY * 0.002)
      const share = (at - from.value) / span.value
      show(at - share * Math.min(length.value * (1 + 2 * BEYOND), Math.max(CLOSEST, next)), next)
    } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      event.preventDefault()
      const by = event.shiftKey && event.deltaX === 0 ? event.deltaY : event.deltaX
      show(from.value + (by / (width.value - NAMES)) * span.value, span.value)
    }
  }

  return { x, length, isWhole, whole, wheel }
}

export type RibbonView = ReturnType<typeof useRibbonView>
