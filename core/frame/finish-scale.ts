import { boundsOf } from '../extent'
import type { FinishScale } from '../finishes/definition'
import type { Placement } from '../outline/outline'
import { place as onGrid } from '../outline/outline'
import type { Rect } from '../units'
import { formOf } from './form'
import { inkOf, sideOf } from './group'
import { holdsOthers } from './held-pieces'
import type { Drawing, Standing } from './piece'
import type { Hook } from './prepared-paint'
import { lengthIn } from './recipe-tools'

// What lengths and places of finishes mean: on a piece, and in a wash.

const NOWHERE: Rect = { left: 0, top: 0, right: 0, bottom: 0 }

/** On a piece, whose picture spans `bounds`; and what its paints hang on, null for a piece without ink. */
export function finishScale(
  drawing: Drawing,
  standing: Standing,
  bounds: Rect | null,
  path: string,
): { scale: FinishScale; hook: Hook | null } {
  const { placement, piece } = standing
  const unit = placement.scale
  const picture = bounds ?? NOWHERE
  const scaled = (area: Rect, reference: number, hook: Hook | null) => ({
    scale: { px: lengthIn(unit, reference), unit, area, picture, wash: false },
    hook,
  })
  if (holdsOthers(piece)) {
    const ink = inkOf(drawing, standing, path)
    if (!ink) return scaled(picture, 0, null)
    const unscaled = { ...placement, scale: 1 }
    return scaled(around(ink, unscaled), sideOf(ink), { bounds: ink, unit, placement: unscaled })
  }
  const form = formOf(drawing, standing, path)
  return form
    ? scaled(around(form.hook.bounds, form.hook.placement), form.reference, form.hook)
    : scaled(picture, 0, null)
}

/**
 * In a wash places and % count by the frame. Its px are those of the list in which it stands, as they are for a piece there: in a group
 * that is enlarged they are larger.
 */
export function washScale({ card, scale, list }: Drawing): FinishScale {
  const [right, bottom] = [card.frame.width * scale, card.frame.height * scale]
  const frame = { left: 0, top: 0, right, bottom }
  const unit = list.parent.scale
  return { px: lengthIn(unit, Math.min(right, bottom)), unit, area: frame, picture: frame, wash: true }
}

/** What the corners of bounds span where they are placed. */
function around({ left, top, right, bottom }: Rect, placement: Placement): Rect {
  return boundsOf([left, right].flatMap((x) => [top, bottom].map((y) => onGrid(placement, { x, y }))))
}
