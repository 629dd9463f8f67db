import { setHeader } from 'h3'
import { sequenceSource } from '../../../sequences/store'

/** The file of a sequence, as it was brought in. */
export default route(async (event) => {
  const { id } = await findSequence(routeId(event))
  setHeader(event, 'content-type', 'application/octet-stream')
  return sendFile(event, sequenceSource(useRuntimeConfig().storage, id), 'sequence')
})
