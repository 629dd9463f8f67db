import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Rect } from '../units'
import { choice } from '../values/parameter-kinds'
import { angle, placeX, placeY, way } from './common-parameters'
import { defineFinish, EVERYWHERE } from './definition'
import { edgeArea, farthestFrom, isZero, placeIn } from './places'

const outward = { when: { parameter: 'form', is: ['outward'] } }

export const fringe = defineFinish({
  kind: 'fringe',
  label: 'Fringe',
  help: 'Moves red and blue apart, as a bad lens or a loose signal does; green stays',
  parameters: {
    form: choice({
      label: 'Form',
      help: 'Across: red one way, blue the other. Outward: red grows about a point, blue shrinks',
      default: 'across',
      options: [
        { value: 'across', label: 'Across' },
        { value: 'outward', label: 'Outward' },
      ],
    }),
    amount: way('Amount', 'How far red and blue are moved; outward: in the corners', 4),
    angle: angle('Where red is moved to, in degrees anticlockwise', 0, { when: { parameter: 'form', is: ['across'] } }),
    x: placeX(outward),
    y: placeY(outward),
  },
  headline: 'amount',
  hands: { place: ['x', 'y'], way: { angle: 'angle', length: 'amount' } },
  reads: 'neighbours',
  idle: ({ amount }) => isZero(amount),
  reach: ({ amount, form }, { px }) => (form === 'outward' ? EVERYWHERE : Math.abs(px(amount)) + 3),
  far: ({ amount, x, y }, { px, area }, bounds) =>
    (Math.abs(px(amount)) * farthestFrom(placeIn(area, x, y), bounds)) / halfDiagonal(area) + 3,
  work({ form, amount, angle, x, y }, bench, src, dst) {
    const { kernels, px, area } = bench
    const by = px(amount)
    const open = edgeArea(bench, 'open')
    if (form === 'across') {
      const [dx, dy] = [cosDegrees(angle) * by, -sinDegrees(angle) * by]
      const parts = [
        { x: -dx, y: -dy },
        { x: 0, y: 0 },
        { x: dx, y: dy },
      ] as const
      return kernels.partInto(src, dst, parts, open)
    }
    const middle = placeIn(area, x, y)
    // One amount half a diagonal away.
    const share = by / halfDiagonal(area)
    kernels.spreadInto(src, dst, middle.x, middle.y, [1 - share, 1, 1 + share], open)
  },
})

const halfDiagonal = ({ left, top, right, bottom }: Rect) =>
  Math.max(1, Math.sqrt((right - left) ** 2 + (bottom - top) ** 2) / 2)
