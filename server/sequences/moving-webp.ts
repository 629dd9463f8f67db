import { rename } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from '../pictures/fresh-sharp'
import { WaxError } from '../../core/errors'
import { expectCount, storedName } from './numbered'
import { evened } from './video'

/** Pixels that are decoded at once. */
const AT_ONCE = 32_000_000

/** A WebP file that moves: ffmpeg cannot read it, sharp can. */
export async function webpAbout(path: string, place: string) {
  const {
    width,
    pageHeight,
    height,
    pages = 1,
    delay = [],
    hasAlpha,
  } = await sharp(path, { animated: true })
    .metadata()
    .catch(() => {
      throw new WaxError(
        'no-picture',
        place,
        'It cannot be read as a WebP file.',
        'Write it again, or choose another file.',
      )
    })
  if (pages === 1) throw new WaxError('still', place, 'It has a single picture.', 'Bring it in as a picture instead.')
  expectCount(pages, place)
  const { order, rate, note } = evened(delay.length === pages ? delay : new Array<number>(pages).fill(40))
  const frames = order?.length ?? pages
  return {
    ...{ width, height: pageHeight ?? height, frames, order, rate, hasAlpha },
    ...{ bits: 8 as const, notes: note ? [note] : [] },
  }
}

/** Writes every picture of it into a folder, in their order, each of them whole as soon as it is there. */
export async function decodeWebp(path: string, folder: string, signal?: AbortSignal): Promise<void> {
  const { width, pageHeight, height, pages = 1 } = await sharp(path, { animated: true }).metadata()
  const tall = pageHeight ?? height
  // Each lot is read from the beginning: few of them are better than many.
  const lot = Math.max(1, Math.floor(AT_ONCE / (width * tall)))
  for (let from = 0; from < pages; from += lot) {
    signal?.throwIfAborted()
    const count = Math.min(lot, pages - from)
    const raw = await sharp(path, { page: from, pages: count })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer()
      .catch(() => null)
    // A file that is cut off has been read as far as it goes.
    if (!raw) return
    for (let k = 0; k < count; k++) {
      const pixels = raw.subarray(k * width * tall * 4, (k + 1) * width * tall * 4)
      const file = join(folder, storedName(from + k))
      await sharp(pixels, { raw: { width, height: tall, channels: 4 } })
        .png({ compressionLevel: 1, adaptiveFiltering: false })
        .toFile(`${file}.part`)
      await rename(`${file}.part`, file)
    }
  }
}
