import { extentOf } from '../../../../core/extent'
import { readPictures, readSoFar } from '../../../sequences/store'

/** What is known of a sequence, and how far its pictures have been read. */
export default route(async (event) => {
  const about = await findSequence(routeId(event))
  const { storage } = useRuntimeConfig()
  const { there, ended } = await readSoFar(storage, about)
  if (!ended) readPictures(storage, about)
  const stored = about.order ? extentOf(about.order)[1] + 1 : about.frames
  const short =
    ended && there < stored ? [`The file breaks off after ${there} of ${stored} pictures: the last one is held.`] : []
  return { ...about, notes: [...about.notes, ...short], stored, there, ended }
})
