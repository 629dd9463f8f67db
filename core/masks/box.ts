import { boxPath } from '../outline/box'
import { cornerRadius, extent } from '../pieces/common-parameters'
import { defineMask } from './definition'
import { sidesGrip } from './sides-grip'

export const boxMask = defineMask({
  kind: 'box',
  label: 'Box mask',
  help: 'A rectangle with round or square corners',
  parameters: {
    width: extent('Width', 'Width of the box, in px', 400),
    height: extent('Height', 'Height of the box, in px', 200),
    radius: cornerRadius('Corners', 'all four corners'),
  },
  stands: true,
  outline({ width, height, radius: r }, { flat }) {
    return width > 0 && height > 0 ? flat(boxPath(width, height, [r, r, r, r])) : []
  },
  grips: ({ width, height }) => [sidesGrip(width, height, 1)],
})
