import { BLEND_MODES } from '../paint/blend-modes'
import type { Parameters } from './parameter-kinds'
import { choice, number, path, text, toggle } from './parameter-kinds'

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
  blend: choice({
    label: 'Blend',
    help: 'How the face of the piece mixes with what lies below it',
    default: 'normal',
    options: BLEND_MODES,
  }),
  on: toggle({ label: 'Shown', help: 'Whether the piece is there; it changes at a key', default: true }),
} as const

export const TYPE_PARAMETERS = {
  wording: text({ label: 'Wording', help: 'The words; they change at a key', default: '', longest: 2000 }),
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

const extent = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 20_000, step: 1, unit: 'px', slider: [0, 1920] })

const cornerRadius = (label: string, of: string) =>
  number({
    label,
    help: `Radius of ${of}, in px`,
    ...({ default: 0, min: 0, max: 10_000, step: 1, unit: 'px', slider: [0, 200] } as const),
  })

export const BOX_PARAMETERS = {
  width: extent('Width', 'Width of the box, in px', 600),
  height: extent('Height', 'Height of the box, in px', 160),
  ownCorners: toggle({
    label: 'Each corner',
    help: 'Gives every corner a radius of its own',
    default: false,
  }),
  radius: { ...cornerRadius('Corners', 'all four corners'), when: { parameter: 'ownCorners', is: [false] } },
  topLeft: { ...cornerRadius('Top left', 'the corner at the top left'), when: { parameter: 'ownCorners', is: [true] } },
  topRight: {
    ...cornerRadius('Top right', 'the corner at the top right'),
    when: { parameter: 'ownCorners', is: [true] },
  },
  bottomRight: {
    ...cornerRadius('Bottom right', 'the corner at the bottom right'),
    when: { parameter: 'ownCorners', is: [true] },
  },
  bottomLeft: {
    ...cornerRadius('Bottom left', 'the corner at the bottom left'),
    when: { parameter: 'ownCorners', is: [true] },
  },
} as const

export const ELLIPSE_PARAMETERS = {
  width: extent('Width', 'Width of the ellipse, in px', 300),
  height: extent('Height', 'Height of the ellipse, in px', 300),
} as const

export const POLYGON_PARAMETERS = {
  width: extent('Width', 'Width of the circle that the corners lie on, in px', 300),
  height: extent('Height', 'Height of the circle that the corners lie on, in px', 300),
  sides: number({
    label: 'Sides',
    help: 'Number of sides of the polygon, of rays of the star',
    default: 6,
    min: 3,
    max: 60,
    step: 1,
    unit: '',
    slider: [3, 16],
  }),
  inset: number({
    label: 'Star',
    help: 'How far the middle of each side is drawn in, in % of the radius; at 0 it is a polygon',
    ...({ default: 0, min: 0, max: 99, step: 1, unit: '%' } as const),
  }),
  radius: cornerRadius('Corners', 'the corners that point outward'),
} as const

const thickness = (value: number, help: string) =>
  number({ label: 'Thickness', help, default: value, min: 0, max: 5000, step: 0.5, unit: 'px', slider: [0, 80] })

const cap = choice({
  label: 'Ends',
  help: 'Form of the ends (SVG 2, stroke-linecap)',
  default: 'round',
  options: [
    { value: 'butt', label: 'Cut' },
    { value: 'round', label: 'Round' },
    { value: 'square', label: 'Square' },
  ],
})

export const LINE_PARAMETERS = {
  length: extent('Length', 'Length of the line between its ends, in px', 600),
  thickness: thickness(12, 'Thickness of the line, in px'),
  cap,
} as const

export const PATH_PARAMETERS = {
  path: path({
    label: 'Path',
    help: 'SVG path data around the place of the piece; between keys of the same commands it moves point by point',
    default: 'M 0 0',
  }),
  thickness: thickness(0, 'Thickness of a line along the path, in px; at 0 the path is filled'),
  cap,
  join: choice({
    label: 'Corners',
    help: 'Form of the corners of a line (SVG 2, stroke-linejoin)',
    default: 'round',
    options: [
      { value: 'round', label: 'Round' },
      { value: 'mitre', label: 'Mitre' },
      { value: 'bevel', label: 'Bevel' },
    ],
  }),
  rule: choice({
    label: 'Filled by',
    help: 'What lies within a path that crosses itself (SVG 2, fill-rule)',
    default: 'nonzero',
    options: [
      { value: 'nonzero', label: 'Non-zero' },
      { value: 'evenodd', label: 'Even-odd' },
    ],
  }),
} as const

export const PICTURE_PARAMETERS = {
  width: extent('Width', 'Width of the picture, in px', 600),
  height: extent('Height', 'Height of the picture, in px', 400),
  linear: toggle({
    label: 'Linear light',
    help: 'The file holds linear light without saying so: for pictures that come in too dark',
    default: false,
  }),
} as const

/** Kinds of piece, with the parameters of their own. */
export const PIECE_KINDS = {
  type: { label: 'Type', help: 'Words in a font', parameters: TYPE_PARAMETERS },
  box: { label: 'Box', help: 'A rectangle with round or square corners', parameters: BOX_PARAMETERS },
  ellipse: { label: 'Ellipse', help: 'A circle or an ellipse', parameters: ELLIPSE_PARAMETERS },
  polygon: { label: 'Polygon or star', help: 'Any number of equal sides or rays', parameters: POLYGON_PARAMETERS },
  line: { label: 'Line', help: 'A straight line with ends', parameters: LINE_PARAMETERS },
  path: { label: 'Path', help: 'Any outline or line, as SVG path data', parameters: PATH_PARAMETERS },
  picture: {
    label: 'Picture',
    help: 'A PNG, JPEG or WebP file, with coats around its opaque parts',
    parameters: PICTURE_PARAMETERS,
  },
  group: { label: 'Group', help: 'Pieces together, with coats around them all', parameters: {} },
} as const satisfies Record<string, { label: string; help: string; parameters: Parameters }>

export type PieceKind = keyof typeof PIECE_KINDS
