import { computed } from 'vue'
import { momentIn } from '#core/time/clock'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/**
 * The playhead's moment as a piece runs (the selected one where none is named; null is the card itself): as it is shown,
 * and `base`, the keys without motors, which is what a hand changes.
 */
export function useMoment(piece?: () => string | null) {
  const bench = useBench()
  const ribbon = useRibbon()
  const shown = computed(() => momentIn(bench.card!, piece ? piece() : bench.selectedPiece, ribbon.frame))
  const base = computed(() => ({ ...shown.value, bare: true }))
  return { shown, base }
}
