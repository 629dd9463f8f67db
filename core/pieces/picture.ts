import { boxPath } from '../outline/box'
import { extent, linearLight } from './common-parameters'
import { definePiece } from './definition'

export const PICTURE_PARAMETERS = {
  width: extent('Width', 'Width of the picture, in px', 600),
  height: extent('Height', 'Height of the picture, in px', 400),
  linear: linearLight,
} as const

export const picture = definePiece({
  kind: 'picture',
  label: 'Picture',
  help: 'A PNG, JPEG or WebP file, with coats around its opaque parts',
  parameters: PICTURE_PARAMETERS,
  own: ({ picture }) => ({ picture: picture.nullable().default(null) }),
  starts: { picture: null },
  coatsFrom: 'alpha',
  holds: 'pixels',
  outline: ({ width, height }, { flat }) => (width > 0 && height > 0 ? flat(boxPath(width, height, [0, 0, 0, 0])) : []),
  reference: ({ width, height }) => Math.min(width, height),
})
