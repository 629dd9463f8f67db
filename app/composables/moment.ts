import { computed } from 'vue'
import { momentOf } from '#core/time/evaluate'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** The playhead's moment: as it is shown, and `base`, the keys without motors, which is what a hand changes. */
export function useMoment() {
  const bench = useBench()
  const ribbon = useRibbon()
  const shown = computed(() => momentOf(bench.card!, ribbon.frame))
  const base = computed(() => ({ ...shown.value, bare: true }))
  return { shown, base }
}
