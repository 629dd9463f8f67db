import { z } from 'zod'
import { choice, number, piece, text } from '../values/parameter-kinds'
import { MOST_RANGES } from '../type/ranges'
import { definePiece } from './definition'

export const TYPE_PARAMETERS = {
  wording: text({ label: 'Wording', help: 'The words; they change at a key', default: '', longest: 2000 }),
  size: number({
    label: 'Size',
    help: 'Font size (1 em), in px',
    default: 200,
    min: 1,
    max: 5000,
    step: 1,
    unit: 'px',
    slider: [10, 500],
  }),
  tracking: number({
    label: 'Tracking',
    help: 'Space between letters, in thousandths of the size',
    default: 0,
    min: -500,
    max: 5000,
    step: 5,
    unit: '‰',
    slider: [-100, 600],
  }),
  leading: number({
    label: 'Leading',
    help: 'Distance of the lines, in % of the size',
    default: 110,
    min: 0,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [60, 200],
  }),
  along: piece({
    label: 'Along',
    help: 'The piece along whose outline the words stand',
    use: 'path',
  }),
  align: choice({
    label: 'Align',
    help: 'Which side of the lines stands at the place of the piece',
    default: 'centre',
    options: [
      { value: 'left', label: 'Left' },
      { value: 'centre', label: 'Centre' },
      { value: 'right', label: 'Right' },
    ],
  }),
} as const

export const type = definePiece({
  kind: 'type',
  label: 'Type',
  help: 'Words in a font',
  parameters: TYPE_PARAMETERS,
  own: ({ id, range }) => ({
    font: id,
    linked: id.nullable().default(null),
    ranges: z.array(range).max(MOST_RANGES).default([]),
  }),
  starts: { wording: 'Your words', font: 'abril-fatface', linked: null, ranges: [] },
  coatsFrom: 'words',
})
