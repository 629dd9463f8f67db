import { number } from '../values/parameter-kinds'
import { polygonPath } from '../outline/polygon'
import { cornerRadius, extent } from './common-parameters'
import { definePiece } from './definition'
import { FIT_PARAMETERS } from './fit'

export const POLYGON_PARAMETERS = {
  width: extent('Width', 'Width of the circle that the corners lie on, in px', 300),
  height: extent('Height', 'Height of the circle that the corners lie on, in px', 300),
  sides: number({
    label: 'Sides',
    help: 'Number of sides of the polygon, of rays of the star',
    default: 6,
    min: 3,
    max: 60,
    step: 1,
    unit: '',
    slider: [3, 16],
  }),
  inset: number({
    label: 'Star',
    help: 'How far the middle of each side is drawn in, in % of the radius; at 0 it is a polygon',
    ...({ default: 0, min: 0, max: 99, step: 1, unit: '%' } as const),
  }),
  radius: cornerRadius('Corners', 'the corners that point outward'),
  ...FIT_PARAMETERS,
} as const

export const polygon = definePiece({
  kind: 'polygon',
  label: 'Polygon or star',
  help: 'Any number of equal sides or rays',
  parameters: POLYGON_PARAMETERS,
  coatsFrom: 'outline',
  outline({ inset, ...form }, { flat, united }) {
    if (form.width <= 0 || form.height <= 0) return []
    return united(flat(polygonPath({ ...form, inset: inset / 100 })))
  },
  reference: ({ width, height }) => Math.min(width, height),
})
