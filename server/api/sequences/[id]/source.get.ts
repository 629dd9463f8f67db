import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { sendStream, setHeader } from 'h3'
import { sequenceSource } from '../../../sequences/store'

/** The file of a sequence, as it was brought in. */
export default route(async (event) => {
  const { id } = await findSequence(routeId(event))
  const path = sequenceSource(useRuntimeConfig().storage, id)
  const found = await stat(path).catch(() => null)
  if (!found) throw notFound('sequence')
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'content-length', found.size)
  return sendStream(event, createReadStream(path))
})
