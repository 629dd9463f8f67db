import { z } from 'zod'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { COATS } from '../coats/table'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { FINISHES } from '../finishes/table'
import { rateSchema } from '../values/rate'
import { RANGE_PARAMETERS } from '../type/ranges'
import { easingSchema } from '../values/keys'
import { colourSchema, movableNumber } from '../values/moving'
import { shapeOf } from '../values/parameters'
import { paintSchema, pictureId } from '../values/paints'
import { parametersOfMask } from '../masks/definition'
import { MASKS } from '../masks/table'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import { STEPS } from '../steps/table'
import { placeOf } from './faults'
import { fieldsSchema, headingOf } from './fields'
import { partsOf } from './parts'
import { PLACE_PARAMETERS } from '../pieces/place'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { DEEPEST_GROUP, holdsPieces } from './tree'
import type { Piece } from './schema'
import { CARD_FORMAT, CARD_VERSION, LARGEST_SIDE, LONGEST_LOOP, LIGHT_PARAMETERS } from './schema'

// What a card file may hold, version 2; each kind of piece, coat, finish and step brings its own parameters.

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

const maskSchemas = MASKS.map((mask) =>
  z
    .strictObject({
      id,
      kind: z.literal(mask.kind),
      name: z.string().max(120).default(''),
      ...mask.own?.(id),
      ...shapeOf(parametersOfMask(mask)),
    })
    .describe(`${mask.label}. ${mask.help}.`),
)
export const maskSchema = z.discriminatedUnion('kind', maskSchemas as unknown as [(typeof maskSchemas)[number]])

/** The masks of a piece, front first. */
const masksSchema = z.array(maskSchema).max(32).default([])

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
  masks: masksSchema,
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
    fields: fieldsSchema({ id, coats: coatsSchema, finishes: finishesSchema }),
    pieces: z.array(pieceSchema).max(200).default([]),
  })
  .superRefine((card, context) => {
    // The first two are taken: addresses of the card itself begin with them.
    const seen = new Map(['light', 'background'].map((name) => [name, `the card’s own ${name}`]))
    const claim = (value: string, path: (string | number)[]) => {
      const holder = seen.get(value)
      if (holder !== undefined) {
        const remedy = 'Give it an id of its own.'
        context.addIssue({ code: 'custom', path, message: `is an id that is taken, by ${holder}`, params: { remedy } })
      } else seen.set(value, placeOf(path.slice(0, -1)))
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
    const fields = { id: new Set<unknown>(), label: new Set<unknown>() }
    card.fields.forEach((field, i) => {
      for (const [name, value] of [
        ['id', field.id],
        ['label', headingOf(field.label)],
      ] as const) {
        const taken = `is the ${name} of another field`
        if (fields[name].has(value)) context.addIssue({ code: 'custom', path: ['fields', i, name], message: taken })
        fields[name].add(value)
      }
    })
  })
