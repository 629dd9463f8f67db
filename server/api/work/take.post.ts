import { takeRun, workOf } from '../../renders/queue/work-list'
import { takeSchema } from '../../renders/work/protocol'

/** Gives a worker elsewhere the run that is next, and what its frames are made from, unless it knows that. */
export default programRoute(async (event) => {
  const { worker, warm, known } = await bodyAs(event, takeSchema)
  await welcome(worker)
  const run = await takeRun(useDatabase(), { worker: worker.id, warm })
  return { run: run && { ...run, work: known.includes(run.render) ? null : await workOf(useDatabase(), run.render) } }
})
