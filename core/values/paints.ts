import { z } from 'zod'
import type { StoredPaint } from './moving'
import { colourSchema, movableColour, movableNumber } from './moving'
import type { ChoiceParameter, ColourParameter, NumberParameter } from './parameter-kinds'
import { choice, colour, number } from './parameter-kinds'

// One table of paint kinds: schema, panel, addresses and docs are made from it.

const angle = number({
  label: 'Angle',
  help: 'Direction from the first colour to the last, in degrees: 0 is left to right, 90 is upward',
  default: 90,
  min: -36_000,
  max: 36_000,
  step: 1,
  unit: '°',
  slider: [-180, 180],
})

const centre = (label: string, help: string) =>
  number({ label, help, default: 50, min: -1000, max: 1000, step: 1, unit: '%', slider: [0, 100] })

/** Parameters of a gradient; which of them count depends on its kind. */
export const GRADIENT_PARAMETERS = {
  angle,
  scale: number({
    label: 'Scale',
    help: 'Length of the gradient in % of what the shape spans in its direction',
    default: 100,
    min: 1,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [10, 300],
  }),
  shift: number({
    label: 'Shift',
    help: 'Moves the colours along the gradient, in % of its span',
    default: 0,
    min: -1000,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [-100, 100],
  }),
  x: centre('Middle X', 'Where the middle stands, in % of the width from the left'),
  y: centre('Middle Y', 'Where the middle stands, in % of the height from the top'),
} as const

export const GRADIENT_CHOICES = {
  form: choice({
    label: 'Form',
    help: 'Circle: the same reach on all sides. Ellipse: as wide and high as the shape',
    default: 'circle',
    options: [
      { value: 'circle', label: 'Circle' },
      { value: 'ellipse', label: 'Ellipse' },
    ],
  }),
  spread: choice({
    label: 'Beyond',
    help: 'How the gradient goes on beyond its ends: held, mirrored or repeated (SVG 2, spreadMethod)',
    default: 'pad',
    options: [
      { value: 'pad', label: 'Held' },
      { value: 'reflect', label: 'Mirrored' },
      { value: 'repeat', label: 'Repeated' },
    ],
  }),
  mix: choice({
    label: 'Mixed in',
    help: 'Space in which colours are mixed: sRGB as CSS does, linear as light does, OKLab evenly to the eye',
    default: 'srgb',
    options: [
      { value: 'srgb', label: 'sRGB' },
      { value: 'linear', label: 'Linear' },
      { value: 'oklab', label: 'OKLab' },
    ],
  }),
} as const

