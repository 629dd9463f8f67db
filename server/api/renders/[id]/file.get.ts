import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { sendStream, setHeader } from 'h3'
import { deliveryOf } from '../../../../core/formats/deliveries'

/** Only a finished and checked file is offered. */
export default route(async (event) => {
  const row = await findRender(routeId(event))
  const path = renderPath(row)
  const found = row.status === 'done' ? await stat(path).catch(() => null) : null
  if (!found) throw notFound('file')
  setHeader(event, 'content-type', deliveryOf(row.options.format).mediaType)
  setHeader(event, 'content-length', found.size)
  setHeader(event, 'content-disposition', attachment(row.fileName ?? row.id))
  return sendStream(event, createReadStream(path))
})
