/** Something that can be found by what it is called and by what is said of it. */
export interface Findable {
  label: string
  /** What sort of thing it is, and more words for it. */
  about: string
}

/**
 * Those in which every word is found, best first: called so from the start, then with a word that begins so, then with it anywhere in
 * the name, then said of it. Among equals the order stays.
 */
export function ranked<T extends Findable>(all: readonly T[], text: string): T[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return []
  return all
    .flatMap((one) => {
      const rank = rankOf(one, words)
      return rank === null ? [] : [{ one, rank }]
    })
    .sort((a, b) => a.rank - b.rank)
    .map(({ one }) => one)
}

function rankOf({ label, about }: Findable, words: readonly string[]): number | null {
  const name = label.toLowerCase()
  const parts = name.split(/[^\p{L}\p{N}]+/u)
  if (name.startsWith(words.join(' '))) return 0
  if (words.every((word) => parts.some((part) => part.startsWith(word)))) return 1
  if (words.every((word) => name.includes(word))) return 2
  const all = `${name} ${about.toLowerCase()}`
  return words.every((word) => all.includes(word)) ? 3 : null
}
