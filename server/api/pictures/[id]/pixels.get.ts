import { setHeader } from 'h3'
import { pictureFile } from '../../../pictures/files'
import { readOwnPicture } from '../../../pictures/own-picture'

/**
 * Straight RGBA as the engine takes it, its size in headers. Browsers decode pictures with colour management and
 * rounding of their own; so that a preview has the same bytes as a render, the server decodes for both.
 */
export default route(async (event) => {
  const { id, fileName } = await findPicture(routeId(event))
  const file = await pictureFile(useRuntimeConfig().storage, id)
  if (!file) throw notFound('picture')
  const { picture } = await readOwnPicture(file, fileName)
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  setHeader(event, 'x-width', picture.width)
  setHeader(event, 'x-height', picture.height)
  return Buffer.from(picture.pixels.buffer, picture.pixels.byteOffset, picture.pixels.byteLength)
})
