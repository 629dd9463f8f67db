import { ribbonTime } from '#core/values/rate'
import { droppedNumbers, timecode } from '#core/time/timecode'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** Writes frames as the designer counts them. */
export function useCounted() {
  const bench = useBench()
  const ribbon = useRibbon()
  return (frame: number): string => {
    const rate = bench.card!.rate
    switch (ribbon.counting) {
      case 'frames':
        return String(Math.floor(frame))
      case 'timecode':
        return timecode(frame, rate)
      case 'drop':
        return timecode(frame, rate, droppedNumbers(rate) > 0)
      default:
        return ribbonTime(frame, rate)
    }
  }
}
