import { setResponseHeaders } from 'h3'
import { fileStem } from '../../../../core/formats/file-stem'
import { batchReport } from '../../../renders/batch/report'

/** What became of every row, as CSV. */
export default route(async (event) => {
  const { id, rosterName, leftOut } = await findBatch(routeId(event))
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': attachment(`${fileStem(rosterName)}-report.csv`),
  })
  return batchReport(await rendersOfBatch(id), leftOut)
})
