import { goOn } from '../../../renders/queue/go-on'
import { expectSpace } from '../../../renders/space'

/** Tries all again that failed or were cancelled. */
export default route(async (event) => {
  const { id } = await findBatch(routeId(event))
  await expectSpace(rendersPlace())
  for (const row of await rendersOfBatch(id)) {
    if (row.status === 'failed' || row.status === 'cancelled') await goOn(useDatabase(), row.id)
  }
  return findBatch(id)
})
