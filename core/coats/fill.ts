import { paint } from '../card/parameters'
import { defineCoat, NO_REACH } from './definition'

export const fill = defineCoat({
  kind: 'fill',
  label: 'Fill',
  help: 'Colour or gradient poured into the whole shape',
  parameters: {
    paint: paint({ label: 'Paint', help: 'What the shape is filled with', default: '#F2A33C' }),
  },
  headline: 'paint',
  group: () => 'face',
  reach: () => NO_REACH,
  layers: (values) => [{ field: 'inside', mask: null, paint: values.paint }],
})
