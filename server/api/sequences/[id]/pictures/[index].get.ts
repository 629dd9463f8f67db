import { getQuery, getRouterParam, setHeader } from 'h3'
import { sequencePicture, smallPicture } from '../../../../sequences/pictures'

/**
 * One picture of a sequence, straight as the file has it: RGBA as the engine takes it, its size and depth in headers. `?across=` asks for a
 * small one as a WebP file instead, for showing it.
 */
export default route(async (event) => {
  const { id } = await findSequence(routeId(event))
  const index = Number(getRouterParam(event, 'index'))
  const { storage } = useRuntimeConfig()
  const { across } = getQuery(event)
  if (across !== undefined) {
    const small = await smallPicture(storage, id, index, Math.min(480, Math.max(8, Number(across) || 96)))
    if (!small) throw notFound('picture')
    setHeader(event, 'content-type', 'image/webp')
    setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
    return small
  }
  const picture = await sequencePicture(storage, id, index)
  if (!picture) throw notFound('sequence')
  if (!('pixels' in picture)) {
    throw refusal(422, { code: 'missing-picture', place: `picture ${index}`, ...picture })
  }
  const { width, height, pixels } = picture
  setHeader(event, 'content-type', 'application/octet-stream')
  // They are many and large: what is in use the engines keep.
  setHeader(event, 'cache-control', 'no-store')
  setHeader(event, 'x-width', width)
  setHeader(event, 'x-height', height)
  setHeader(event, 'x-bits', pixels.BYTES_PER_ELEMENT * 8)
  return Buffer.from(pixels.buffer, pixels.byteOffset, pixels.byteLength)
})
