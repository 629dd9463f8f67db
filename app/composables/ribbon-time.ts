import { computed } from 'vue'
import { allPieces } from '#core/card/tree'
import { clockAround, frameIn, frameOutOf } from '#core/time/clock'
import type { Frames } from '#core/units'
import { onRing } from '#core/values/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** The time that the ribbon shows: the card's, or, while a piece is selected that lies in one with a clock, the time within that. */
export function useRibbonTime() {
  const bench = useBench()
  const ribbon = useRibbon()
  const around = computed(() => (bench.card ? clockAround(bench.card, bench.selectedPiece) : null))
  /** The piece within which the time runs that is shown; null for the card. */
  const holder = computed(() => allPieces(bench.card?.pieces ?? []).find(({ id }) => id === around.value) ?? null)
  /** Where the playhead stands in it. */
  const frame = computed(() =>
    holder.value ? Math.round(frameIn(bench.card!, bench.selectedPiece, ribbon.frame) * 1000) / 1000 : ribbon.frame,
  )
  const isIn = (piece: string | null) => clockAround(bench.card!, piece) === around.value

  /** Goes to a frame of that time, if the card ever shows it. */
  function go(to: Frames) {
    const { length } = bench.card!
    const out = holder.value
      ? frameOutOf(bench.card!, bench.selectedPiece, onRing(Math.round(to), length), ribbon.frame)
      : to
    if (out !== null) ribbon.go(out, length)
  }

  return { holder, frame, isIn, go }
}
