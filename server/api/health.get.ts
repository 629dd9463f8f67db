import { sql } from 'drizzle-orm'

export default route(async () => {
  await useDatabase().execute(sql`select 1`)
  return { well: true }
})
