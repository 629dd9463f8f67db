import { createHash } from 'node:crypto'
import { Font } from '../../core/type/font'
import { toSfnt } from './sfnt'

/** A font that somebody brought, checked and unpacked. */
export interface OwnFont {
  id: string
  family: string
  style: string
  fileName: string
  sfnt: Uint8Array
}

/** Reads a font file; throws a WaxError where it is none. The id is made from the unpacked contents. */
export async function readOwnFont(bytes: Uint8Array, fileName: string): Promise<OwnFont> {
  const sfnt = await toSfnt(bytes, fileName)
  const { family, style } = new Font(sfnt, fileName)
  const id = `own-${createHash('sha256').update(sfnt).digest('hex').slice(0, 16)}`
  return { id, family, style, fileName, sfnt }
}
