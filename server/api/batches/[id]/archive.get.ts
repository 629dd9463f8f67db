import { setResponseHeaders } from 'h3'
import { fileStem } from '../../../../core/formats/file-stem'
import { batchArchive } from '../../../renders/batch/archive'

/** All finished files of a job in one ZIP, with its report and, where rows have their places, the timeline. */
export default route(async (event) => {
  const { id, rosterName, leftOut } = await findBatch(routeId(event))
  const rows = await rendersOfBatch(id)
  if (!rows.some(({ status }) => status === 'done')) throw notFound('file')
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-disposition': attachment(`${fileStem(rosterName)}.zip`),
  })
  return batchArchive({ name: rosterName, rows, leftOut, place: rendersPlace() })
})
