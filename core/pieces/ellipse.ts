import { ellipsePath } from '../outline/ellipse'
import { extent } from './common-parameters'
import { definePiece } from './definition'
import { FIT_PARAMETERS } from './fit'

export const ELLIPSE_PARAMETERS = {
  width: extent('Width', 'Width of the ellipse, in px', 300),
  height: extent('Height', 'Height of the ellipse, in px', 300),
  ...FIT_PARAMETERS,
} as const

export const ellipse = definePiece({
  kind: 'ellipse',
  label: 'Ellipse',
  help: 'A circle or an ellipse',
  parameters: ELLIPSE_PARAMETERS,
  coatsFrom: 'outline',
  outline: ({ width, height }, { flat }) => (width > 0 && height > 0 ? flat(ellipsePath(width, height)) : []),
  reference: ({ width, height }) => Math.min(width, height),
})
