import { cosDegrees, sinDegrees } from '../kernels/exact'
import { pixelColour } from '../paint/ramp'
import { choice, colour, number } from '../values/parameter-kinds'
import { angle, percent, span } from './common-parameters'
import type { Degrees, Point, Px } from '../units'
import type { Length } from '../values/moving'
import type { FinishScale } from './definition'
import { defineFinish } from './definition'
import { middleOf } from './places'

export const glint = defineFinish({
  kind: 'glint',
  label: 'Glint',
  help: 'A band of light that passes over the picture: at 0 % it has not come in yet, at 100 % it is gone',
  parameters: {
    place: number({
      label: 'Place',
      help: 'How far the light has come across, in %',
      ...({ default: 50, min: 0, max: 100, step: 0.5, unit: '%', turn: 100 } as const),
    }),
    angle: angle('Where the light moves to, in degrees anticlockwise: 0 is to the right', -20),
    width: span('Width', 'Width of the band', 60, [0, 400]),
    softness: span('Softness', 'How far its edges fade', 60, [0, 400]),
    amount: percent('Brightness', 'How bright the light is, in %', 70),
    colour: colour({ label: 'Colour', help: 'Colour of the light', default: '#FFFFFF' }),
    falls: choice({
      label: 'Falls on',
      help: 'On all that is there, or the more the brighter it is',
      default: 'all',
      options: [
        { value: 'all', label: 'All' },
        { value: 'lit', label: 'What is lit' },
      ],
    }),
  },
  headline: 'place',
  hands: { crossing: { place: 'place', angle: 'angle', ends: endsOf } },
  reads: 'pixel',
  idle: ({ amount, place }) => amount === 0 || place === 0 || place === 100,
  rows({ place, angle, width, softness, amount, colour, falls }, { kernels, px, linear, area }) {
    const [dx, dy] = [cosDegrees(angle), -sinDegrees(angle)]
    const [half, soft] = [px(width) / 2, Math.max(1, px(softness))]
    const [from, to] = endsOf({ angle, width, softness }, { px, area })
    const [low, high] = [from, to].map(({ x, y }) => x * dx + y * dy) as [Px, Px]
    const middle = low + ((high - low) * place) / 100
    const [r, g, b, a] = pixelColour(colour, linear)
    const light = [r, g, b, (a * amount) / 100] as const
    return (rows) => {
      const mark = kernels.mark()
      const away = kernels.absolute(kernels.placeLinear(rows.box, -middle, dx, dy))
      // 1 within the band, falling to 0 over the softness by an S.
      const plane = kernels.smoothStepped(kernels.ramped(away, half + soft, -1 / soft))
      kernels.lighten(rows, plane, light, falls === 'lit')
      kernels.release(mark)
    }
  },
})

/** Where the middle of the light is when it has not come in yet, and when it is gone. */
function endsOf(
  { angle, width, softness }: { angle: Degrees; width: Length; softness: Length },
  { px, area }: Pick<FinishScale, 'px' | 'area'>,
): readonly [Point, Point] {
  const [dx, dy] = [cosDegrees(angle), -sinDegrees(angle)]
  // From the middle of the picture to its corner that lies farthest that way, and the light's own half beyond it.
  const across = (Math.abs(dx) * (area.right - area.left) + Math.abs(dy) * (area.bottom - area.top)) / 2
  const away = across + px(width) / 2 + Math.max(1, px(softness))
  const { x, y } = middleOf(area)
  return [
    { x: x - dx * away, y: y - dy * away },
    { x: x + dx * away, y: y + dy * away },
  ]
}
