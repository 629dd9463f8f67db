import { z } from 'zod'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { COATS } from '../coats/table'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { FINISHES } from '../finishes/table'
import type { BlendMode } from '../kernels/blend-modes'
import { rateSchema } from '../values/rate'
import type { Rate } from '../values/rate'
import type { TypeAxis } from '../type/axes'
import type { LetterRange } from '../type/ranges'
import type { TypeRun } from '../type/runs'
import { RANGE_PARAMETERS } from '../type/ranges'
import type { Movable, StoredPaint, StoredValue } from '../values/moving'
import { easingSchema } from '../values/keys'
import { colourSchema, movableNumber } from '../values/moving'
import { number, shapeOf } from '../values/parameters'
import { paintSchema, pictureId } from '../values/paints'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import { STEPS } from '../steps/table'
import { partsOf } from './parts'
import { PLACE_PARAMETERS } from '../pieces/place'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { DEEPEST_GROUP, holdsPieces } from './tree'

// Version 2 of the card file. The types below are written out for readers; the schema is the authority.

export const CARD_FORMAT = 'wax-ribbon-card'
export const CARD_VERSION = 2
/** Larger frames are refused: 8192 × 8192 float pixels are 1 GB. */
export const LARGEST_SIDE = 8192
/** An hour at 60 frames a second. */
export const LONGEST_LOOP = 216_000

interface PlacedPiece {
  id: string
  name: string
  on: Movable<boolean>
  /** The stage leaves a locked piece alone. */
  locked: boolean
  /** The frames in which it is seen, [in, out); null for all. Its motion is the card's, seen or not. */
  span: { in: number; out: number } | null
  /** Each picture of it is held for so many frames. */
  steps: number
  /** Takes part in the card's motion blur. */
  blurred: boolean
  /** The seal that was pressed on it last, by its id on the server; its coats may have been changed since. */
  seal: { id: string; variant: string } | null
  x: Movable<number>
  y: Movable<number>
  /** The point of the piece that stands at (x, y), from its own origin. */
  anchorX: Movable<number>
  anchorY: Movable<number>
  rotation: Movable<number>
  scale: Movable<number>
  /** In %: acts on the outline, and in a group on all that it holds. */
  stretchX: Movable<number>
  stretchY: Movable<number>
  skew: Movable<number>
  /** The words that it is woven through, and the letters that it passes behind, counted from 1. */
  weave: string | null
  weaveLetters: Movable<string>
  opacity: Movable<number>
  blend: BlendMode
  /** Both lists are front first. */
  coats: { face: Coat[]; behind: Coat[] }
  /** What is done to its finished picture, front first: the last one works first. */
  finishes: Finish[]
  /** What changes its outline, front first: the last one works first. None on what has no outline. */
  outlineSteps: OutlineStep[]
  /** What part of its picture is seen: empty until there are kinds. */
  masks: never[]
}

export interface TypePiece extends PlacedPiece {
  kind: 'type'
  wording: Movable<string>
  /** The type piece whose words it shows instead of its own. */
  linked: string | null
  /** Id of a shipped font, or of one that the user brought. */
  font: string
  size: Movable<number>
  tracking: Movable<number>
  leading: Movable<number>
  align: 'left' | 'centre' | 'right' | 'justify'
  width: Movable<number>
  wide: 'break' | 'smaller' | 'closer'
  least: Movable<number>
  closest: Movable<number>
  letterCase: 'typed' | 'upper' | 'lower' | 'title'
  shift: Movable<number>
  features: Movable<string>
  /** In no file: the letters that are drawn, counted from 0; all where left out. */
  only?: readonly number[]
  /** The piece along whose outline the words stand. */
  along: string | null
  start: Movable<number>
  pathSide: 'left' | 'right'
  overflow: 'hide' | 'straight'
  /** Letter motion: each range on what the one before it gives. */
  ranges: LetterRange[]
  /** Where its variable font stands on its axes. */
  axes: TypeAxis[]
  /** Stretches of the wording that are set otherwise. */
  runs: TypeRun[]
  /** Two characters, and the space between them by hand, in thousandths of the size. */
  pairs: { pair: string; by: number }[]
  /** Fonts for what its own has no glyph for, by their ids. */
  fallbacks: string[]
}

/** A shape whose size and place follow what other pieces span. */
interface FittingPiece extends PlacedPiece {
  width: Movable<number>
  height: Movable<number>
  fitTo: string[]
  fitBy: 'lines' | 'ink'
  fitWidth: Movable<boolean>
  fitHeight: Movable<boolean>
  fitX: 'left' | 'middle' | 'right' | 'free'
  fitY: 'top' | 'middle' | 'foot' | 'free'
  padLeft: Movable<number>
  padRight: Movable<number>
  padTop: Movable<number>
  padFoot: Movable<number>
}

export interface BoxPiece extends FittingPiece {
  kind: 'box'
  ownCorners: Movable<boolean>
  radius: Movable<number>
  topLeft: Movable<number>
  topRight: Movable<number>
  bottomRight: Movable<number>
  bottomLeft: Movable<number>
}

