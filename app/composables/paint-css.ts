import { writeColour } from '#core/card/colour'
import type { StoredPaint } from '#core/card/moving'
import type { Moment } from '#core/card/settled'
import { settlePaint } from '#core/card/settled'

/** A paint as CSS, for slabs and swatches. CSS measures angles clockwise from upward: css = 90° − angle. */
export function paintCss(paint: StoredPaint, at: Moment, angle?: number): string {
  const settled = settlePaint(paint, at)
  if (settled.type === 'solid') return `linear-gradient(${writeColour(settled.colour)} 0 0)`
  const stops = [...settled.stops].sort((a, b) => a.at - b.at)
  const text = stops.map((stop) => `${writeColour(stop.colour)} ${stop.at * 100}%`).join(', ')
  return `linear-gradient(${90 - (angle ?? settled.angle)}deg, ${text})`
}
