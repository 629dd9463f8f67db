import { and, eq, ne } from 'drizzle-orm'
import { renderRuns, renders } from '../../../database/schema'
import { addPressJob } from '../../../renders/queue/enqueue'
import { expectSpace } from '../../../renders/space'

/** Tries a render again that failed. The frames that are done are not made again. */
export default route(async (event) => {
  const id = routeId(event)
  const { priority } = await findRender(id)
  await expectSpace(rendersPlace())
  await useDatabase().transaction(async (transaction) => {
    const [row] = await transaction
      .update(renders)
      .set({
        ...{ status: 'queued', attempts: 0, worker: null, heartbeat: null },
        ...{ fault: null, report: null, framesDone: 0, startedAt: null, finishedAt: null },
      })
      .where(and(eq(renders.id, id), eq(renders.status, 'failed')))
      .returning({ id: renders.id })
    if (!row) return
    await transaction
      .update(renderRuns)
      .set({ state: 'waiting', worker: null, attempts: 0, framesDone: 0, heartbeat: null })
      .where(and(eq(renderRuns.renderId, id), ne(renderRuns.state, 'done')))
    await addPressJob(transaction, id, priority)
  })
  return findListed(id)
})
