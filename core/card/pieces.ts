import { BLEND_MODES } from '../paint/blend-modes'
import type { Parameters } from './parameters'
import { choice, number } from './parameters'

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
  opacity: number({
    label: 'Opacity',
    help: 'Opacity of the whole piece with all its coats, in %',
    default: 100,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  blend: choice({
    label: 'Blend',
    help: 'How the face of the piece mixes with what lies below it',
    default: 'normal',
    options: BLEND_MODES,
  }),
} as const

export const TYPE_PARAMETERS = {
  size: number({
    label: 'Size',
    help: 'Font size (1 em), in px',
    default: 200,
    min: 1,
    max: 5000,
    step: 1,
    unit: 'px',
    slider: [10, 500],
  }),
  tracking: number({
    label: 'Tracking',
    help: 'Space between letters, in thousandths of the size',
    default: 0,
    min: -500,
    max: 5000,
    step: 5,
    unit: '‰',
    slider: [-100, 600],
  }),
  leading: number({
    label: 'Leading',
    help: 'Distance of the lines, in % of the size',
    default: 110,
    min: 0,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [60, 200],
  }),
  align: choice({
    label: 'Align',
    help: 'Which side of the lines stands at the place of the piece',
    default: 'centre',
    options: [
      { value: 'left', label: 'Left' },
      { value: 'centre', label: 'Centre' },
      { value: 'right', label: 'Right' },
    ],
  }),
} as const

export const BOX_PARAMETERS = {
  width: number({
    label: 'Width',
    help: 'Width of the box, in px',
    default: 600,
    min: 0,
    max: 20_000,
    step: 1,
    unit: 'px',
    slider: [0, 1920],
  }),
  height: number({
    label: 'Height',
    help: 'Height of the box, in px',
    default: 160,
    min: 0,
    max: 20_000,
    step: 1,
    unit: 'px',
    slider: [0, 1080],
  }),
  radius: number({
    label: 'Corners',
    help: 'Radius of the corners, in px',
    default: 0,
    min: 0,
    max: 10_000,
    step: 1,
    unit: 'px',
    slider: [0, 200],
  }),
} as const

/** Kinds of piece, with the parameters of their own. */
export const PIECE_KINDS = {
  type: { label: 'Type', help: 'Words in a font', parameters: TYPE_PARAMETERS },
  box: { label: 'Box', help: 'A rectangle with corners square or round', parameters: BOX_PARAMETERS },
} as const satisfies Record<string, { label: string; help: string; parameters: Parameters }>

export type PieceKind = keyof typeof PIECE_KINDS
