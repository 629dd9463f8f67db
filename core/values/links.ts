import type { Moving, StoredValue } from './moving'
import { isMoving } from './moving'
import type { Ring } from './moment'

// Values that follow values that follow values. One whose links lead into a circle, or farther than any hand makes them,
// is followed by what it is without its links: that does not depend on where one comes from.

/** Links in a row that are gone along. */
export const MOST_LINKS = 200

/** The addresses that a value follows. */
export const sourcesOf = (value: StoredValue): string[] =>
  isMoving(value)
    ? ((value as Moving<number>).motors ?? []).flatMap(({ on, kind, source }) =>
        on && kind === 'follow' && source ? [String(source)] : [],
      )
    : []

const found = new WeakMap<Ring, Map<string, number>>()

/** How many links in a row start at an address; Infinity where they lead into a circle. */
export function linksFrom(ring: Ring, address: string): number {
  const depths = found.get(ring) ?? new Map<string, number>()
  found.set(ring, depths)
  const known = depths.get(address)
  if (known !== undefined) return known
  // Depth first, without recursion: a chain may be longer than the stack is deep.
  const open = new Set<string>()
  const way: { address: string; sources: readonly string[]; next: number; depth: number }[] = []
  const enter = (at: string) => {
    open.add(at)
    way.push({ address: at, sources: sourcesOf(ring.read?.(at)), next: 0, depth: 0 })
  }
  enter(address)
  while (way.length > 0) {
    const here = way.at(-1)!
    const source = here.sources[here.next++]
    if (source === undefined) {
      way.pop()
      open.delete(here.address)
      depths.set(here.address, here.depth)
      const before = way.at(-1)
      if (before) before.depth = Math.max(before.depth, here.depth + 1)
    } else if (open.has(source)) here.depth = Infinity
    else if (depths.has(source)) here.depth = Math.max(here.depth, depths.get(source)! + 1)
    else enter(source)
  }
  return depths.get(address)!
}
