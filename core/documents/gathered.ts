import type { Fault } from '../errors'

/** So many faults of one list are told one by one. */
const TOLD = 3

/** Faults of one kind in one list, as in a long list of numbers that was written otherwise, told as the first few and how many more. */
export function gathered(faults: readonly Fault[]): Fault[] {
  const listOf = ({ place, code }: Fault) => `${code} ${place.replace(/\[\d+\]$/, '')}`
  const counts = new Map<string, number>()
  for (const fault of faults) counts.set(listOf(fault), (counts.get(listOf(fault)) ?? 0) + 1)
  const told = new Map<string, number>()
  return faults.flatMap((fault) => {
    const list = listOf(fault)
    const nth = (told.get(list) ?? 0) + 1
    told.set(list, nth)
    if (nth > TOLD) return []
    const more = counts.get(list)! - TOLD
    return nth === TOLD && more > 0
      ? [{ ...fault, message: `${fault.message} So it is with ${more} more here.` }]
      : [fault]
  })
}
