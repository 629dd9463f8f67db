import { createCard, createCoat, createPiece } from '../core/card/create'
import { paintSchema } from '../core/values/paints'
import type { Card, Coat, TypePiece } from '../core/card/schema'

const FRAME = { width: 1920, height: 1080, rate: { numerator: 25, denominator: 1 }, length: 100 }

const coat = (kind: string, id: string, values: Record<string, unknown>): Coat =>
  ({ ...createCoat(kind, id), ...values }) as Coat

const solid = (colour: string) => ({ type: 'solid', colour })

/**
 * The reference title: twelve letters of 200 px with a gradient, two strokes, a bevel, an outside glow, an inside and
 * an outside shadow. `hue` only changes colours; `scale` makes the frame larger without touching the title.
 */
export function referenceTitle(wording: string, hue = 0, scale = 1): Card {
  const card = createCard('Reference title', { ...FRAME, width: FRAME.width * scale, height: FRAME.height * scale })
  const tint = (base: string) => `${base}${(0x40 + (hue % 0xa0)).toString(16).toUpperCase()}`
  const paint = paintSchema.parse({
    type: 'linear',
    stops: [
      { at: 0, colour: tint('#E238') },
      { at: 100, colour: tint('#FFE9') },
    ],
  })
  const face = [
    coat('bevel', 'bevel', { width: 12, smoothing: 4 }),
    coat('shadow', 'inner', { side: 'inside', distance: 4, softness: 10, colour: tint('#5A10') }),
    coat('fill', 'fill', { paint }),
    coat('stroke', 'first', { width: 6, paint: solid(tint('#3D0D')) }),
    coat('stroke', 'second', { width: 4, stacked: true, paint: solid(tint('#FFF6')) }),
  ]
  const behind = [
    coat('glow', 'glow', { reach: 40, paint: solid(tint('#FFB3')) }),
    coat('shadow', 'outer', { distance: 14, softness: 24, colour: tint('#0000') }),
  ]
  const piece = {
    ...createPiece('type', card),
    ...{ wording, font: 'archivo-black', size: 200, x: 960, y: 540, coats: { face, behind } },
  } as TypePiece
  return { ...card, pieces: [piece] }
}
