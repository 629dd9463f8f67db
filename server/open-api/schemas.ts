import { z } from 'zod'
import { cardSchema } from '../../core/card/checks'
import { DELIVERY_FORMATS } from '../../core/formats/deliveries/table'
import { rosterSchema } from '../../core/rosters/roster'
import { renderOptionsSchema } from '../../core/formats/deliveries/render-options'
import { sealSchema } from '../../core/seals/schema'
import { rateSchema } from '../../core/values/rate'
import { sidecarSchema } from '../renders/sidecar'

// What goes over the wire, as other programs see it. Times are ISO 8601 texts, as JSON has them.

const whole = z.int().nonnegative()
const time = z.iso.datetime()
export const gone = z.object({ id: z.string() })

export const fault = z.object({
  code: z.string().describe('Always the same for the same fault'),
  place: z.string().describe('What it is about'),
  message: z.string(),
  remedy: z.string(),
})
/** As the server sends it. */
export const refused = z.object({ data: fault })

export const card = cardSchema
export const listedCard = z.object({ id: z.string(), name: z.string(), revision: whole, updatedAt: time })
/** As the list has it. */
export const shelfCard = listedCard.extend({
  frame: z.object({ width: whole, height: whole }).describe('px'),
  rate: z.object({ numerator: whole, denominator: whole }).describe('Frames a second'),
  length: whole.describe('Frames of the loop'),
  fields: z.array(z.string()).describe('Labels of its fields'),
})
export const wholeCard = listedCard.extend({ document: card })
export const sentCard = z.object({ document: card })
export const savedCard = sentCard.extend({
  revision: whole.describe('The one that it was made from: a newer one is never overwritten'),
  takeOver: z.boolean().optional().describe('Saves over a newer one, which is kept as a version'),
  save: z.string().optional().describe('An id of your own: the same save sent twice is done once'),
})
export const head = z.object({ revision: whole, updatedAt: time })
export const version = z.object({ id: z.string(), revision: whole, name: z.string().nullable(), createdAt: time })
export const wholeVersion = version.extend({ document: card })
export const named = z.object({ name: z.string().min(1).max(120) })

export const seal = z.object({
  ...{ id: z.string(), name: z.string(), revision: whole, updatedAt: time },
  document: sealSchema,
})
export const sentSeal = z.object({ document: sealSchema, revision: whole.optional() })

export const font = z.object({ id: z.string(), family: z.string(), style: z.string(), fileName: z.string() })
export const picture = z.object({ id: z.string(), fileName: z.string(), width: whole, height: whole })
export const sequence = picture.extend({ frames: whole })
export const sequenceAbout = sequence.extend({
  read: z.enum(['pictures', 'video', 'webp']),
  rate: rateSchema.nullable(),
  bits: z.literal([8, 16]),
  alpha: z.enum(['straight', 'black', 'white']).nullable().describe('On what its colours seem to be laid'),
  notes: z.array(z.string()),
})
export const sequenceReading = sequenceAbout.extend({ stored: whole, there: whole, ended: z.boolean() })

export const check = z.object({
  ...{ name: z.string(), label: z.string(), found: z.string(), expected: z.string(), passed: z.boolean() },
})
const shortReport = z.object({
  passed: z.boolean(),
  alpha: z
    .object({ largest: z.number(), mean: z.number() })
    .nullable()
    .describe('Differences of alpha over all pixels, of 255'),
  seconds: z.object({ render: z.number(), check: z.number() }),
})
export const report = shortReport.extend({ checks: z.array(check) })
const storedFile = z.object({ name: z.string(), stored: z.string(), bytes: whole, mediaType: z.string() })

