import { inArray } from 'drizzle-orm'
import { setHeader } from 'h3'
import { picturesOf } from '../../../../core/card/tree'
import { fileStem } from '../../../../core/formats/file-stem'
import { writeArchive } from '../../../archive/card-archive'
import { pictures } from '../../../database/schema'
import { ownFonts } from '../../../fonts/own-fonts'
import { pictureFile } from '../../../pictures/files'
import { fontsOf, shippedFonts } from '../../../fonts/shipped'

/** The card with its fonts and pictures as one ZIP file. */
export default route(async (event) => {
  const { document: card, name } = await findCard(routeId(event))
  const ids = picturesOf(card)
  const found = ids.length
    ? await useDatabase()
        .select({ id: pictures.id, fileName: pictures.fileName })
        .from(pictures)
        .where(inArray(pictures.id, ids))
    : []
  const files = await Promise.all(found.map(({ id }) => pictureFile(useRuntimeConfig().storage, id)))
  const archive = writeArchive({
    card,
    fonts: await fontsOf(card, [shippedFonts, ownFonts(useDatabase())]),
    pictures: found.flatMap((row, i) => (files[i] ? [{ ...row, file: files[i] }] : [])),
  })
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', attachment(`${fileStem(name)}.card.zip`))
  return Buffer.from(archive.buffer, archive.byteOffset, archive.byteLength)
})
