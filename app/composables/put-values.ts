import type { Entry } from '#core/edit/entries'
import { writeValue } from '#core/edit/values'
import { valueAt } from '#core/values/evaluated'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { allParametersOf } from './entry-words'
import { useMoment } from './moment'

/**
 * Writes values of an entry that a hand on the stage moved, at the playhead and within their ranges. Lengths come in px and are
 * stored as they are now: in % of `reference` px where they are in %.
 */
export function usePutValues(entry: () => Entry, reference: () => number) {
  const bench = useBench()
  const ribbon = useRibbon()
  const { base } = useMoment()
  return (label: string, values: Record<string, number>) => {
    const parameters = allParametersOf(entry())
    const address = `${bench.piece!.id}/${entry().id}`
    const now = entry() as Record<string, unknown>
    bench.edit(
      label,
      (card) =>
        Object.entries(values).reduce((next, [name, value]) => {
          const parameter = parameters[name]!
          const inPercent = typeof valueAt(parameter, now[name] as never, base.value) === 'object'
          const stored = inPercent ? (value / Math.max(1, reference())) * 100 : value
          const cut = 'min' in parameter ? Math.min(parameter.max, Math.max(parameter.min, stored)) : stored
          return writeValue(next, `${address}/${name}`, ribbon.frame, Math.round(cut * 10) / 10)
        }, card),
      `${address}/hand`,
    )
  }
}
