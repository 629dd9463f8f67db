import type { Movable } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import { choice, colour, number, text } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'

// Letter motion: a range holds what happens to letters on their way, and a sweep that weighs it from one to the next.
// This table feeds schema, panel, docs and the generic tests.

const shift = (label: string, way: string) =>
  number({
    label,
    help: `How far ${way} its place a letter is, in px`,
    ...({ default: 0, min: -20_000, max: 20_000, step: 1, unit: 'px', slider: [-500, 500] } as const),
  })

const percent = (label: string, help: string, value: number, min = 0) =>
  number({ label, help, default: value, min, max: 100, step: 1, unit: '%' })

export const RANGE_PARAMETERS = {
  units: choice({
    label: 'Moves',
    help: 'What the sweep goes through, one after another',
    default: 'letters',
    options: [
      { value: 'letters', label: 'Letters' },
      { value: 'words', label: 'Words' },
      { value: 'lines', label: 'Lines' },
    ],
  }),
  form: choice({
    label: 'Way',
    help: 'Arrive: from the values below to rest. Leave: from rest to them. Pass: to them and back, as a wave',
    default: 'arrive',
    options: [
      { value: 'arrive', label: 'Arrive' },
      { value: 'leave', label: 'Leave' },
      { value: 'pass', label: 'Pass' },
    ],
  }),
  order: choice({
    label: 'Order',
    help: 'Which of them goes first',
    default: 'forward',
    options: [
      { value: 'forward', label: 'Forward' },
      { value: 'backward', label: 'Backward' },
      { value: 'centre', label: 'From the centre' },
      { value: 'edges', label: 'From the edges' },
      { value: 'shuffle', label: 'Shuffled' },
    ],
  }),
  seed: number({
    label: 'Seed',
    help: 'Which of the shuffled orders it is',
    ...({ default: 1, min: 0, max: 9999, step: 1, unit: '' } as const),
    when: { parameter: 'order', is: ['shuffle'] },
  }),
  sweep: percent('Sweep', 'How far the sweep has gone, in %: move it from 0 to 100', 0),
  spread: percent('Spread', 'How much of the sweep one of them takes, in %: at 100 all go together', 40, 1),
  ease: choice({
    label: 'Ease',
    help: 'How one of them goes',
    default: 'early',
    options: [
      { value: 'even', label: 'Even' },
      { value: 'soft', label: 'Soft' },
      { value: 'early', label: 'Early' },
      { value: 'late', label: 'Late' },
      { value: 'past', label: 'Past and back' },
      { value: 'swing', label: 'Swing to rest' },
    ],
  }),
  from: percent('From', 'Where in the text the range begins, in %', 0),
  to: percent('To', 'Where in the text the range ends, in %', 100),
  bands: text({
    label: 'Bands',
    help: 'Which bands of the slices it moves, counted from the top, such as 1 3; empty for all',
    default: '',
    longest: 200,
  }),
  x: shift('X', 'to the right of'),
  y: shift('Y', 'below'),
  scale: number({
    label: 'Scale',
    help: 'Size of a letter with its coats, in %',
    ...({ default: 100, min: 0, max: 10_000, step: 1, unit: '%', slider: [0, 300] } as const),
  }),
  rotation: number({
    label: 'Rotation',
    help: 'Turn of a letter, in degrees anticlockwise',
    ...({ default: 0, min: -36_000, max: 36_000, step: 1, unit: '°', slider: [-180, 180] } as const),
  }),
  pivot: choice({
    label: 'About',
    help: 'The point of its own that it turns and grows about',
    default: 'middle',
    options: [
      { value: 'middle', label: 'Middle' },
      { value: 'foot', label: 'Foot' },
      { value: 'head', label: 'Head' },
    ],
  }),
  opacity: percent('Opacity', 'Opacity of a letter with its coats, in %', 100),
  tracking: number({
    label: 'Tracking',
    help: 'Space that a letter gets beside that of the piece, in thousandths of the size',
    ...({ default: 0, min: -1000, max: 10_000, step: 5, unit: '‰', slider: [-300, 1000] } as const),
  }),
  blur: number({
    label: 'Blur',
    help: 'Gaussian blur of a letter with its coats: standard deviation, in px',
    ...({ default: 0, min: 0, max: 500, step: 0.5, unit: 'px', slider: [0, 60] } as const),
  }),
  tint: percent('Tint', 'How much of the colour below its paint takes on, in %', 0),
  colour: colour({ label: 'Colour', help: 'The colour of the tint', default: '#E2683C' }),
  tinted: choice({
    label: 'Tints',
    help: 'Which coats take on the colour',
    default: 'fills',
    options: [
      { value: 'fills', label: 'Fills' },
      { value: 'all', label: 'All coats' },
    ],
  }),
} as const satisfies Parameters

/** The table of one range. A wave that has passed is where it was before: its sweep comes round. */
export const parametersOf = ({ form }: Pick<LetterRange, 'form'>): Parameters =>
  form === 'pass' ? WAVE : RANGE_PARAMETERS
const WAVE: Parameters = { ...RANGE_PARAMETERS, sweep: { ...RANGE_PARAMETERS.sweep, turn: 100 } }

export type RangeValues = EvaluatedValues<typeof RANGE_PARAMETERS>

/** One range of a type piece, as the document holds it. */
export interface LetterRange {
  id: string
  name: string
  on: boolean
  units: RangeValues['units']
  form: RangeValues['form']
  order: RangeValues['order']
  ease: RangeValues['ease']
  pivot: RangeValues['pivot']
  tinted: RangeValues['tinted']
  seed: Movable<number>
  sweep: Movable<number>
  spread: Movable<number>
  from: Movable<number>
  to: Movable<number>
  bands: Movable<string>
  x: Movable<number>
  y: Movable<number>
  scale: Movable<number>
  rotation: Movable<number>
  opacity: Movable<number>
  tracking: Movable<number>
  blur: Movable<number>
  tint: Movable<number>
  colour: Movable<string>
}

export const MOST_RANGES = 16

/** The numbers that a text names, counted from 1, as counted from 0; null for none. What is no number is passed over. */
export function numbersIn(words: string): ReadonlySet<number> | null {
  const numbers = words.split(/[^0-9]+/).flatMap((word) => (word === '' ? [] : [Number(word) - 1]))
  return numbers.length > 0 ? new Set(numbers) : null
}

/** What a range does to letters; at these values it does nothing. */
const NEUTRAL = ['x', 'y', 'scale', 'rotation', 'opacity', 'tracking', 'blur', 'tint'] as const

/** Whether a range can ever do anything: a matter of the card, not of the frame, so that nothing jumps at a frame. */
export const acts = (range: LetterRange): boolean =>
  range.on && NEUTRAL.some((name) => isMoving(range[name]) || range[name] !== RANGE_PARAMETERS[name].default)

/** Whether letters may come to stand farther apart or closer. */
export const tracks = (range: LetterRange): boolean => acts(range) && (isMoving(range.tracking) || range.tracking !== 0)
