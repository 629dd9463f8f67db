import type { Mould } from '../outline/mould'
import type { MovedLetters } from '../type/letter-motion'
import type { LetterRange } from '../type/ranges'

/** Letters, and the bands of them that go together; null for all. */
export type BandedLetters = MovedLetters & { bands: (number | null)[] | null }

/** The letters of a mould with bands that are moved by different ranges; `all` where none is limited to some. */
export function bandsTogether(
  mould: Mould,
  all: readonly MovedLetters[] | null,
  acting: readonly LetterRange[],
  limits: readonly (ReadonlySet<number> | null)[],
  lettersBy: (ranges: readonly LetterRange[]) => MovedLetters[],
): BandedLetters[] {
  if (all) return all.map((letters) => ({ ...letters, bands: null }))
  const classes = new Map<string, { bands: (number | null)[]; ranges: LetterRange[] }>()
  const every = [...new Set(mould.map(({ band }) => band))]
  for (const band of every) {
    const ranges = acting.filter((_, k) => band === null || limits[k] === null || limits[k]!.has(band))
    const name = ranges.map(({ id }) => id).join(' ')
    const found = classes.get(name) ?? { bands: [], ranges }
    classes.set(name, found)
    found.bands.push(band)
  }
  // Bands that are in the same state are one, so that there is no edge between them.
  const states = new Map<string, BandedLetters & { bands: (number | null)[] }>()
  for (const { bands, ranges } of classes.values()) {
    for (const letters of lettersBy(ranges)) {
      const { moved, opacity, blur, tints } = letters
      const name = JSON.stringify([letters.letters, moved, opacity, blur, tints])
      const found = states.get(name) ?? { ...letters, bands: [] }
      states.set(name, found)
      found.bands.push(...bands)
    }
  }
  return [...states.values()].map((one) => ({ ...one, bands: one.bands.length === every.length ? null : one.bands }))
}