export interface PolygonPiece extends FittingPiece {
  kind: 'polygon'
  sides: Movable<number>
  /** 0 for a polygon; for a star how far its inner corners are drawn in, in %. */
  inset: Movable<number>
  radius: Movable<number>
}

export interface EllipsePiece extends FittingPiece {
  kind: 'ellipse'
}

export interface LinePiece extends PlacedPiece {
  kind: 'line'
  length: Movable<number>
  thickness: Movable<number>
  cap: 'butt' | 'round' | 'square'
}

export interface PathPiece extends PlacedPiece {
  kind: 'path'
  /** SVG path data around the piece's place. */
  path: Movable<string>
  thickness: Movable<number>
  cap: 'butt' | 'round' | 'square'
  join: 'round' | 'mitre' | 'bevel'
  rule: 'nonzero' | 'evenodd'
  /** How hard it was drawn, 0–1, at even distances along it; empty where it was not drawn freehand. */
  pressure: number[]
}

export interface PicturePiece extends PlacedPiece {
  kind: 'picture'
  /** Id of a picture that was brought in; null shows nothing. */
  picture: string | null
  width: Movable<number>
  height: Movable<number>
  linear: Movable<boolean>
}

/** Pieces together: they move as one, and its coats lie around them all. */
export interface GroupPiece extends PlacedPiece {
  kind: 'group'
  /** Front first; their places count from the group's. */
  pieces: Piece[]
}

/** Treats all that lies behind it in its list by its finishes; it has no coats. */
export interface WashPiece extends PlacedPiece {
  kind: 'wash'
}

export type Piece =
  TypePiece | BoxPiece | EllipsePiece | PolygonPiece | LinePiece | PathPiece | PicturePiece | GroupPiece | WashPiece

/** A coat: what all have in common, and the parameters of its kind under their own names. */
export interface Coat {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  opacity: Movable<number>
  blend: BlendMode
  [parameter: string]: StoredValue
}

/** A finish: what all have in common, and the parameters of its kind under their own names. */
export interface Finish {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  strength: Movable<number>
  [parameter: string]: StoredValue
}

/** An outline step: what all have in common, and the parameters of its kind under their own names. */
export interface OutlineStep {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  each: 'whole' | 'letters'
  [parameter: string]: StoredValue
}

export interface Card {
  format: typeof CARD_FORMAT
  version: typeof CARD_VERSION
  name: string
  frame: { width: number; height: number }
  rate: Rate
  /** Loop length in frames; frame `length` is frame 0 again. */
  length: number
  background: StoredPaint | null
  /** Frames where a lower third has come in and where it begins to go out; what lies between is its hold. */
  zones: { hold: number; out: number } | null
  /** Each picture is held for so many frames. */
  steps: number
  /** Motion blur: when the shutter opens after the frame and for how long, in degrees (360 is a frame); null for none. */
  shutter: { angle: number; phase: number } | null
  /** Easings that were kept under a name. */
  easings: { name: string; easing: string }[]
  /** In which light pixels are blended: display-encoded sRGB, or linear. */
  blending: 'display' | 'linear'
  /** The key light: where the light comes from. */
  light: { azimuth: Movable<number>; elevation: Movable<number> }
  /** Hex colours that the card is made of. */
  palette: string[]
  /** Seeds the dithering. */
  seed: number
  /** Front first. */
  pieces: Piece[]
}

