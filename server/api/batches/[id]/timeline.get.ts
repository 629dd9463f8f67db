import { setResponseHeaders } from 'h3'
import { fileStem } from '../../../../core/formats/file-stem'
import { batchTimeline } from '../../../renders/batch/report'

/** The finished files at their places, as OpenTimelineIO. */
export default route(async (event) => {
  const { id, rosterName } = await findBatch(routeId(event))
  const timeline = batchTimeline(rosterName, await rendersOfBatch(id))
  if (!timeline) throw notFound('timeline')
  setResponseHeaders(event, {
    'content-type': 'application/json; charset=utf-8',
    'content-disposition': attachment(`${fileStem(rosterName)}.otio`),
  })
  return JSON.stringify(timeline, null, 1)
})
