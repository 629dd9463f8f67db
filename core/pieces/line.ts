import { cap, extent, thickness } from './common-parameters'
import { definePiece } from './definition'

export const LINE_PARAMETERS = {
  length: extent('Length', 'Length of the line between its ends, in px', 600),
  thickness: thickness(12, 'Thickness of the line, in px'),
  cap,
} as const

export const line = definePiece({
  kind: 'line',
  label: 'Line',
  help: 'A straight line with ends',
  parameters: LINE_PARAMETERS,
  coatsFrom: 'outline',
  outline: ({ length, thickness, cap }, work) =>
    work.line(
      [
        { type: 'M', x: -length / 2, y: 0 },
        { type: 'L', x: length / 2, y: 0 },
      ],
      { thickness, cap, join: 'round', limit: 4 },
    ),
  reference: ({ thickness }) => thickness,
})