export const STOP_PARAMETERS = {
  at: number({
    label: 'Place',
    help: 'Where the colour stands, in % of the gradient',
    default: 0,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  colour: colour({ label: 'Colour', help: 'Colour with opacity, as #RRGGBB or #RRGGBBAA', default: '#FFFFFF' }),
  middle: number({
    label: 'Midpoint',
    help: 'Where the mix with the next colour is half and half, in % of the way to it (CSS Images 4, colour hints)',
    default: 50,
    min: 1,
    max: 99,
    step: 1,
    unit: '%',
  }),
} as const

export const TEXTURE_PARAMETERS = {
  colour: colour({ label: 'Colour', help: 'Colour of what the texture draws', default: '#FFFFFF' }),
  ground: colour({ label: 'Ground', help: 'Colour between; clear with #RRGGBB00', default: '#00000000' }),
  scale: number({
    label: 'Scale',
    help: 'Size of the texture in % of its own',
    default: 100,
    min: 1,
    max: 10_000,
    step: 1,
    unit: '%',
    slider: [10, 400],
  }),
  angle: number({
    label: 'Angle',
    help: 'Turn of the texture in degrees anticlockwise: at 0 lines lie flat',
    default: 0,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  x: number({
    label: 'Shift X',
    help: 'Moves the texture to the right, in px',
    default: 0,
    min: -100_000,
    max: 100_000,
    step: 1,
    unit: 'px',
    slider: [-200, 200],
  }),
  y: number({
    label: 'Shift Y',
    help: 'Moves the texture down, in px',
    default: 0,
    min: -100_000,
    max: 100_000,
    step: 1,
    unit: 'px',
    slider: [-200, 200],
  }),
  weight: number({
    label: 'Weight',
    help: 'Lines and grid: width of a line in % of the distance. Others: contrast',
    default: 50,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  seed: number({
    label: 'Seed',
    help: 'Another number, another throw of the same texture',
    default: 1,
    min: 0,
    max: 65_535,
    step: 1,
    unit: '',
    slider: [0, 100],
  }),
  sizeX: number({
    label: 'Size X',
    help: 'Flowing noise: width of its largest grains, in px',
    default: 200,
    min: 1,
    max: 10_000,
    step: 1,
    unit: 'px',
    slider: [4, 800],
  }),
  sizeY: number({
    label: 'Size Y',
    help: 'Flowing noise: height of its largest grains, in px; much more or less than the width makes streaks',
    default: 200,
    min: 1,
    max: 10_000,
    step: 1,
    unit: 'px',
    slider: [4, 800],
  }),
  detail: number({
    label: 'Detail',
    help: 'Flowing noise: octaves, each with grains half as large and half as strong',
    default: 4,
    min: 1,
    max: 8,
    step: 1,
    unit: '',
  }),
  brightness: number({
    label: 'Brightness',
    help: 'Flowing noise: moves all of it towards the colour, or (negative) towards the ground, in %',
    default: 0,
    min: -100,
    max: 100,
    step: 1,
    unit: '%',
  }),
  evolution: number({
    label: 'Evolution',
    help: 'Lets the noise flow: 1 is a whole turn, after which it is the same again',
    default: 0,
    min: -1000,
    max: 1000,
    step: 0.01,
    unit: '',
    slider: [0, 4],
    turn: 1,
  }),
} as const

const PLACE = ['scale', 'angle', 'x', 'y'] as const
const DRAWN = ['colour', 'ground', ...PLACE, 'weight'] as const
const THROWN = [...DRAWN, 'seed'] as const

/** Generated textures, and `picture` for one that was brought in; which parameters count for each. */
export const PATTERNS = [
  { value: 'noise', label: 'Noise', counts: THROWN },
  { value: 'flow', label: 'Flowing noise', counts: [...THROWN, 'sizeX', 'sizeY', 'detail', 'brightness', 'evolution'] },
  { value: 'grid', label: 'Grid', counts: DRAWN },
  { value: 'lines', label: 'Lines', counts: DRAWN },
  { value: 'brushed', label: 'Brushed metal', counts: THROWN },
  { value: 'paper', label: 'Paper', counts: THROWN },
  { value: 'picture', label: 'Picture', counts: PLACE },
] as const satisfies readonly { value: string; label: string; counts: readonly (keyof typeof TEXTURE_PARAMETERS)[] }[]
export type Pattern = (typeof PATTERNS)[number]['value']

type GradientName = keyof typeof GRADIENT_PARAMETERS
type GradientChoice = keyof typeof GRADIENT_CHOICES

export interface PaintKind {
  type: StoredPaint['type']
  label: string
  help: string
  /** Gradients only: which parameters count. */
  numbers: readonly GradientName[]
  choices: readonly GradientChoice[]
}

export const PAINT_KINDS: readonly PaintKind[] = [
  { type: 'solid', label: 'Solid', help: 'One colour', numbers: [], choices: [] },
  {
    type: 'linear',
    label: 'Linear',
    help: 'A gradient along a line (CSS Images 4 §3.1)',
    numbers: ['angle', 'scale', 'shift'],
    choices: ['spread', 'mix'],
  },
  {
    type: 'radial',
    label: 'Radial',
    help: 'A gradient from a middle outward; at 100 % it ends at the farthest side (CSS Images 4 §3.2)',
    numbers: ['scale', 'shift', 'x', 'y'],
    choices: ['form', 'spread', 'mix'],
  },
  {
    type: 'conic',
    label: 'Conic',
    help: 'A gradient clockwise around a middle, from the angle on (CSS Images 4 §3.3)',
    numbers: ['angle', 'scale', 'shift', 'x', 'y'],
    choices: ['spread', 'mix'],
  },
  {
    type: 'edge',
    label: 'Along the edge',
    help: 'A gradient over the distance from the edge: across a stroke, down a glow, inward in a fill',
    numbers: ['scale', 'shift'],
    choices: ['spread', 'mix'],
  },
  { type: 'texture', label: 'Texture', help: 'A repeated pattern or picture', numbers: [], choices: [] },
]

export const paintKind = (type: StoredPaint['type']): PaintKind => PAINT_KINDS.find((kind) => kind.type === type)!

const ranged = (p: NumberParameter) => movableNumber(p.min, p.max).default(p.default)
const chosen = (p: ChoiceParameter) =>
  z.enum(p.options.map(({ value }) => value) as [string, ...string[]]).default(p.default)
const coloured = (p: ColourParameter) => movableColour.default(colourSchema.parse(p.default))
const hang = z.enum(['piece', 'card']).default('piece')

const gradient = <T extends string>(type: T) =>
  z.strictObject({
    type: z.literal(type),
    stops: z
      .array(
        z.strictObject({
          at: movableNumber(STOP_PARAMETERS.at.min, STOP_PARAMETERS.at.max),
          colour: movableColour,
          middle: movableNumber(STOP_PARAMETERS.middle.min, STOP_PARAMETERS.middle.max).optional(),
        }),
      )
      .min(2)
      .max(64),
    angle: ranged(GRADIENT_PARAMETERS.angle),
    scale: ranged(GRADIENT_PARAMETERS.scale),
    shift: ranged(GRADIENT_PARAMETERS.shift),
    x: ranged(GRADIENT_PARAMETERS.x),
    y: ranged(GRADIENT_PARAMETERS.y),
    form: chosen(GRADIENT_CHOICES.form),
    spread: chosen(GRADIENT_CHOICES.spread),
    mix: chosen(GRADIENT_CHOICES.mix),
    hang,
  })

/** Pictures get ids made from their contents, as fonts do. */
export const PICTURE_ID = /^picture-[0-9a-f]{16}$/
export const pictureId = z.string().regex(PICTURE_ID, 'is no id of a picture')

const texture = z
  .strictObject({
    type: z.literal('texture'),
    pattern: z.enum(PATTERNS.map(({ value }) => value) as [Pattern, ...Pattern[]]),
    picture: pictureId.nullable().default(null),
    colour: coloured(TEXTURE_PARAMETERS.colour),
    ground: coloured(TEXTURE_PARAMETERS.ground),
    scale: ranged(TEXTURE_PARAMETERS.scale),
    angle: ranged(TEXTURE_PARAMETERS.angle),
    x: ranged(TEXTURE_PARAMETERS.x),
    y: ranged(TEXTURE_PARAMETERS.y),
    weight: ranged(TEXTURE_PARAMETERS.weight),
    seed: ranged(TEXTURE_PARAMETERS.seed),
    sizeX: ranged(TEXTURE_PARAMETERS.sizeX),
    sizeY: ranged(TEXTURE_PARAMETERS.sizeY),
    detail: ranged(TEXTURE_PARAMETERS.detail),
    brightness: ranged(TEXTURE_PARAMETERS.brightness),
    evolution: ranged(TEXTURE_PARAMETERS.evolution),
    hang,
  })
  .superRefine(({ pattern, picture }, context) => {
    if (pattern === 'picture' && !picture) {
      context.addIssue({ code: 'custom', path: ['picture'], message: 'must name a picture: bring one in' })
    }
  })

export const paintSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('solid'), colour: movableColour }),
  gradient('linear'),
  gradient('radial'),
  gradient('conic'),
  gradient('edge'),
  texture,
])

/** The same paint as another kind; colours are kept as far as the kind has room for them. */
export function paintAs(paint: StoredPaint, type: StoredPaint['type'], second: string): StoredPaint {
  if (paint.type === type) return paint
  const first = paint.type === 'solid' || paint.type === 'texture' ? paint.colour : paint.stops[0]!.colour
  if (type === 'solid') return { type, colour: first }
  if (type === 'texture') {
    return paintSchema.parse({ type, pattern: 'noise', colour: first }) as StoredPaint
  }
  if (paint.type !== 'solid' && paint.type !== 'texture') return { ...paint, type }
  const stops = [
    { at: 0, colour: first },
    { at: 100, colour: second },
  ]
  return paintSchema.parse({ type, stops }) as StoredPaint
}
