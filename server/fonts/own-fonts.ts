import { eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { fonts } from '../database/schema'
import type { FontSource } from './shipped'

/** The fonts that people brought. */
export const ownFonts = (database: Database): FontSource => {
  return async (id) => {
    const [row] = await database.select({ sfnt: fonts.sfnt }).from(fonts).where(eq(fonts.id, id))
    return row ? new Uint8Array(row.sfnt) : null
  }
}
