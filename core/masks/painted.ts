import { strokesSchema } from '../brushes/schema'
import { strokesBounds, strokesOf } from '../brushes/stroke'
import { rectanglePath } from '../outline/box'
import { painted } from '../pieces/common-parameters'
import { defineMask } from './definition'

export const paintedMask = defineMask({
  kind: 'painted',
  label: 'Painted mask',
  help: 'What brushes paint and erase by hand, with the same tips as a painting',
  parameters: { painted },
  own: (id) => ({ strokes: strokesSchema(id) }),
  starts: { strokes: [] },
  stands: true,
  cover: 'strokes',
  also: (mask) => ({ bounds: strokesBounds(strokesOf(mask)) }),
  outline: (values, { flat }) => {
    const { bounds } = values as unknown as { bounds: ReturnType<typeof strokesBounds> }
    return bounds ? flat(rectanglePath(bounds)) : []
  },
})
