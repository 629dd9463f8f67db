// W3C Compositing and Blending Level 1; `plus-lighter` from Level 2. Each has kernels of its name.
const NAMES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
  'plus-lighter',
] as const

export type BlendMode = (typeof NAMES)[number]

const sentence = (name: string) => name[0]!.toUpperCase() + name.slice(1).replace('-', ' ')

export const BLEND_MODES = NAMES.map((value) => ({ value, label: sentence(value).replace('Color', 'Colour') }))
