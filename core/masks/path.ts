import { fillRule } from '../pieces/common-parameters'
import { path } from '../values/parameter-kinds'
import { defineMask } from './definition'

export const pathMask = defineMask({
  kind: 'path',
  label: 'Path mask',
  help: 'Any area, as SVG path data; between keys of the same commands it moves point by point',
  parameters: {
    path: path({
      label: 'Path',
      help: 'SVG path data around the place of the mask',
      default: 'M -200 100 L 0 -120 L 200 100 Z',
    }),
    rule: fillRule,
  },
  stands: true,
  outline: ({ path, rule }, work) => work.united(work.flat(work.path(path)), rule),
})
