import { failRun } from '../../renders/queue/work-list'
import { faultSchema } from '../../renders/work/protocol'

/** A worker elsewhere could not make a run. */
export default programRoute(async (event) => {
  const { worker, run, fault, isFinal } = await bodyAs(event, faultSchema)
  await failRun(useDatabase(), worker, run, fault, isFinal)
  return { noted: true }
})
