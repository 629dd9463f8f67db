import { eq } from 'drizzle-orm'
import { tokenHash } from '../rim/tokens'
import type { Database } from './connect'
import { tokens } from './schema'

const ID = 'from-settings'

/** The token of the settings lets in, and no former one; without one in the settings none does. */
export async function setToken(database: Database, token: string): Promise<void> {
  await database.delete(tokens).where(eq(tokens.id, ID))
  if (token === '') return
  await database
    .insert(tokens)
    .values({ id: ID, name: 'From the settings (WAX_TOKEN)', hash: tokenHash(token) })
    .onConflictDoNothing()
}
