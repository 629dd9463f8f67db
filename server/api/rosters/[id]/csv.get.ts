import { setResponseHeaders } from 'h3'
import { fileStem } from '../../../../core/formats/file-stem'
import { rosterCsv } from '../../../../core/rosters/table-out'

/** A roster as CSV. */
export default route(async (event) => {
  const { document } = await findRoster(routeId(event))
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': attachment(`${fileStem(document.name)}.csv`),
  })
  return rosterCsv(document)
})
