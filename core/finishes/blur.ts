import { blurReach } from '../kernels/gauss'
import { choice, number } from '../values/parameter-kinds'
import type { Length } from '../values/moving'
import { angle, percent, placeX, placeY, span } from './common-parameters'
import { defineFinish, EVERYWHERE } from './definition'
import { farthestFrom, isZero, placeIn } from './places'

const form = <T extends string>(is: T[]) => ({ when: { parameter: 'form', is } })

export const blur = defineFinish({
  kind: 'blur',
  label: 'Blur',
  help: 'Softens: all round, along a direction, around a point or towards one',
  parameters: {
    form: choice({
      label: 'Form',
      help: 'Soft: a Gaussian. Box: evenly over a square. Along: a smear in one direction. Around: turned about a point. Towards: from a point outward',
      default: 'soft',
      options: [
        { value: 'soft', label: 'Soft' },
        { value: 'box', label: 'Box' },
        { value: 'along', label: 'Along' },
        { value: 'around', label: 'Around' },
        { value: 'towards', label: 'Towards' },
      ],
    }),
    radius: span(
      'Radius',
      'How far it spreads: a Gaussian of half of it, or half the side of the box',
      12,
      [0, 100],
      form(['soft', 'box']),
    ),
    length: span('Length', 'Length of the smear', 60, [0, 300], form(['along'])),
    angle: angle('Direction of the smear in degrees anticlockwise: 0 is to the right', 0, form(['along'])),
    arc: number({
      label: 'Arc',
      help: 'How far the picture turns, in degrees',
      ...({ default: 10, min: 0, max: 360, step: 0.5, unit: '°', slider: [0, 90] } as const),
      ...form(['around']),
    }),
    zoom: percent('Zoom', 'How much the picture grows, in % of the distance from the point', 15, form(['towards'])),
    x: placeX(form(['around', 'towards'])),
    y: placeY(form(['around', 'towards'])),
  },
  headline: 'radius',
  hands: { place: ['x', 'y'], way: { angle: 'angle', length: 'length' } },
  reads: 'neighbours',
  idle: (values) => amountOf(values) === 0,
  reach({ form, radius, length }, scale) {
    if (form === 'soft') return blurReach(scale.px(radius) / 2)
    if (form === 'box') return scale.px(radius) + 2
    return form === 'along' ? scale.px(length) / 2 + 2 : EVERYWHERE
  },
  far({ form, arc, zoom, x, y }, scale, bounds) {
    const farthest = farthestFrom(placeIn(scale.area, x, y), bounds)
    // An arc is never farther than across the circle; a zoom ends in the point.
    return form === 'around' ? Math.min(2, (arc * Math.PI) / 360) * farthest + 2 : (zoom / 200) * farthest * 1.2 + 2
  },
  work({ form, radius, length, angle, arc, zoom, x, y }, { kernels, area, px }, src, dst) {
    const middle = placeIn(area, x, y)
    switch (form) {
      case 'soft':
        return kernels.softenInto(src, dst, px(radius) / 2)
      case 'box': {
        const mark = kernels.mark()
        const across = { ...kernels.layers(src.w, src.h, false), box: src.box }
        kernels.smearInto(src, across, 0, 2 * px(radius))
        kernels.smearInto(across, dst, 90, 2 * px(radius))
        return kernels.release(mark)
      }
      case 'along':
        return kernels.smearInto(src, dst, angle, px(length))
      case 'around':
        return kernels.spinInto(src, dst, middle.x, middle.y, arc)
      case 'towards':
        return kernels.zoomInto(src, dst, middle.x, middle.y, 1 - zoom / 200, 1 + zoom / 200)
    }
  },
})

interface Amounts {
  form: string
  radius: Length
  length: Length
  arc: number
  zoom: number
}

function amountOf({ form, radius, length, arc, zoom }: Amounts): number {
  if (form === 'soft' || form === 'box') return isZero(radius) ? 0 : 1
  if (form === 'along') return isZero(length) ? 0 : 1
  return form === 'around' ? arc : zoom
}
