import type { Px } from '../units'
import type { GridBox } from './grid-box'
import { common, united } from './grid-box'
import type { LaidFrame } from './ground'
import type { Drawing } from './piece'
import { LISTS } from './plan'
import { washWorld } from './wash'

// How much is computed for a part of the frame, and what of that is given out.

/** The grid that parts of a frame lie on. */
const CELL = 64

/**
 * A part of the frame, and as much around it as its washes look at; beyond the frame's own edges as far as is computed for
 * them. `beyond`: see View.
 */
export function neededFor(drawing: Drawing, { x, y, w, h }: GridBox, beyond: Px): GridBox {
  const around = (box: GridBox, margin: Px) => ({
    ...{ x: box.x - margin, y: box.y - margin, w: box.w + 2 * margin, h: box.h + 2 * margin },
  })
  const part = around({ x, y, w, h }, Math.ceil(beyond / CELL) * CELL)
  const looks = LISTS.looks(drawing, drawing.card.pieces)
  if (looks === 0) return part
  const world = washWorld(drawing, looks, CELL)
  const margin = Math.ceil(Math.min(looks, Math.max(world.w, world.h)) / CELL) * CELL
  const needed = common(around(part, margin), world)
  return needed.w > 0 && needed.h > 0 ? united(part, needed)! : part
}

/** What of a laid frame lies in a part of its canvas. */
export function seenIn(part: GridBox, { ground, touched, changed }: LaidFrame): LaidFrame {
  const seen = (box: GridBox | null) => {
    const cut = box && common(box, part)
    return cut && cut.w > 0 && cut.h > 0 ? cut : null
  }
  return { ground, touched: seen(touched), changed: seen(changed) }
}
