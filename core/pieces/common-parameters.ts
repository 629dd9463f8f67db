import { choice, number, toggle } from '../values/parameter-kinds'

// Parameters that several kinds of piece have.

export const extent = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 20_000, step: 1, unit: 'px', slider: [0, 1920] })

export const cornerRadius = (label: string, of: string) =>
  number({
    label,
    help: `Radius of ${of}, in px`,
    ...({ default: 0, min: 0, max: 10_000, step: 1, unit: 'px', slider: [0, 200] } as const),
  })

export const thickness = (value: number, help: string) =>
  number({ label: 'Thickness', help, default: value, min: 0, max: 5000, step: 0.5, unit: 'px', slider: [0, 80] })

export const cap = choice({
  label: 'Ends',
  help: 'Form of the ends (SVG 2, stroke-linecap)',
  default: 'round',
  options: [
    { value: 'butt', label: 'Cut' },
    { value: 'round', label: 'Round' },
    { value: 'square', label: 'Square' },
  ],
})

export const linearLight = toggle({
  label: 'Linear light',
  help: 'The file holds linear light without saying so: for pictures that come in too dark',
  default: false,
})

export const painted = number({
  label: 'Painted',
  help: 'How much of all strokes is there, in the order in which they were painted, in %',
  ...({ default: 100, min: 0, max: 100, step: 1, unit: '%' } as const),
})

export const fillRule = choice({
  label: 'Filled by',
  help: 'What lies within a path that crosses itself (SVG 2, fill-rule)',
  default: 'nonzero',
  options: [
    { value: 'nonzero', label: 'Non-zero' },
    { value: 'evenodd', label: 'Even-odd' },
  ],
})
