import { z } from 'zod'
import type { Coat, Finish } from './schema'

// A field names values of a card that rows of a roster fill. Here is how it lies in the file; core/rosters says what its kinds do.

/** What a field fills: its kind says how a cell is read and where it goes. */
export const FIELD_KINDS = ['wording', 'colour', 'number', 'switch', 'choice', 'picture', 'variant', 'hold'] as const
export type FieldKind = (typeof FIELD_KINDS)[number]

/** Where the length of the hold lies: in no piece. */
export const HOLD_ADDRESS = 'hold'

/** The look of a seal under a name, kept with the field: rows can ask for it wherever the card goes. */
export interface FieldVariant {
  name: string
  coats: { face: Coat[]; behind: Coat[] }
  /** Null leaves a piece the finishes that it has. */
  finishes: Finish[] | null
}

export interface CardField {
  id: string
  /** What people call it; the column of a roster with this heading fills it. */
  label: string
  kind: FieldKind
  /** Addresses of the values that it fills, all with the same. */
  at: string[]
  /** Of a variant: what may be asked for. */
  variants: FieldVariant[]
}

export const MOST_FIELDS = 60
const MOST_PLACES = 64

interface Parts {
  id: z.ZodType
  coats: z.ZodType
  finishes: z.ZodType
}

/** The fields of a card. Headings are told apart whatever their case. */
export const fieldsSchema = ({ id, coats, finishes }: Parts) =>
  z
    .array(
      z.strictObject({
        id,
        label: z.string().trim().min(1).max(80),
        kind: z.enum(FIELD_KINDS),
        at: z.array(z.string().min(1).max(200)).min(1).max(MOST_PLACES),
        variants: z
          .array(z.strictObject({ name: z.string().trim().min(1).max(120), coats, finishes: finishes.nullable() }))
          .max(12)
          .default([]),
      }),
    )
    .max(MOST_FIELDS)
    .default([])

/** Headings that mean the same: their case, and spaces around them, do not count. */
export const headingOf = (label: string): string => label.trim().toLowerCase().replace(/\s+/g, ' ')