export const render = z.object({
  id: z.string(),
  cardId: z.string(),
  name: z.string(),
  batchId: z.string().nullable().describe('The job of many files that it belongs to'),
  rowId: z.string().describe('The row that fills its card; empty without one'),
  rowName: z.string(),
  options: renderOptionsSchema,
  status: z.enum(['queued', 'running', 'checking', 'done', 'failed', 'cancelled']),
  priority: whole.describe('Those with a lower number come first'),
  frame: z.object({ width: whole, height: whole }).describe('Of the card, not of the file'),
  rate: rateSchema,
  framesTotal: whole,
  framesDone: whole.describe('Made; then, when all runs are done, written into the file; then compared'),
  attempts: whole,
  fault: fault.nullable(),
  report: shortReport.nullable(),
  files: z.array(storedFile),
  take: whole,
  revision: whole.nullable(),
  small: z.boolean().describe('Whether there is a small picture of it'),
  kept: z.boolean().describe('Whether its files stay for good'),
  runs: z.object({ total: whole, done: whole, running: whole }).nullable(),
  workers: z.array(z.string()).describe('Machines that are at it'),
  ...{ createdAt: time, startedAt: time.nullable(), finishedAt: time.nullable() },
})
export const wholeRender = render.extend({ report: report.nullable() })
export const wish = z.object({
  cardId: z.string().optional().describe('Of which card'),
  revision: whole.optional().describe('Only as this one'),
  renderId: z.string().optional().describe('Instead of a card: the card as it was in that render'),
  options: renderOptionsSchema,
})
export const listedRoster = z.object({
  ...{ id: z.string(), name: z.string(), revision: whole, updatedAt: time },
  cardId: z.string().nullable().describe('The card that it was filled into last'),
  ...{ rows: whole, columns: z.array(z.string()) },
})
export const wholeRoster = listedRoster.omit({ rows: true, columns: true }).extend({ document: rosterSchema })
export const sentRoster = z.object({ document: rosterSchema, cardId: z.string().nullable().optional() })
export const savedRoster = sentRoster.extend({
  revision: whole.describe('The one that it was made from: a newer one is never overwritten'),
  takeOver: z.boolean().optional().describe('Saves over a newer one, which becomes a roster of its own'),
  save: z.string().optional().describe('An id of your own: the same save sent twice is done once'),
})

export const batch = z.object({
  ...{ id: z.string(), cardId: z.string(), rosterId: z.string(), cardName: z.string(), rosterName: z.string() },
  leftOut: z
    .array(z.object({ row: z.string(), title: z.string(), fault }))
    .describe('Rows that were asked for and cannot be rendered'),
  format: z.enum(DELIVERY_FORMATS),
  programme: z.boolean().describe('Whether all rows are in one file'),
  placed: z.boolean().describe('Whether rows have their place in a programme'),
  total: whole.describe('Files; those in no other state wait'),
  ...{ done: whole, failed: whole, cancelled: whole, running: whole },
  ...{ framesTotal: whole, framesDone: whole, bytes: z.number() },
  small: z.string().nullable().describe('A render of it that has a small picture'),
  ...{ createdAt: time, startedAt: time.nullable(), finishedAt: time.nullable() },
})
export const wholeBatch = batch.extend({ renders: z.array(render) })
export const batchWish = z.object({
  ...{ cardId: z.string(), rosterId: z.string() },
  revision: whole.optional().describe('The card only as this one'),
  rosterRevision: whole.optional().describe('The roster only as this one'),
  rows: z.array(z.string()).optional().describe('Ids of rows; all that are on where left out'),
  as: z.enum(['rows', 'programme']).optional().describe('Each row a file, or all with timecodes in one'),
  options: z
    .looseObject({ format: z.enum(DELIVERY_FORMATS) })
    .describe('As of a render, without frames: they follow from the rows. The name of single files holds {row}'),
})
export const keeping = z.object({ kept: z.boolean() })
export const sidecar = sidecarSchema

export const proof = z.object({
  passed: z.boolean().describe('Whether no line is bad'),
  lines: z.array(
    z.object({
      ...{ check: z.string(), label: z.string(), source: z.string(), said: z.string() },
      verdict: z.enum(['good', 'look', 'bad']),
      findings: z.array(
        z.object({
          ...{ piece: z.string().nullable(), frame: whole.nullable() },
          ...{ message: z.string(), remedy: z.string() },
          row: z.string().optional().describe('The row of the roster in which it was found'),
        }),
      ),
    }),
  ),
})
export const proofWish = z.object({
  cardId: z.string().optional().describe('Which card of the shelf'),
  document: card.optional().describe('Or a card as it stands here'),
  backdrop: z.string().optional().describe('A picture that was brought in, by its id: type is to be read over it too'),
  rosterId: z
    .string()
    .optional()
    .describe('A roster whose rows are proved with the card: whether their words have room'),
})

export const worker = z.object({
  ...{ id: z.string(), name: z.string() },
  place: z.enum(['here', 'elsewhere']),
  lanes: whole.describe('Engines that it runs at once'),
})
export const token = z.object({ id: z.string(), name: z.string(), createdAt: time, usedAt: time.nullable() })
export const newToken = token.extend({ token: z.string().describe('Told only now') })
export const tokenWish = z.object({ name: z.string().trim().min(1).max(80) })
export const well = z.object({
  well: z.boolean().describe('Whether it can go on working'),
  version: z.string(),
  database: z.object({ milliseconds: z.number().describe('That it took to answer') }),
  disk: z.object({
    free: z.number().nullable().describe('Bytes; null before anything was stored'),
    reserve: z.number().describe('Bytes that renders leave free'),
    hasRoom: z.boolean(),
  }),
  workers: z.object({ count: whole, lanes: whole.describe('Engines that they run at once') }),
})
