import { getHeader, getQuery, readRawBody } from 'h3'
import { LARGEST_FONT_BYTES } from '../../../core/type/font'
import { WaxError } from '../../../core/errors'
import { fonts } from '../../database/schema'
import { readOwnFont } from '../../fonts/own-font'

/** Takes a font file as the body, its name as `?name=`. The same file a second time is the same font. */
export default route(async (event) => {
  const name = String(getQuery(event).name ?? 'font').slice(0, 200)
  const announced = Number(getHeader(event, 'content-length') ?? 0)
  if (announced > LARGEST_FONT_BYTES) {
    const size = Math.round(announced / 1024 / 1024)
    throw new WaxError(
      'font-too-large',
      name,
      `The file has ${size} MB.`,
      'Fonts may have up to 30 MB: use a smaller cut or a subset.',
    )
  }
  const body = await readRawBody(event, false)
  const font = await readOwnFont(new Uint8Array(body ?? []), name)
  await useDatabase()
    .insert(fonts)
    .values({ ...font, sfnt: Buffer.from(font.sfnt) })
    .onConflictDoNothing()
  return { id: font.id, family: font.family, style: font.style, fileName: font.fileName }
})
