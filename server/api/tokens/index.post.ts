import { nanoid } from 'nanoid'
import { z } from 'zod'
import { tokens } from '../../database/schema'
import { newToken, tokenHash } from '../../rim/tokens'

const schema = z.object({ name: z.string().trim().min(1).max(80) })

/** Makes a token for a program. This is the only time that it is told. */
export default route(async (event) => {
  const { name } = await bodyAs(event, schema)
  const token = newToken()
  const [row] = await useDatabase()
    .insert(tokens)
    .values({ id: nanoid(12), name, hash: tokenHash(token) })
    .returning(LISTED_TOKEN)
  return { ...row!, token }
})
