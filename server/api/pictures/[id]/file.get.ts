import { setHeader } from 'h3'
import { pictureFile } from '../../../pictures/files'

/** The file as it was brought, for showing it. */
export default route(async (event) => {
  const { id } = await findPicture(routeId(event))
  const file = await pictureFile(useRuntimeConfig().storage, id)
  if (!file) throw notFound('picture')
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  return Buffer.from(file.buffer, file.byteOffset, file.byteLength)
})
