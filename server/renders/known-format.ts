import { basename } from 'node:path'
import { WaxError } from '../../core/errors'
import type { DeliveryOptions } from '../../core/formats/deliveries/option'
import type { DeliveryFormat } from '../../core/formats/deliveries/table'
import { startOf } from '../sequences/programs'
import { filesIn } from './encoders/numbered-files'
import { decodePng } from './encoders/png'
import { probe } from './ffmpeg'

/** Which delivery files are, as far as they tell it themselves. */
export interface KnownFormat extends DeliveryOptions {
  format: DeliveryFormat
}

/** Throws a WaxError for what is none that is made here. */
export async function formatOf(paths: readonly string[]): Promise<KnownFormat> {
  const [first, second] = paths as [string, string?]
  if (second !== undefined) return { format: 'fillkey', codec: await codecOf(first) }
  const signs = await startOf(first).catch(() => null)
  if (!signs || signs.subarray(0, 2).toString('latin1') === 'PK') return sequenceOf(first)
  const { codec, sideAlpha, pixelFormat } = await probe(first, signs.includes('acTL') ? ['-f', 'apng'] : []).catch(
    () => {
      throw unknown(first)
    },
  )
  const deep: { bits: 8 | 16 } = { bits: /(48|64)(be|le)$/.test(pixelFormat) ? 16 : 8 }
  if (codec === 'prores') return { format: 'prores4444' }
  if (codec === 'qtrle') return { format: 'rle' }
  if (codec === 'vp9' && sideAlpha) return { format: 'webm' }
  if (codec === 'apng') return { format: 'apng' }
  if (codec === 'gif') return { format: 'gif' }
  if (codec === 'h264') return { format: 'review' }
  if (codec === 'webp') return { format: 'webp' }
  if (codec === 'png')
    return { format: signs.subarray(1, 4).toString('latin1') === 'PNG' ? 'still' : 'movpng', ...deep }
  throw unknown(first)
}

async function sequenceOf(path: string): Promise<KnownFormat> {
  for await (const png of filesIn(path, '.png')) {
    const { bits } = await decodePng(png)
    return { format: 'png', bits }
  }
  for await (const exr of filesIn(path, '.exr')) {
    // OpenEXR file layout: a channel's type follows its name; 1 is half, 2 float.
    const at = exr.indexOf('channels\0chlist\0') + 'channels\0chlist\0'.length + 4
    return { format: 'exr', bits: exr.readInt32LE(exr.indexOf(0, at) + 1) === 1 ? 'half' : 'float' }
  }
  throw unknown(path)
}

async function codecOf(path: string): Promise<'prores' | 'h264' | 'png'> {
  if ((await startOf(path).catch(() => null))?.subarray(0, 2).toString('latin1') === 'PK') return 'png'
  const { codec } = await probe(path).catch(() => {
    throw unknown(path)
  })
  return codec === 'h264' ? 'h264' : 'prores'
}

const unknown = (path: string) =>
  new WaxError(
    'unknown-format',
    basename(path),
    'It is none of the deliveries that are made here.',
    'Name it by --format.',
  )
