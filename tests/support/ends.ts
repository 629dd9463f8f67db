import { CURVE_NAMES } from '#core/curves/curve'
import type { Parameter } from '#core/values/parameter-kinds'
import { paintSchema } from '#core/values/paints'

export const gradient = (type: string, spread = 'pad') =>
  paintSchema.parse({
    ...{ type, spread, scale: 60, shift: 10, angle: 30 },
    stops: [
      { at: 0, colour: '#FF8800', middle: 20 },
      { at: 100, colour: '#2200FF40' },
    ],
  })
const texture = (pattern: string) => paintSchema.parse({ type: 'texture', pattern, ground: '#FF000080' })

/** Values at the ends of what a parameter may be; lengths stay on a scale that a small frame can show. */
export function endsOf(parameter: Parameter): unknown[] {
  switch (parameter.type) {
    case 'number':
      return [parameter.min, parameter.max]
    case 'length':
      return [parameter.min, parameter.max, { unit: '%', value: 150 }]
    case 'choice':
      return parameter.options.map(({ value }) => value)
    case 'toggle':
      return [true, false]
    case 'colour':
      return ['#FFFFFF', '#00000000']
    case 'piece':
      return [null, 'nobody']
    case 'pieces':
      return [[], ['nobody']]
    case 'text':
    case 'path':
      return ['', 'M 0 0']
    case 'curve':
      return [
        ...CURVE_NAMES,
        {
          points: [
            { x: 0, y: 1 },
            { x: 0.3, y: 0, joint: 'corner' },
            { x: 1, y: 1 },
          ],
        },
      ]
    case 'paint':
      return [
        ...['linear', 'radial', 'conic', 'edge'].map((type) => gradient(type)),
        gradient('linear', 'repeat'),
        gradient('radial', 'reflect'),
        ...['noise', 'flow', 'grid', 'lines', 'brushed', 'paper'].map(texture),
      ]
  }
}
