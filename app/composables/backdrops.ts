interface Backdrop {
  id: string
  label: string
  css: string
  /** Moves like footage: class of its animation in main.css. */
  moving?: string
}

const lights = (count: number, seed: number, colours: readonly string[]) =>
  Array.from({ length: count }, (_, i) => {
    // Evenly scattered, the same each time (golden ratio sequence).
    const x = ((i + seed) * 61.8034) % 100
    const y = 20 + (((i + seed) * 38.1966 * 1.7) % 75)
    const size = 2.5 + ((i * 7) % 5) * 1.1
    return `radial-gradient(circle at ${x.toFixed(1)}% ${y.toFixed(1)}%, ${colours[i % colours.length]!} 0 ${size}vmin, transparent ${(size * 1.12).toFixed(2)}vmin)`
  }).join(', ')

/** What the card is looked at against; never in a render. Made of CSS, so that there is nothing to load. */
export const BACKDROPS: readonly Backdrop[] = [
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
  {
    id: 'crowd',
    label: 'Crowd lights, moving',
    css: `${lights(26, 3, ['#f6c66755', '#e2683c44', '#fff6ee33', '#5fb0ac3d'])}, linear-gradient(#171219, #2a1c22 60%, #120d10)`,
    moving: 'drifting',
  },
  {
    id: 'river',
    label: 'River at noon, moving',
    css: [
      'repeating-linear-gradient(176deg, #ffffff22 0 3px, transparent 3px 22px, #0b3a4422 22px 27px, transparent 27px 46px)',
      'repeating-linear-gradient(183deg, #cfe0dc33 0 5px, transparent 5px 61px)',
      'linear-gradient(#9cc3c9, #4f8f99 45%, #2c6470)',
    ].join(', '),
    moving: 'flowing',
  },
]

/** One of BACKDROPS, `own`, or a colour of the card's palette. */
export type BackdropId = string

/** CSS of a backdrop; `own` is the address of the designer's own picture. */
export function backdropCss(id: BackdropId, own: string | null): { background: string; class: string } {
  if (id === 'own' && own) return { background: `url("${own}") center / cover`, class: '' }
  if (id.startsWith('#')) return { background: id, class: '' }
  const found = BACKDROPS.find((backdrop) => backdrop.id === id) ?? BACKDROPS[0]!
  return { background: found.css, class: found.moving ?? '' }
}

export const LOOKS = [
  { id: 'colour', label: 'Colour', help: 'The card over the backdrop' },
  { id: 'alpha', label: 'Alpha', help: 'Opacity alone: white is solid, black is clear' },
  {
    id: 'split',
    label: 'Before',
    help: 'Left of the line without the selected coat, or as the card was when it was opened',
  },
  { id: 'both', label: 'Light, dark', help: 'The card over white and over black, side by side' },
] as const

export type LookId = (typeof LOOKS)[number]['id']
