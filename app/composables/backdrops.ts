/** What the card is looked at against; never in a render. Made of CSS, so that there is nothing to load. */
export const BACKDROPS = [
  { id: 'checker', label: 'Checker', css: 'repeating-conic-gradient(#8a8a8a 0 25%, #747474 0 50%) 0 0 / 24px 24px' },
  { id: 'black', label: 'Black', css: '#000' },
  { id: 'white', label: 'White', css: '#fff' },
  { id: 'grey', label: 'Mid grey', css: '#808080' },
  {
    id: 'dusk',
    label: 'Dusk water',
    css: [
      'radial-gradient(42% 10% at 50% 61%, #f2a86477, transparent)',
      'linear-gradient(#241a38, #5a2f4c 38%, #b0614f 56%, #e09a5d 61%, #33405c 61.5%, #1d2a3d 80%, #0e1722)',
    ].join(', '),
  },
  {
    id: 'fog',
    label: 'Bright fog',
    css: [
      'radial-gradient(60% 40% at 30% 30%, #ffffff, transparent)',
      'radial-gradient(50% 40% at 75% 65%, #dfe6e8, transparent)',
      'linear-gradient(#eef1f1, #c9d2d3 60%, #aebabc)',
    ].join(', '),
  },
] as const

export type BackdropId = (typeof BACKDROPS)[number]['id']

export const LOOKS = [
  { id: 'colour', label: 'Colour', help: 'The card over the backdrop' },
  { id: 'alpha', label: 'Alpha', help: 'Opacity alone: white is solid, black is clear' },
  { id: 'both', label: 'Light + dark', help: 'The card over white and over black, side by side' },
] as const

export type LookId = (typeof LOOKS)[number]['id']
