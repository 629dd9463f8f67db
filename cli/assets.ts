import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { WaxError } from '../core/errors'
import type { Picture } from '../core/paint/pictures'
import { readOwnFont } from '../server/fonts/own-font'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import { formerId, readOwnPicture } from '../server/pictures/own-picture'
import { loadPictures } from '../server/pictures/pictures-of'
import type { OpenedCard } from './card-file'

/** Throws a WaxError where it cannot be read; `what` names it there. */
export async function bytesOf(file: string, what: string): Promise<Uint8Array> {
  try {
    return new Uint8Array(await readFile(file))
  } catch {
    throw new WaxError('no-file', file, `The ${what} file cannot be read.`, 'Check the path.')
  }
}

/** The fonts of a card: shipped ones, those that came with it, and those of the files named on the command line. */
export async function allFonts(
  { card, fonts }: OpenedCard,
  files: readonly string[],
): Promise<Map<string, Uint8Array>> {
  const own = new Map<string, Uint8Array>()
  for (const { id, bytes, fileName } of fonts) own.set(id, (await readOwnFont(await bytes(), fileName)).sfnt)
  for (const file of files) {
    const font = await readOwnFont(await bytesOf(file, 'font'), basename(file))
    own.set(font.id, font.sfnt)
  }
  return fontsOf([card], [async (id) => own.get(id) ?? null, shippedFonts])
}

/** The pictures of a card: those that came with it, and those of the files named on the command line. */
export async function allPictures(
  { card, pictures }: OpenedCard,
  files: readonly string[],
): Promise<Map<string, Picture>> {
  const own = new Map<string, Picture>()
  for (const { id, bytes, fileName } of pictures) own.set(id, (await readOwnPicture(await bytes(), fileName)).picture)
  for (const file of files) {
    const { id, picture } = await readOwnPicture(await bytesOf(file, 'picture'), basename(file))
    for (const name of [id, formerId(picture)]) own.set(name, picture)
  }
  return loadPictures([card], async (id) => own.get(id) ?? null)
}
