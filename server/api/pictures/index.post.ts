import { getHeader, getQuery, readRawBody } from 'h3'
import { WaxError } from '../../../core/errors'
import { pictures } from '../../database/schema'
import { LARGEST_PICTURE_BYTES, readOwnPicture } from '../../pictures/own-picture'

/** Takes a picture file as the body, its name as `?name=`. The same picture a second time is the same one. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'picture').slice(0, 200)
  if (Number(getHeader(event, 'content-length') ?? 0) > LARGEST_PICTURE_BYTES) {
    throw new WaxError('picture-too-large', name, 'The file is too large.', 'Pictures may have up to 60 MB.')
  }
  const body = new Uint8Array((await readRawBody(event, false)) ?? [])
  const { id, fileName, picture } = await readOwnPicture(body, name)
  const { width, height } = picture
  await useDatabase()
    .insert(pictures)
    .values({ id, fileName, width, height, file: Buffer.from(body) })
    .onConflictDoNothing()
  return { id, fileName, width, height }
})
