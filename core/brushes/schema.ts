import { z } from 'zod'
import { colourSchema } from '../values/moving'
import { pictureId } from '../values/paints'
import { TIP_KINDS } from './table'

/** Strokes of one painting or mask. */
export const MOST_STROKES = 4000
/** Numbers of one stroke: three for a point. */
export const MOST_NUMBERS = 30_000

const share = (usual: number) => z.number().min(0).max(100).default(usual)
const angle = (most: number) => z.number().min(-most).max(most).default(0)
const points = z
  .array(z.number().min(-1_000_000).max(1_000_000))
  .min(3, 'needs one point at least')
  .max(MOST_NUMBERS)
  .refine((numbers) => numbers.length % 3 === 0, 'must be x, y and pressure for each point')
  .refine(
    (numbers) => numbers.every((v, i) => i % 3 < 2 || (v >= 0 && v <= 1)),
    'has a pressure that is not from 0 to 1',
  )

/** The strokes of a painting or of a painted mask, in the order in which they were painted; `id` is that of the document. */
export const strokesSchema = (id: z.ZodType) =>
  z
    .array(
      z.strictObject({
        id,
        tip: z.union([z.enum(TIP_KINDS as [string, ...string[]]), pictureId]),
        erase: z.boolean().default(false),
        colour: colourSchema.default('#FFFFFF'),
        size: z.number().min(0.5).max(2000).default(40),
        hardness: share(100),
        spacing: z.number().min(1).max(1000).default(10),
        scatter: z.number().min(0).max(1000).default(0),
        along: z.boolean().default(false),
        turn: angle(36_000),
        turnBy: z.number().min(0).max(180).default(0),
        flow: share(100),
        opacity: share(100),
        pressSize: share(60),
        pressFlow: share(0),
        seed: z.number().int().min(0).max(0xffffffff).default(1),
        points,
      }),
    )
    .max(MOST_STROKES)
    .default([])
