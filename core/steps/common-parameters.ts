import type { NumberParameter } from '../values/parameter-kinds'
import { choice, length, number } from '../values/parameter-kinds'

// Parameters that several kinds of step share.

type Extra = Pick<NumberParameter, 'when'>

export const percent = (label: string, help: string, standard: number, extra: Partial<NumberParameter> = {}) =>
  number({ label, help, default: standard, min: 0, max: 100, step: 1, unit: '%', ...extra })

/** A length from 0 on. */
export const span = (
  label: string,
  help: string,
  standard: number,
  slider: readonly [number, number] = [0, 120],
  extra: Extra = {},
) => length({ label, help, default: standard, min: 0, max: 5000, step: 0.5, slider, ...extra })

/** A length that can go either way. */
export const way = (label: string, help: string, standard: number, extra: Extra = {}) =>
  length({ label, help, default: standard, min: -20_000, max: 20_000, step: 0.5, slider: [-300, 300], ...extra })

export const angle = (label: string, help: string, standard: number, extra: Partial<NumberParameter> = {}) =>
  number({
    label,
    help,
    ...({ default: standard, min: -36_000, max: 36_000, step: 1, unit: '°', slider: [-180, 180] } as const),
    ...extra,
  })

export const join = choice({
  label: 'Corners',
  help: 'Form of the corners (SVG 2, stroke-linejoin)',
  default: 'round',
  options: [
    { value: 'round', label: 'Round' },
    { value: 'mitre', label: 'Mitre' },
    { value: 'bevel', label: 'Bevel' },
  ],
})

export const seed = (extra: Extra = {}) =>
  number({
    label: 'Seed',
    help: 'Another number, another throw',
    ...({ default: 1, min: 0, max: 65_535, step: 1, unit: '', slider: [0, 100] } as const),
    ...extra,
  })

export const every = (extra: Extra = {}) =>
  number({
    label: 'New every',
    help: 'Frames for which a throw of chance is held; 0 holds it for good. It closes over the loop',
    ...({ default: 0, min: 0, max: 1000, step: 1, unit: '', slider: [0, 12] } as const),
    ...extra,
  })

export const detail = (standard: number, extra: Extra = {}) =>
  number({
    label: 'Detail',
    help: 'Layers of noise: each has waves half as long and half as high',
    ...({ default: standard, min: 1, max: 6, step: 1, unit: '' } as const),
    ...extra,
  })
