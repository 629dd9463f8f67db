import type { Edges } from '../kernels/kernels'
import type { NumberParameter } from '../values/parameter-kinds'
import { choice, length, number, toggle } from '../values/parameter-kinds'

// Parameters that several kinds of finish share.

type Extra = Pick<NumberParameter, 'when'>

export const percent = (label: string, help: string, standard: number, extra: Extra = {}) =>
  number({ label, help, default: standard, min: 0, max: 100, step: 1, unit: '%', ...extra })

export const angle = (help: string, standard: number, extra: Extra & { label?: string } = {}) =>
  number({
    label: 'Angle',
    help,
    ...({ default: standard, min: -36_000, max: 36_000, step: 1, unit: '°', slider: [-180, 180] } as const),
    ...extra,
  })

/** A length from 0 on. */
export const span = (
  label: string,
  help: string,
  standard: number,
  slider: readonly [number, number] = [0, 120],
  extra: Extra & { max?: number } = {},
) => length({ label, help, default: standard, min: 0, max: 2000, step: 0.5, slider, ...extra })

/** A length that can go either way. */
export const way = (label: string, help: string, standard: number, extra: Extra = {}) =>
  length({ label, help, default: standard, min: -4000, max: 4000, step: 0.5, slider: [-200, 200], ...extra })

/** A place in % of the piece's ink or of the frame. */
export const placeX = (extra: Extra = {}, help = 'Place from the left, in % of the width', standard = 50) =>
  number({
    label: 'Place X',
    help,
    default: standard,
    min: -1000,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [0, 100],
    ...extra,
  })
export const placeY = (extra: Extra = {}, help = 'Place from the top, in % of the height', standard = 50) =>
  number({
    label: 'Place Y',
    help,
    default: standard,
    min: -1000,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [0, 100],
    ...extra,
  })

export const seed = number({
  label: 'Seed',
  help: 'Another number, another throw',
  default: 1,
  min: 0,
  max: 65_535,
  step: 1,
  unit: '',
  slider: [0, 100],
})

export const every = (standard: number) =>
  number({
    label: 'New every',
    help: 'Frames for which a throw of chance is held; 0 holds it for good. It closes over the loop',
    default: standard,
    min: 0,
    max: 1000,
    step: 1,
    unit: '',
    slider: [0, 12],
  })

export const evolution = number({
  label: 'Evolution',
  help: 'Lets the noise flow: 1 is a whole turn, after which it is the same again',
  default: 0,
  min: -1000,
  max: 1000,
  step: 0.01,
  unit: '',
  slider: [0, 4],
  turn: 1,
})

export const detail = (standard: number) =>
  number({
    label: 'Detail',
    help: 'Octaves of noise: each has grains half as large and half as strong',
    default: standard,
    min: 1,
    max: 8,
    step: 1,
    unit: '',
  })

export const edges = choice({
  label: 'Edges',
  help: 'What comes in beyond the edges of the piece or frame: what lies there, nothing, the last pixel, the picture mirrored or again',
  default: 'open' as Edges,
  options: [
    { value: 'open', label: 'What lies there' },
    { value: 'clear', label: 'Clear' },
    { value: 'held', label: 'Held' },
    { value: 'mirrored', label: 'Mirrored' },
    { value: 'wrapped', label: 'Wrapped' },
  ],
})

export const smooth = toggle({
  label: 'Finer',
  help: 'Reads between sixteen pixels in place of four: sharper, and twice the work',
  default: false,
})

export const channel = choice({
  label: 'Channel',
  help: 'All colours alike, or one alone',
  default: 'all',
  options: [
    { value: 'all', label: 'All' },
    { value: 'red', label: 'Red' },
    { value: 'green', label: 'Green' },
    { value: 'blue', label: 'Blue' },
  ],
})
