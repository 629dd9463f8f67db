import { toggle } from '../values/parameter-kinds'
import { boxPath } from '../outline/box'
import { cornerRadius, extent } from './common-parameters'
import { definePiece } from './definition'
import { FIT_PARAMETERS } from './fit'

export const BOX_PARAMETERS = {
  width: extent('Width', 'Width of the box, in px', 600),
  height: extent('Height', 'Height of the box, in px', 160),
  ownCorners: toggle({
    label: 'Each corner',
    help: 'Gives every corner a radius of its own',
    default: false,
  }),
  radius: { ...cornerRadius('Corners', 'all four corners'), when: { parameter: 'ownCorners', is: [false] } },
  topLeft: { ...cornerRadius('Top left', 'the corner at the top left'), when: { parameter: 'ownCorners', is: [true] } },
  topRight: {
    ...cornerRadius('Top right', 'the corner at the top right'),
    when: { parameter: 'ownCorners', is: [true] },
  },
  bottomRight: {
    ...cornerRadius('Bottom right', 'the corner at the bottom right'),
    when: { parameter: 'ownCorners', is: [true] },
  },
  bottomLeft: {
    ...cornerRadius('Bottom left', 'the corner at the bottom left'),
    when: { parameter: 'ownCorners', is: [true] },
  },
  ...FIT_PARAMETERS,
} as const

export const box = definePiece({
  kind: 'box',
  label: 'Box',
  help: 'A rectangle with round or square corners',
  parameters: BOX_PARAMETERS,
  coatsFrom: 'outline',
  outline({ width, height, radius: r, ownCorners, topLeft, topRight, bottomRight, bottomLeft }, { flat }) {
    if (width <= 0 || height <= 0) return []
    const corners = ownCorners ? ([topLeft, topRight, bottomRight, bottomLeft] as const) : ([r, r, r, r] as const)
    return flat(boxPath(width, height, corners))
  },
  reference: ({ width, height }) => Math.min(width, height),
})
