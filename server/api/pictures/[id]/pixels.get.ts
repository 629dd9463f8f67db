import { eq } from 'drizzle-orm'
import { setHeader } from 'h3'
import { pictures } from '../../../database/schema'
import { readOwnPicture } from '../../../pictures/own-picture'

/**
 * Straight RGBA as the engine takes it, its size in headers. Browsers decode pictures with colour management and
 * rounding of their own; so that a preview has the same bytes as a render, the server decodes for both.
 */
export default route(async (event) => {
  const [row] = await useDatabase()
    .select({ file: pictures.file, fileName: pictures.fileName })
    .from(pictures)
    .where(eq(pictures.id, routeId(event)))
  if (!row) throw notFound('picture')
  const { picture } = await readOwnPicture(new Uint8Array(row.file), row.fileName)
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  setHeader(event, 'x-width', picture.width)
  setHeader(event, 'x-height', picture.height)
  return Buffer.from(picture.pixels.buffer, picture.pixels.byteOffset, picture.pixels.byteLength)
})
