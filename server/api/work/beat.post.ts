import { beatRun } from '../../renders/queue/work-list'
import { beatSchema } from '../../renders/work/protocol'

/** A worker elsewhere says that it lives, and how far its runs are; it is told which are not its any more. */
export default programRoute(async (event) => {
  const { worker, runs } = await bodyAs(event, beatSchema)
  await welcome(worker)
  const own = await Promise.all(runs.map((run) => beatRun(useDatabase(), worker.id, run, run.framesDone)))
  return { lost: runs.filter((_, i) => !own[i]) }
})
