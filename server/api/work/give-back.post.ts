import { giveBack } from '../../renders/queue/work-list'
import { giveBackSchema } from '../../renders/work/protocol'

/** A worker elsewhere gives a run back that it will not make. */
export default programRoute(async (event) => {
  const { worker, run } = await bodyAs(event, giveBackSchema)
  await giveBack(useDatabase(), worker, run)
  return { noted: true }
})
