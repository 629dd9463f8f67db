import { z } from 'zod'
import type { Coat, Finish } from '../card/schema'
import { coatsSchema, finishesSchema } from '../card/checks'

// A seal: stacks of coats, and if wished of finishes, with a name. Version 2 of the seal file, a set of seals in one JSON document.

export const SEALS_FORMAT = 'wax-ribbon-seals'
export const SEALS_VERSION = 2

export interface SealVariant {
  /** What it is for: `on dark`, `on light`, `quiet`. */
  name: string
  coats: { face: Coat[]; behind: Coat[] }
  /** Null leaves a piece the finishes that it has. */
  finishes?: Finish[] | null
}

export interface Seal {
  name: string
  tags: string[]
  /** The first is pressed where none is named. Lengths are in %, so that they fit pieces of any size. */
  variants: SealVariant[]
}

export interface SealFile {
  format: typeof SEALS_FORMAT
  version: typeof SEALS_VERSION
  name: string
  seals: Seal[]
}

const name = z.string().trim().min(1).max(120)

export const sealSchema = z.strictObject({
  name,
  tags: z.array(z.string().trim().min(1).max(40)).max(20).default([]),
  variants: z
    .array(z.strictObject({ name, coats: coatsSchema, finishes: finishesSchema.nullable().default(null) }))
    .min(1)
    .max(12),
})

export const sealFileSchema = z.strictObject({
  format: z.literal(SEALS_FORMAT),
  version: z.literal(SEALS_VERSION),
  name,
  seals: z.array(sealSchema).min(1).max(500),
})
