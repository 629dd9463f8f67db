import { nanoid } from 'nanoid'
import { cards } from '../../database/schema'

export default route(async (event) => {
  const { card } = await bodyCard(event)
  const [row] = await useDatabase()
    .insert(cards)
    .values({ id: nanoid(12), name: card.name, document: card })
    .returning()
  return row!
})
