import { nanoid } from 'nanoid'
import type { Database } from '../../database/connect'
import { batches } from '../../database/schema'
import { insertRender, nextTake, takeTurn } from '../queue/enqueue'
import type { BatchWish, PlannedBatch } from './plan'

/** Puts a planned batch into the queue: all of it or nothing. Gives its id. */
export async function enqueueBatch(database: Database, wish: BatchWish, planned: PlannedBatch): Promise<string> {
  const id = nanoid(12)
  const { card, roster } = wish
  await database.transaction(async (transaction) => {
    await transaction.insert(batches).values({
      ...{ id, cardId: card.id, rosterId: roster.id, cardName: card.name, rosterName: roster.name },
      leftOut: planned.leftOut,
    })
    const take = await nextTake(transaction, card.id)
    await takeTurn(transaction, card.id)
    const now = Date.now()
    for (const [i, { frames, shown, ...render }] of planned.renders.entries()) {
      // In the order of the rows: workers and pressers take them so.
      const one = { ...render, batchId: id, createdAt: new Date(now + i) }
      await insertRender(transaction, one, { frames, shown, take })
    }
  })
  return id
}
