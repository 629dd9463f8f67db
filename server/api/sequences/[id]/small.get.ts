import { setHeader } from 'h3'
import { smallOf } from '../../../sequences/small-of'

/** All pictures of a sequence as a few pixels each, to be compared: luma and alpha of one after those of the other, their size in headers. */
export default route(async (event) => {
  const about = await findSequence(routeId(event))
  const { bytes, width, height } = await smallOf(useRuntimeConfig().storage, about)
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  setHeader(event, 'x-width', width)
  setHeader(event, 'x-height', height)
  return bytes
})
