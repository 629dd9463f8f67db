import type { AnyPgColumn } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'

// Every go at something has a number of its own, for good: whoever comes back late is known by it, and so are its files.

const MOST_TRIES = 3

/** Whether the go with this number, counted from 1, is the last one before the work is given up. */
export const isLastTry = (attempt: number): boolean => attempt % MOST_TRIES === 0

/** What a column of goes is set to where somebody asks for a few more. */
export const withNewTries = (attempts: AnyPgColumn) =>
  sql`(${attempts} + ${MOST_TRIES - 1}::int) / ${MOST_TRIES}::int * ${MOST_TRIES}::int`
