import { desc } from 'drizzle-orm'
import { sequences } from '../../database/schema'

/** Sequences that people brought, newest first. */
export default route(async () => {
  const { id, fileName, width, height, frames } = sequences
  return useDatabase()
    .select({ id, fileName, width, height, frames })
    .from(sequences)
    .orderBy(desc(sequences.createdAt))
})
