import type { TextPath } from './along-path'
import { PathLine } from './along-path'
import type { SetText } from './setting'

// What is done to words once they are set.

/** All of it smaller, about the place of the piece. */
export function shrink(set: SetText, by: number): void {
  for (const glyph of set.glyphs) {
    glyph.x *= by
    glyph.y *= by
    glyph.size = (glyph.size ?? 1) * by
  }
  for (const letter of set.letters) {
    letter.left *= by
    letter.right *= by
    letter.baseline *= by
  }
}

/** Puts every letter on a path, its middle where it would stand on a straight line. */
export function alongPath(set: SetText, path: TextPath, first: number): void {
  const line = new PathLine(path)
  set.letters.forEach((letter) => {
    const place = line.at((letter.left + letter.right) / 2)
    if (place) letter.place = place
    else if (!letter.blank) set.overflows = true
  })
  const width =
    set.letters.reduce((most, { right }) => Math.max(most, right), 0) -
    set.letters.reduce((least, { left }) => Math.min(least, left), 0)
  if (path.strand.closed && width > line.length) set.overflows = true
  set.glyphs = set.glyphs.flatMap((glyph) => {
    const { place, left, right } = set.letters[glyph.letter]!
    if (!place) return []
    const along = glyph.x - (left + right) / 2
    const down = glyph.y - first
    return [
      {
        ...glyph,
        x: place.x + along * place.dx - down * place.dy,
        y: place.y + along * place.dy + down * place.dx,
        way: { x: place.dx, y: place.dy },
      },
    ]
  })
}
