import { BLEND_MODES } from '../kernels/blend-modes'
import { choice, number, piece, text, toggle } from '../values/parameter-kinds'

function anchor(label: string, way: string) {
  const help = `The point that stands at the place and that the piece turns and grows about: px ${way} its own middle`
  return number({ label, help, default: 0, min: -100_000, max: 100_000, step: 1, unit: 'px', slider: [-500, 500] })
}

/** What every piece has: where it stands and how it is laid on the card. */
export const PLACE_PARAMETERS = {
  x: number({
    label: 'X',
    help: 'Place of the piece from the left of the card, in px',
    default: 960,
    min: -100_000,
    max: 100_000,
    step: 1,
    unit: 'px',
    slider: [0, 1920],
  }),
  y: number({
    label: 'Y',
    help: 'Place of the piece from the top of the card, in px',
    default: 540,
    min: -100_000,
    max: 100_000,
    step: 1,
    unit: 'px',
    slider: [0, 1080],
  }),
  rotation: number({
    label: 'Rotation',
    help: 'Turn around the place of the piece, in degrees anticlockwise',
    default: 0,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  scale: number({
    label: 'Scale',
    help: 'Enlarges the piece and its coats, in %',
    default: 100,
    min: 0,
    max: 10_000,
    step: 1,
    unit: '%',
    slider: [0, 300],
  }),
  stretchX: number({
    label: 'Stretch X',
    help: 'Stretches the outline sideways, in %; its coats keep their width. Below 0 it is mirrored',
    ...({ default: 100, min: -1000, max: 1000, step: 1, unit: '%', slider: [0, 300] } as const),
  }),
  stretchY: number({
    label: 'Stretch Y',
    help: 'Stretches the outline up and down, in %; its coats keep their width. Below 0 it is mirrored',
    ...({ default: 100, min: -1000, max: 1000, step: 1, unit: '%', slider: [0, 300] } as const),
  }),
  skew: number({
    label: 'Skew',
    help: 'Lets the outline lean to the right, in degrees; below 0 to the left',
    ...({ default: 0, min: -85, max: 85, step: 1, unit: '°', slider: [-45, 45] } as const),
  }),
  opacity: number({
    label: 'Opacity',
    help: 'Opacity of the whole piece with all its coats, in %',
    default: 100,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  anchorX: anchor('Anchor X', 'right of'),
  anchorY: anchor('Anchor Y', 'below'),
  weave: piece({
    label: 'Woven',
    help: 'Words that it lies in front of, except at letters chosen by hand, where it passes behind them',
    use: 'letters',
  }),
  weaveLetters: {
    ...text({
      label: 'Behind',
      help: 'The letters that it passes behind, counted from the first one with all spaces, such as 2 5',
      default: '',
      longest: 400,
    }),
    when: { parameter: 'weave', filled: true },
  },
  blend: choice({
    label: 'Blend',
    help: 'How the face of the piece mixes with what lies below it',
    default: 'normal',
    options: BLEND_MODES,
  }),
  on: toggle({ label: 'Shown', help: 'Whether the piece is there; it changes at a key', default: true }),
} as const
