import LineBreaker from 'linebreak'

/** Where a line may be broken: before which UTF-16 units (Unicode Line Breaking Algorithm, UAX 14). The end is one. */
export function breaksIn(words: string): number[] {
  const breaker = new LineBreaker(words)
  const found: number[] = []
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) found.push(next.position)
  return found
}

/**
 * Words in lines no wider than `width`, as [start, end) of each: as many as there is room for go on a line, and what has no room
 * by itself stands alone and runs over. Spaces at the end of a line take no room.
 */
export function brokenLines(
  words: string,
  width: number,
  widthOf: (start: number, end: number) => number,
): [number, number][] {
  const lines: [number, number][] = []
  let start = 0
  let end = 0
  for (const at of breaksIn(words)) {
    if (end > start && widthOf(start, withoutSpaces(words, start, at)) > width) {
      lines.push([start, end])
      start = end
    }
    end = at
  }
  return [...lines, [start, words.length]]
}

/** The end of a stretch without the spaces that it ends with. */
export function withoutSpaces(words: string, start: number, end: number): number {
  let last = end
  while (last > start && /\s/.test(words[last - 1]!)) last--
  return last
}
