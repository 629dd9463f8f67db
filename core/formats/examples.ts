/** An example of a file that can be brought in; all tell of the Lantern Regatta. */
export interface ExampleFile {
  /** As it is called when it comes. */
  name: string
  /** Where it lies in the project's folder. */
  path: string
  label: string
  /** Where it is brought in. */
  at: 'shelf' | 'roster' | 'bench' | 'font'
}

export const EXAMPLES: readonly ExampleFile[] = [
  { name: 'badge.card.json', path: 'demo/cards/10-badge-settles.card.json', label: 'A card', at: 'shelf' },
  {
    name: 'night-of-the-lanterns.card.zip',
    path: 'demo/examples/night-of-the-lanterns.card.zip',
    label: 'An archive: a card with its font and picture',
    at: 'shelf',
  },
  {
    name: 'lantern-regatta.seals.json',
    path: 'demo/seals/lantern-regatta.seals.json',
    label: 'A set of seals',
    at: 'shelf',
  },
  { name: 'crews.csv', path: 'demo/examples/crews.csv', label: 'A table of sixty names', at: 'roster' },
  { name: 'boat.png', path: 'demo/examples/boat.png', label: 'A logo with transparency, PNG', at: 'bench' },
  { name: 'boat.svg', path: 'demo/examples/boat.svg', label: 'A logo as paths, SVG', at: 'bench' },
  { name: 'righteous.woff2', path: 'demo/examples/righteous.woff2', label: 'A font, WOFF2', at: 'font' },
  { name: 'ink-spreading.zip', path: 'demo/sequences/ink-spreading.zip', label: 'A sequence of pictures', at: 'bench' },
]
