import { z } from 'zod'
import { choice, number, piece, text } from '../values/parameter-kinds'
import { shapeOf } from '../values/parameters'
import { AXIS_PARAMETERS, AXIS_TAG, MOST_AXES } from '../type/axes'
import { MOST_RANGES } from '../type/ranges'
import { MOST_RUNS, RUN_PARAMETERS } from '../type/runs'
import { definePiece } from './definition'

/** Pairs of characters that are kerned by hand. */
export const MOST_PAIRS = 200
/** Fonts that are asked for what the piece's own has no glyph for. */
export const MOST_FALLBACKS = 8

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
  align: choice({
    label: 'Align',
    help: 'Which side of the lines stands at the place of the piece; justified lines fill the text box',
    default: 'centre',
    options: [
      { value: 'left', label: 'Left' },
      { value: 'centre', label: 'Centre' },
      { value: 'right', label: 'Right' },
      { value: 'justify', label: 'Justify' },
    ],
  }),
  width: number({
    label: 'Text box',
    help: 'Width of the text box, in px; at 0 lines are as long as they were typed',
    ...({ default: 0, min: 0, max: 20_000, step: 1, unit: 'px', slider: [0, 1920] } as const),
  }),
  wide: choice({
    label: 'Too wide',
    help: 'What becomes of lines that are wider than the text box',
    default: 'break',
    options: [
      { value: 'break', label: 'Break' },
      { value: 'smaller', label: 'Smaller' },
      { value: 'closer', label: 'Closer' },
    ],
  }),
  least: {
    ...number({
      label: 'Smallest',
      help: 'The smallest size that it is made to have room in the text box, in % of its own',
      ...({ default: 60, min: 5, max: 100, step: 1, unit: '%' } as const),
    }),
    when: { parameter: 'wide', is: ['smaller'] },
  },
  closest: {
    ...number({
      label: 'Closest',
      help: 'The closest tracking that it is given to have room in the text box, in thousandths of the size',
      ...({ default: -60, min: -500, max: 5000, step: 5, unit: '‰', slider: [-150, 100] } as const),
    }),
    when: { parameter: 'wide', is: ['closer'] },
  },
  letterCase: choice({
    label: 'Case',
    help: 'As typed, all capitals, all small letters, or every word with a capital',
    default: 'typed',
    options: [
      { value: 'typed', label: 'Typed' },
      { value: 'upper', label: 'AA' },
      { value: 'lower', label: 'aa' },
      { value: 'title', label: 'Aa' },
    ],
  }),
  shift: number({
    label: 'Baseline',
    help: 'How far the letters stand above their line, in % of the size',
    ...({ default: 0, min: -500, max: 500, step: 1, unit: '%', slider: [-100, 100] } as const),
  }),
  features: text({
    label: 'Features',
    help: 'OpenType features by the tags of the standard, such as smcp tnum ss01 salt=2 -liga',
    default: '',
    longest: 200,
  }),
  along: piece({
    label: 'Along',
    help: 'The piece along whose outline the words stand',
    use: 'path',
  }),
  start: {
    ...number({
      label: 'Begins at',
      help: 'Where on the path the words begin, or their middle or end stands, in % of its length',
      ...({ default: 0, min: -10_000, max: 10_000, step: 1, unit: '%', slider: [-100, 100], turn: 100 } as const),
    }),
    when: { parameter: 'along', filled: true },
  },
  pathSide: {
    ...choice({
      label: 'Side',
      help: 'On which side of the path, seen in its direction; the outline of a shape runs clockwise',
      default: 'left',
      options: [
        { value: 'left', label: 'Outside' },
        { value: 'right', label: 'Inside' },
      ],
    }),
    when: { parameter: 'along', filled: true },
  },
  overflow: {
    ...choice({
      label: 'Beyond',
      help: 'What has no room on an open path is hidden, or goes on straight',
      default: 'hide',
      options: [
        { value: 'hide', label: 'Hidden' },
        { value: 'straight', label: 'Straight on' },
      ],
    }),
    when: { parameter: 'along', filled: true },
  },
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
    axes: z
      .array(
        z.strictObject({
          id,
          tag: z.string().regex(AXIS_TAG, 'is no tag of four letters'),
          ...shapeOf(AXIS_PARAMETERS),
        }),
      )
      .max(MOST_AXES)
      .default([]),
    runs: z
      .array(z.strictObject({ id, font: id.nullable().default(null), ...shapeOf(RUN_PARAMETERS) }))
      .max(MOST_RUNS)
      .default([]),
    pairs: z
      .array(z.strictObject({ pair: z.string().min(2).max(4), by: z.number().min(-2000).max(2000) }))
      .max(MOST_PAIRS)
      .default([]),
    fallbacks: z.array(id).max(MOST_FALLBACKS).default([]),
  }),
  starts: {
    ...{ wording: 'Your words', font: 'abril-fatface', linked: null },
    ...{ ranges: [], axes: [], runs: [], pairs: [], fallbacks: [] },
  },
  coatsFrom: 'words',
})
