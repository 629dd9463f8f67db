import { getQuery } from 'h3'
import { nanoid } from 'nanoid'
import { withPictures } from '../../../core/edit/pictures'
import { isShipped } from '../../../core/type/families'
import { LARGEST_ARCHIVE_BYTES, readArchive } from '../../archive/card-archive'
import { cards, fonts, pictures, sequences } from '../../database/schema'
import type { SequenceAbout } from '../../sequences/about'
import { takeInBytes } from '../../sequences/store'
import { WaxError } from '../../../core/errors'
import { readOwnFont } from '../../fonts/own-font'
import { keepPictureFile } from '../../pictures/files'
import { readOwnPicture } from '../../pictures/own-picture'

/** Takes a `.card.zip` as the body: its fonts, pictures and sequences come in, then its card. All of it, or nothing. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'archive').slice(0, 200)
  const body = await bodyBytes(event, LARGEST_ARCHIVE_BYTES, {
    code: 'archive-too-large',
    place: name,
    message: 'The file is too large.',
    remedy: 'Archives may have up to 400 MB.',
  })
  const archive = await readArchive(body, name)
  const brought = await Promise.all(
    [...archive.fonts].filter(([id]) => !isShipped(id)).map(([id, bytes]) => readOwnFont(bytes, `fonts/${id}.ttf`)),
  )
  // One after the other, and only what the row needs is kept: forty large pictures do not lie in memory at once.
  const { storage } = useRuntimeConfig()
  const seen: { id: string; fileName: string; width: number; height: number }[] = []
  const renamed = new Map<string, string>()
  for (const { id: named, file, fileName } of archive.pictures) {
    const { id, picture } = await readOwnPicture(file, fileName)
    await keepPictureFile(storage, id, file)
    seen.push({ id, fileName, width: picture.width, height: picture.height })
    renamed.set(named, id)
  }
  const sequenced: SequenceAbout[] = []
  for (const { id, file, fileName } of archive.sequences) {
    const about = await takeInBytes(storage, file, fileName)
    if (about.id !== id)
      throw new WaxError(
        'other-sequence',
        `sequences/${id}`,
        'The file is another one than the card names.',
        'Save the card with its sequences again.',
      )
    sequenced.push(about)
  }
  const card = withPictures(archive.card, renamed)
  return useDatabase().transaction(async (database) => {
    for (const font of brought) {
      await database
        .insert(fonts)
        .values({ ...font, sfnt: Buffer.from(font.sfnt) })
        .onConflictDoNothing()
    }
    for (const picture of seen) {
      await database.insert(pictures).values(picture).onConflictDoNothing()
    }
    for (const { id, fileName, width, height, frames } of sequenced) {
      await database.insert(sequences).values({ id, fileName, width, height, frames }).onConflictDoNothing()
    }
    const [row] = await database
      .insert(cards)
      .values({ id: nanoid(12), name: card.name, document: card })
      .returning()
    return row!
  })
})
