import { access } from 'node:fs/promises'
import { inArray } from 'drizzle-orm'
import { sendStream, setHeader } from 'h3'
import { picturesOf, sequencesOf } from '../../../../core/card/tree'
import { fileStem } from '../../../../core/formats/file-stem'
import type { PackedFile } from '../../../archive/card-archive'
import { archiveStream } from '../../../archive/card-archive'
import { pictures } from '../../../database/schema'
import { ownFonts } from '../../../fonts/own-fonts'
import { fontsOf, shippedFonts } from '../../../fonts/shipped'
import { picturePath } from '../../../pictures/files'
import { sequenceAbout, sequenceSource } from '../../../sequences/store'

/** The card with its fonts, pictures and sequences as one ZIP file. */
export default route(async (event) => {
  const { document: card, name } = await findCard(routeId(event))
  const ids = picturesOf(card)
  const found = ids.length
    ? await useDatabase()
        .select({ id: pictures.id, fileName: pictures.fileName })
        .from(pictures)
        .where(inArray(pictures.id, ids))
    : []
  const { storage } = useRuntimeConfig()
  const shown = await Promise.all(sequencesOf(card).map((id) => sequenceAbout(storage, id)))
  const archive = await archiveStream({
    card,
    fonts: await fontsOf([card], [shippedFonts, ownFonts(useDatabase())]),
    pictures: await there(found.map((row) => ({ ...row, from: picturePath(storage, row.id) }))),
    sequences: await there(
      shown.flatMap((about) =>
        about ? [{ id: about.id, fileName: about.fileName, from: sequenceSource(storage, about.id) }] : [],
      ),
    ),
  })
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', attachment(`${fileStem(name)}.card.zip`))
  return sendStream(event, archive)
})

/** Those whose files lie where they should. */
async function there(files: readonly (PackedFile & { from: string })[]): Promise<PackedFile[]> {
  const found = await Promise.all(
    files.map((file) =>
      access(file.from).then(
        () => [file],
        () => [],
      ),
    ),
  )
  return found.flat()
}
