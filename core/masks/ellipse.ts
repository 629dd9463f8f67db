import { ellipsePath } from '../outline/ellipse'
import { extent } from '../pieces/common-parameters'
import { defineMask } from './definition'
import { sidesGrip } from './sides-grip'

export const ellipseMask = defineMask({
  kind: 'ellipse',
  label: 'Ellipse mask',
  help: 'A circle or an ellipse',
  parameters: {
    width: extent('Width', 'Width of the ellipse, in px', 300),
    height: extent('Height', 'Height of the ellipse, in px', 300),
  },
  stands: true,
  outline: ({ width, height }, { flat }) => (width > 0 && height > 0 ? flat(ellipsePath(width, height)) : []),
  grips: ({ width, height }) => [sidesGrip(width, height, Math.SQRT1_2)],
})
