import { nanoid } from 'nanoid'
import { seals } from '../../database/schema'

export default route(async (event) => {
  const { seal } = await bodySeal(event)
  const [row] = await useDatabase()
    .insert(seals)
    .values({ id: nanoid(12), name: seal.name, document: seal })
    .returning(LISTED_SEAL)
  return row!
})
