import { strokesSchema } from '../brushes/schema'
import { strokesBounds, strokesOf } from '../brushes/stroke'
import { rectanglePath } from '../outline/box'
import { painted } from './common-parameters'
import { definePiece } from './definition'

export const painting = definePiece({
  kind: 'painting',
  label: 'Painting',
  help: 'Strokes of brushes, painted and erased by hand, with coats around them',
  parameters: { painted },
  own: ({ id }) => ({ strokes: strokesSchema(id) }),
  starts: { strokes: [] },
  coatsFrom: 'alpha',
  holds: 'pixels',
  also: (piece) => ({ bounds: strokesBounds(strokesOf(piece)) }),
  outline: (values, { flat }) => {
    const { bounds } = values as unknown as { bounds: ReturnType<typeof strokesBounds> }
    return bounds ? flat(rectanglePath(bounds)) : []
  },
})
