import { paint } from '../values/parameter-kinds'
import { defineCoat, NO_REACH } from './definition'

export const fill = defineCoat({
  kind: 'fill',
  label: 'Fill',
  help: 'Colour, gradient or texture poured into the whole shape',
  parameters: {
    paint: paint({ label: 'Paint', help: 'What the shape is filled with', default: '#F2A33C' }),
  },
  headline: 'paint',
  group: () => 'face',
  reach: () => NO_REACH,
  looks: 2,
  measures: (values, scale) => (values.paint.type === 'edge' ? scale.innerDepth() + 1 : 0),
  layers({ paint }, tools) {
    if (paint.type !== 'edge') return [{ where: 'inside', mask: null, paint }]
    const along = tools.ramped(tools.distance(), 0, -1 / Math.max(1e-3, tools.innerDepth()))
    return [{ where: 'inside', mask: null, paint, along }]
  },
})
