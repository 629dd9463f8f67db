import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { getQuery } from 'h3'
import { sequences } from '../../database/schema'
import { sizeAllowed } from '../../rim/sizes'
import { LARGEST_SEQUENCE_BYTES } from '../../sequences/about'
import { incoming, readPictures, SEQUENCE_HASH, takeIn } from '../../sequences/store'

/**
 * Takes a file of moving pictures, or a ZIP file of numbered PNG files, as the body, its name as `?name=`. Answers as soon as it is known
 * what is in it; its pictures are read meanwhile.
 */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'sequence').slice(0, 200)
  const { storage } = useRuntimeConfig()
  const folder = await incoming(storage)
  let hash: string
  try {
    const { most, fault } = sizeAllowed('sequence', LARGEST_SEQUENCE_BYTES, name)
    hash = await bodyFile(event, join(folder, 'source'), most, fault, SEQUENCE_HASH)
  } catch (error) {
    await rm(folder, { recursive: true, force: true })
    throw error
  }
  const about = await takeIn(storage, folder, name, hash)
  const { id, fileName, width, height, frames } = about
  await useDatabase().insert(sequences).values({ id, fileName, width, height, frames }).onConflictDoNothing()
  if (about.read !== 'pictures') readPictures(storage, about)
  return about
})
