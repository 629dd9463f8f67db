import { readFile } from 'node:fs/promises'
import sharp from 'sharp'
import type { Picture } from '../../core/paint/pictures'
import type { PictureGap } from '../../core/paint/sequences'
import { decodedValues, displayed } from '../pictures/decoded'
import { pngLight } from '../pictures/png-light'
import type { SequenceAbout } from './about'
import { sequenceAbout, storedPicture } from './store'

/** One picture of a sequence, as the engine takes it; or why there is none. Null for a sequence that is not there. */
export async function sequencePicture(
  storage: string,
  id: string,
  index: number,
): Promise<Picture | PictureGap | null> {
  const about = await sequenceAbout(storage, id)
  return about && picture(storage, about, index)
}

async function picture(storage: string, about: SequenceAbout, index: number): Promise<Picture | PictureGap> {
  if (!(index >= 0 && index < about.frames))
    return { message: `It has ${about.frames} pictures only.`, remedy: 'Let its clock run to its end at the most.' }
  const bytes = await bytesOf(storage, about, about.order?.[index] ?? index)
  if (!bytes) return BROKEN
  try {
    // Of numbered files some may be deeper than others.
    const found = await decodedValues(bytes, bytes[BIT_DEPTH] === 16)
    // What ffmpeg has decoded is display-encoded; PNG files say for themselves.
    const light = about.read === 'pictures' ? pngLight(bytes) : null
    return light ? { ...found, pixels: await displayed(found.pixels, light, about.bits) } : found
  } catch {
    return BROKEN
  }
}

/** Where a PNG file says how deep it is (PNG 3rd edition §11.2.1). */
const BIT_DEPTH = 24

async function bytesOf(storage: string, about: SequenceAbout, stored: number): Promise<Buffer | null> {
  // When the last picture has been read, all of them get another place.
  for (let tries = 0; tries < 2; tries++) {
    const file = await storedPicture(storage, about, stored)
    const bytes = file && (await readFile(file).catch(() => null))
    if (bytes) return bytes
  }
  return null
}

const BROKEN: PictureGap = {
  message: 'It cannot be read.',
  remedy: 'Bring the sequence in again from where it was made, or end its clock before.',
}

/** A picture of a sequence as a small WebP file, so many px across at the most; null where there is none. */
export async function smallPicture(storage: string, id: string, index: number, across: number): Promise<Buffer | null> {
  const about = await sequenceAbout(storage, id)
  if (!about || !(index >= 0 && index < about.frames)) return null
  const bytes = await bytesOf(storage, about, about.order?.[index] ?? index)
  if (!bytes) return null
  return sharp(bytes)
    .resize({ width: across, withoutEnlargement: true })
    .webp({ quality: 80 })
    .toBuffer()
    .catch(() => null)
}
