import { mkdir, rm } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { getQuery } from 'h3'
import { nanoid } from 'nanoid'
import { withPictures } from '../../../core/edit/pictures'
import { WaxError } from '../../../core/errors'
import { isShipped } from '../../../core/type/families'
import type { CardArchive } from '../../archive/card-archive'
import { LARGEST_ARCHIVE_BYTES, openArchive } from '../../archive/card-archive'
import { cards, fonts, pictures, sequences } from '../../database/schema'
import { readOwnFont } from '../../fonts/own-font'
import { keepPictureFile } from '../../pictures/files'
import { readOwnPicture } from '../../pictures/own-picture'
import { expectSpace } from '../../renders/space'
import type { SequenceAbout } from '../../sequences/about'
import { takeInFrom } from '../../sequences/store'

/** Takes a `.card.zip` as the body: its fonts, pictures and sequences come in, then its card. All of it, or nothing. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'archive').slice(0, 200)
  const folder = resolve(useRuntimeConfig().storage, 'archives')
  await mkdir(folder, { recursive: true })
  await expectSpace(folder)
  const path = join(folder, `incoming-${nanoid(10)}`)
  try {
    await bodyFile(event, path, LARGEST_ARCHIVE_BYTES, tooLarge(name), 'sha256')
    const archive = await openArchive(path, name)
    try {
      return await takenIn(archive)
    } finally {
      archive.close()
    }
  } finally {
    await rm(path, { force: true })
  }
})

const tooLarge = (place: string) => ({
  code: 'archive-too-large',
  place,
  message: 'The file is too large.',
  remedy: 'Archives may have up to 400 MB.',
})

async function takenIn(archive: CardArchive) {
  // One after the other, and only what the row needs is kept: forty large pictures do not lie in memory at once.
  const { storage } = useRuntimeConfig()
  const brought: Awaited<ReturnType<typeof readOwnFont>>[] = []
  for (const { id, fileName, bytes } of archive.fonts) {
    if (!isShipped(id)) brought.push(await readOwnFont(await bytes(), fileName))
  }
  const seen: { id: string; fileName: string; width: number; height: number }[] = []
  const renamed = new Map<string, string>()
  for (const { id: named, fileName, bytes } of archive.pictures) {
    const file = await bytes()
    const { id, picture } = await readOwnPicture(file, fileName)
    await keepPictureFile(storage, id, file)
    seen.push({ id, fileName, width: picture.width, height: picture.height })
    renamed.set(named, id)
  }
  const sequenced: SequenceAbout[] = []
  for (const { id, fileName, writeTo } of archive.sequences) {
    const about = await takeInFrom(storage, writeTo, fileName)
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
}
