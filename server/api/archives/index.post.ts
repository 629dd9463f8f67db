import { getHeader, getQuery, readRawBody } from 'h3'
import { nanoid } from 'nanoid'
import { WaxError } from '../../../core/errors'
import { isShipped } from '../../../core/type/families'
import { LARGEST_ARCHIVE_BYTES, readArchive } from '../../archive/card-archive'
import { cards, fonts, pictures } from '../../database/schema'
import { readOwnFont } from '../../fonts/own-font'
import { readOwnPicture } from '../../pictures/own-picture'

/** Takes a `.card.zip` as the body: its fonts and pictures come in, then its card. All of it, or nothing. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'archive').slice(0, 200)
  if (Number(getHeader(event, 'content-length') ?? 0) > LARGEST_ARCHIVE_BYTES) {
    throw new WaxError('archive-too-large', name, 'The file is too large.', 'Archives may have up to 400 MB.')
  }
  const archive = readArchive(new Uint8Array((await readRawBody(event, false)) ?? []), name)
  const brought = await Promise.all(
    [...archive.fonts].filter(([id]) => !isShipped(id)).map(([id, bytes]) => readOwnFont(bytes, `fonts/${id}.ttf`)),
  )
  const seen = await Promise.all(
    archive.pictures.map(async ({ file, fileName }) => ({ file, ...(await readOwnPicture(file, fileName)) })),
  )
  return useDatabase().transaction(async (database) => {
    for (const font of brought) {
      await database
        .insert(fonts)
        .values({ ...font, sfnt: Buffer.from(font.sfnt) })
        .onConflictDoNothing()
    }
    for (const { id, fileName, file, picture } of seen) {
      const { width, height } = picture
      await database
        .insert(pictures)
        .values({ id, fileName, width, height, file: Buffer.from(file) })
        .onConflictDoNothing()
    }
    const { card } = archive
    const [row] = await database
      .insert(cards)
      .values({ id: nanoid(12), name: card.name, document: card })
      .returning()
    return row!
  })
})
