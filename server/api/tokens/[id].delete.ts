import { eq } from 'drizzle-orm'
import { tokens } from '../../database/schema'

/** Withdraws a token: who has it is let in no more. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .delete(tokens)
    .where(eq(tokens.id, routeId(event)))
    .returning({ id: tokens.id })
  if (!row) throw notFound('token')
  return row
})
