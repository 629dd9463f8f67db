import { getQuery } from 'h3'
import { LARGEST_FONT_BYTES } from '../../../core/type/font'
import { fonts } from '../../database/schema'
import { readOwnFont } from '../../fonts/own-font'

/** Takes a font file as the body, its name as `?name=`. The same file a second time is the same font. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'font').slice(0, 200)
  const body = await bodyBytes(event, LARGEST_FONT_BYTES, {
    code: 'font-too-large',
    place: name,
    message: 'The file is too large.',
    remedy: 'Fonts may have up to 30 MB: use a smaller cut or a subset.',
  })
  const font = await readOwnFont(body, name)
  await useDatabase()
    .insert(fonts)
    .values({ ...font, sfnt: Buffer.from(font.sfnt) })
    .onConflictDoNothing()
  return { id: font.id, family: font.family, style: font.style, fileName: font.fileName }
})
