import type { Piece } from '../card/schema'
import type { Moment } from '../card/settled'
import { settleAll } from '../card/settled'
import { BOX_PARAMETERS, TYPE_PARAMETERS } from '../card/pieces'
import { boxPath } from '../outline/box'
import { flatten } from '../outline/contour'
import type { Outline } from '../outline/outline'
import { outlineOf } from '../outline/outline'
import { unite } from '../outline/unite'
import type { FontBook } from '../type/font-book'
import { setType } from '../type/layout'

/** Curves stay within this many render pixels of their straight pieces. */
const TOLERANCE = 0.02
const MOST_KEPT = 500

/** An outline, and the factor by which it must be enlarged to have the piece's size. */
export interface SizedOutline {
  outline: Outline
  enlarge: number
}

/** Makes outlines and keeps them: letters are shaped and united once, whatever their size and place. */
export class Outlines {
  private readonly kept = new Map<string, Outline>()

  constructor(private readonly fonts: FontBook) {}

  /** `scale`: render pixels per card pixel, times the piece's own scale. `place` names the piece in errors. */
  of(piece: Piece, at: Moment, scale: number, place: string): SizedOutline {
    if (piece.kind === 'type') {
      const { size, tracking, leading, align } = settleAll(TYPE_PARAMETERS, piece as never, at)
      const detail = detailFor(size * scale)
      const setting = { wording: piece.wording, tracking, leading, align }
      const key = JSON.stringify([piece.font, setting, detail])
      const outline = this.keep(key, () => {
        const font = this.fonts.get(piece.font, `${place}.font`)
        const rings = flatten(setType(font, setting), TOLERANCE / detail)
        return outlineOf(key, unite(rings, detail * 256), font.capHeight / font.unitsPerEm)
      })
      return { outline, enlarge: size }
    }
    const { width, height, radius } = settleAll(BOX_PARAMETERS, piece as never, at)
    const detail = detailFor(scale)
    const key = JSON.stringify(['box', width, height, radius, detail])
    const outline = this.keep(key, () =>
      outlineOf(
        key,
        width > 0 && height > 0 ? flatten(boxPath(width, height, radius), TOLERANCE / detail) : [],
        Math.min(width, height),
      ),
    )
    return { outline, enlarge: 1 }
  }

  private keep(key: string, make: () => Outline): Outline {
    let outline = this.kept.get(key)
    if (!outline) {
      outline = make()
      if (this.kept.size >= MOST_KEPT) this.kept.clear()
      this.kept.set(key, outline)
    }
    return outline
  }
}

/** Render pixels per outline unit, rounded up in steps of a quarter so that a growing piece is seldom flattened anew. */
function detailFor(pixels: number): number {
  let detail = 1
  while (detail < pixels && detail < 1 << 20) detail *= 1.25
  return detail
}
