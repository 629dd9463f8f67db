import { z } from 'zod'
import { choice, path as pathData } from '../values/parameter-kinds'
import { cap, fillRule, thickness } from './common-parameters'
import { definePiece } from './definition'

/** How many values of pressure a path keeps, at even distances along it. */
export const MOST_PRESSURES = 256

export const PATH_PARAMETERS = {
  path: pathData({
    label: 'Path',
    help: 'SVG path data around the place of the piece; between keys of the same commands it moves point by point',
    default: 'M 0 0',
  }),
  thickness: thickness(0, 'Thickness of a line along the path, in px; at 0 the path is filled'),
  cap,
  join: choice({
    label: 'Corners',
    help: 'Form of the corners of a line (SVG 2, stroke-linejoin)',
    default: 'round',
    options: [
      { value: 'round', label: 'Round' },
      { value: 'mitre', label: 'Mitre' },
      { value: 'bevel', label: 'Bevel' },
    ],
  }),
  rule: fillRule,
} as const

export const path = definePiece({
  kind: 'path',
  label: 'Path',
  help: 'Any outline or line, as SVG path data',
  parameters: PATH_PARAMETERS,
  // A paper boat.
  starts: { path: 'M -150 10 L -60 10 L 0 -90 L 60 10 L 150 10 L 95 80 L -95 80 Z', pressure: [] },
  coatsFrom: 'outline',
  own: () => ({ pressure: z.array(z.number().min(0).max(1)).max(MOST_PRESSURES).default([]) }),
  outline({ path, thickness, cap, join, rule }, work) {
    const commands = work.path(path)
    return thickness > 0
      ? work.line(commands, { thickness, cap, join, limit: 4 })
      : work.united(work.flat(commands), rule)
  },
})
