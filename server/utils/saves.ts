import type { RecentSave } from '../database/schema'

/** So many saves are known again. */
const REMEMBERED = 20

const SAVE_ID = /^[A-Za-z0-9_-]{1,40}$/

/** The id that a window gave a save; undefined where it gave none. */
export const saveIn = (value: unknown): string | undefined =>
  typeof value === 'string' && SAVE_ID.test(value) ? value : undefined

/** The last saves of a document with one more. */
export const withSave = (recent: readonly RecentSave[], save: string | undefined, revision: number): RecentSave[] =>
  save ? [...recent, { save, revision }].slice(-REMEMBERED) : [...recent]
