import { getQuery } from 'h3'
import { pictures } from '../../database/schema'
import { keepPictureFile } from '../../pictures/files'
import { LARGEST_PICTURE_BYTES, readOwnPicture } from '../../pictures/own-picture'
import { sizeAllowed } from '../../rim/sizes'

/** Takes a picture file as the body, its name as `?name=`. The same picture a second time is the same one. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'picture').slice(0, 200)
  const { most, fault } = sizeAllowed('picture', LARGEST_PICTURE_BYTES, name)
  const body = await bodyBytes(event, most, fault)
  const { id, fileName, picture } = await readOwnPicture(body, name)
  const { width, height } = picture
  await keepPictureFile(useRuntimeConfig().storage, id, body)
  await useDatabase().insert(pictures).values({ id, fileName, width, height }).onConflictDoNothing()
  return { id, fileName, width, height }
})
