import type { Card } from '../card/schema'
import type { SettledPaint } from '../card/settled'
import type { Kernels, RampPaint } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { gradientLine, rampColours } from '../paint/gradient'
import type { Rect, Rgba } from '../units'

/** A paint ready for the kernels: a colour, or a ramp over the pixels of the frame. */
export type PreparedPaint = { solid: Rgba } | { ramp: RampPaint }

/** What a paint that hangs on the piece hangs on: bounds in the outline's units, and their placement. */
interface Hook {
  bounds: Rect
  placement: Placement
}

/** `piece` is null for what hangs on the card alone. The ramp belongs to the kernels' current mark. */
export function preparePaint(
  { kernels, card, scale }: { kernels: Kernels; card: Card; scale: number },
  paint: SettledPaint,
  piece: Hook | null,
): PreparedPaint {
  if (paint.type === 'solid') return { solid: paint.colour }
  const wholeCard: Hook = {
    bounds: { left: 0, top: 0, right: card.frame.width, bottom: card.frame.height },
    placement: { scale, rotation: 0, x: 0, y: 0 },
  }
  const { bounds, placement } = piece && paint.hang === 'piece' ? piece : wholeCard
  return { ramp: { ...kernels.ramp(rampColours(paint.stops)), ...gradientLine(paint, bounds, placement) } }
}