export const LIGHT_PARAMETERS = {
  azimuth: number({
    label: 'Light from',
    help: 'Where the key light comes from, in degrees anticlockwise: 0 is right, 90 above',
    default: 120,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  elevation: number({
    label: 'Light height',
    help: 'Height of the key light above the page, in degrees',
    default: 45,
    min: 0,
    max: 90,
    step: 1,
    unit: '°',
  }),
} as const

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'is no id: use up to 40 small letters, digits and hyphens')
const name = z.string().min(1).max(200)

const coatSchemas = COATS.map((coat) =>
  z
    .strictObject({
      id,
      kind: z.literal(coat.kind),
      name: z.string().max(120).default(''),
      ...shapeOf(COMMON_COAT_PARAMETERS),
      ...shapeOf(coat.parameters),
    })
    .describe(`${coat.label}. ${coat.help}.`),
)
// Zod wants to see that there is one at least; so below.
export const coatSchema = z.discriminatedUnion('kind', coatSchemas as unknown as [(typeof coatSchemas)[number]])

/** The coats of a piece, both groups front first. */
export const coatsSchema = z.strictObject({
  face: z.array(coatSchema).max(64).default([]),
  behind: z.array(coatSchema).max(64).default([]),
})

const finishSchemas = FINISHES.map((finish) =>
  z
    .strictObject({
      id,
      kind: z.literal(finish.kind),
      name: z.string().max(120).default(''),
      ...shapeOf(COMMON_FINISH_PARAMETERS),
      ...shapeOf(finish.parameters),
    })
    .describe(`${finish.label}. ${finish.help}.`),
)
export const finishSchema = z.discriminatedUnion('kind', finishSchemas as unknown as [(typeof finishSchemas)[number]])

/** The finishes of a piece, front first. */
export const finishesSchema = z.array(finishSchema).max(64).default([])

const stepSchemas = STEPS.map((step) =>
  z
    .strictObject({
      id,
      kind: z.literal(step.kind),
      name: z.string().max(120).default(''),
      ...shapeOf(COMMON_STEP_PARAMETERS),
      ...shapeOf(step.parameters),
    })
    .describe(`${step.label}. ${step.help}.`),
)
export const stepSchema = z.discriminatedUnion('kind', stepSchemas as unknown as [(typeof stepSchemas)[number]])

/** The outline steps of a piece, front first. */
const stepsSchema = z.array(stepSchema).max(32).default([])

/** Stepped time: frames for which a picture is held. */
const steps = z.number().int().min(1).max(1000)

/** A list that documents carry and that has no kinds of entries yet. */
const withoutKinds = z.array(z.unknown()).max(0).default([])

const common = {
  id,
  name,
  locked: z.boolean().default(false),
  span: z
    .strictObject({ in: z.number().int().min(0), out: z.number().int().min(1) })
    .refine((span) => span.out > span.in, 'must end after it begins')
    .nullable()
    .default(null),
  steps: steps.default(1),
  blurred: z.boolean().default(true),
  seal: z
    .strictObject({ id: z.string().min(1).max(40), variant: z.string().min(1).max(120) })
    .nullable()
    .default(null),
  coats: coatsSchema.default({ face: [], behind: [] }),
  finishes: finishesSchema,
  masks: withoutKinds,
}

/** A range of letter motion. */
export const rangeSchema = z.strictObject({ id, name, on: z.boolean().default(true), ...shapeOf(RANGE_PARAMETERS) })

const pieceSchemas = (pieces: z.ZodType) =>
  Object.values(PIECE_KINDS).map((definition) =>
    z.strictObject({
      kind: z.literal(definition.kind),
      ...common,
      outlineSteps: hasOutline(definition) ? stepsSchema : withoutKinds,
      ...definition.own?.({ id, range: rangeSchema, picture: pictureId, pieces, withoutKinds }),
      ...shapeOf(PLACE_PARAMETERS),
      ...shapeOf(definition.parameters),
    }),
  )

export const pieceSchema: z.ZodType = z.lazy(() => {
  const all = pieceSchemas(z.array(pieceSchema).max(200).default([]))
  return z.discriminatedUnion('kind', all as unknown as [(typeof all)[number]])
})

const side = z.number().int().min(16).max(LARGEST_SIDE)

export const cardSchema = z
  .strictObject({
    format: z.literal(CARD_FORMAT),
    version: z.literal(CARD_VERSION),
    name,
    frame: z.strictObject({ width: side, height: side }),
    rate: rateSchema,
    length: z.number().int().min(1).max(LONGEST_LOOP),
    background: paintSchema.nullable().default(null),
    zones: z
      .strictObject({ hold: z.number().int().min(0), out: z.number().int().min(1) })
      .refine(({ hold, out }) => out > hold, 'the hold must end after it begins')
      .nullable()
      .default(null),
    steps: steps.default(1),
    shutter: z
      .strictObject({ angle: z.number().min(1).max(720), phase: z.number().min(-360).max(360) })
      .nullable()
      .default(null),
    easings: z
      .array(z.strictObject({ name: z.string().min(1).max(60), easing: easingSchema }))
      .max(64)
      .default([]),
    blending: z.enum(['display', 'linear']).default('display'),
    light: z
      .strictObject({
        azimuth: movableNumber(LIGHT_PARAMETERS.azimuth.min, LIGHT_PARAMETERS.azimuth.max),
        elevation: movableNumber(LIGHT_PARAMETERS.elevation.min, LIGHT_PARAMETERS.elevation.max),
      })
      .default({ azimuth: LIGHT_PARAMETERS.azimuth.default, elevation: LIGHT_PARAMETERS.elevation.default }),
    palette: z.array(colourSchema).max(64).default([]),
    seed: z.number().int().min(0).max(0xffffffff).default(1),
    pieces: z.array(pieceSchema).max(200).default([]),
  })
  .superRefine((card, context) => {
    // The first two are taken: addresses of the card itself begin with them.
    const seen = new Set(['light', 'background'])
    const claim = (value: string, path: (string | number)[]) => {
      if (seen.has(value)) context.addIssue({ code: 'custom', path, message: `is an id that is taken` })
      seen.add(value)
    }
    const visit = (pieces: readonly Piece[], path: (string | number)[], depth: number) => {
      if (depth > DEEPEST_GROUP) {
        context.addIssue({ code: 'custom', path, message: `lies deeper than ${DEEPEST_GROUP} groups` })
        return
      }
      pieces.forEach((piece, i) => {
        const here = [...path, i]
        claim(piece.id, [...here, 'id'])
        for (const { list, entry, index } of partsOf(piece)) claim(entry.id, [...here, ...list.path, index, 'id'])
        if (holdsPieces(piece)) visit(piece.pieces, [...here, 'pieces'], depth + 1)
      })
    }
    visit(card.pieces as Piece[], ['pieces'], 0)
  })
