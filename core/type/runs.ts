import type { Movable } from '../values/moving'
import { colour, number, toggle } from '../values/parameter-kinds'

// Stretches of a wording that are set otherwise than the rest.

export const RUN_PARAMETERS = {
  from: number({
    label: 'From',
    help: 'The first character of the run, counted from 1',
    ...({ default: 1, min: 1, max: 2000, step: 1, unit: '', slider: [1, 60] } as const),
  }),
  to: number({
    label: 'To',
    help: 'The last character of the run, counted from 1',
    ...({ default: 2000, min: 0, max: 2000, step: 1, unit: '', slider: [1, 60] } as const),
  }),
  size: number({
    label: 'Size',
    help: 'Size of its letters, in % of that of the piece',
    ...({ default: 100, min: 1, max: 1000, step: 1, unit: '%', slider: [20, 250] } as const),
  }),
  shift: number({
    label: 'Baseline',
    help: 'How far its letters stand above the line, in % of the size of the piece',
    ...({ default: 0, min: -500, max: 500, step: 1, unit: '%', slider: [-100, 100] } as const),
  }),
  tracking: number({
    label: 'Tracking',
    help: 'Space between its letters beside that of the piece, in thousandths of the size',
    ...({ default: 0, min: -500, max: 5000, step: 5, unit: '‰', slider: [-100, 600] } as const),
  }),
  coloured: toggle({ label: 'Own colour', help: 'Whether its fills take on a colour of its own', default: false }),
  colour: {
    ...colour({ label: 'Colour', help: 'The colour of its fills', default: '#E2683C' }),
    when: { parameter: 'coloured', is: [true] },
  },
  on: toggle({ label: 'Shown', help: 'Whether the run is set otherwise', default: true }),
} as const

/** One run of a type piece, as the document holds it. */
export interface TypeRun {
  id: string
  on: Movable<boolean>
  /** Null for that of the piece. */
  font: string | null
  from: Movable<number>
  to: Movable<number>
  size: Movable<number>
  shift: Movable<number>
  tracking: Movable<number>
  coloured: Movable<boolean>
  colour: Movable<string>
}

export const MOST_RUNS = 64
