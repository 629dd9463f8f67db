import { nanoid } from 'nanoid'
import { rosters } from '../../database/schema'

export default route(async (event) => {
  const { roster, cardId } = await bodyRoster(event)
  const [row] = await useDatabase()
    .insert(rosters)
    .values({ id: nanoid(12), name: roster.name, document: roster, cardId })
    .returning()
  return row!
})
