import { inArray } from 'drizzle-orm'
import { setHeader } from 'h3'
import { picturesOf, sequencesOf } from '../../../../core/card/tree'
import { fileStem } from '../../../../core/formats/file-stem'
import { writeArchive } from '../../../archive/card-archive'
import { pictures } from '../../../database/schema'
import { ownFonts } from '../../../fonts/own-fonts'
import { pictureFile } from '../../../pictures/files'
import { sequenceAbout, sequenceFile } from '../../../sequences/store'
import { fontsOf, shippedFonts } from '../../../fonts/shipped'

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
  const files = await Promise.all(found.map(({ id }) => pictureFile(storage, id)))
  const shown = await Promise.all(
    sequencesOf(card).map(async (id) => {
      const about = await sequenceAbout(storage, id)
      return about ? [{ id, fileName: about.fileName, file: await sequenceFile(storage, id) }] : []
    }),
  )
  const archive = writeArchive({
    card,
    fonts: await fontsOf([card], [shippedFonts, ownFonts(useDatabase())]),
    pictures: found.flatMap((row, i) => (files[i] ? [{ ...row, file: files[i] }] : [])),
    sequences: shown.flat(),
  })
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', attachment(`${fileStem(name)}.card.zip`))
  return Buffer.from(archive.buffer, archive.byteOffset, archive.byteLength)
})
