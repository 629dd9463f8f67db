import { readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { nanoid } from 'nanoid'
import { WaxError } from '../../core/errors'
import { MOST_COMPARED } from '../../core/judge/best-cut'
import type { SequenceAbout } from './about'
import { ofFolder, ofVideo, ofWebp, sizeFor } from './small-frames'
import { framesFolder, readPictures, sequenceFolder, sequenceSource } from './store'

/** The pictures of a sequence that was brought in, as they are compared: for each one luma, then alpha, 0–255. */
export async function smallOf(
  storage: string,
  about: SequenceAbout,
): Promise<{ bytes: Buffer; width: number; height: number }> {
  const { w, h } = sizeFor(about.width, about.height)
  const size = { width: w, height: h }
  const kept = join(sequenceFolder(storage, about.id), 'small')
  const known = await readFile(kept).catch(() => null)
  if (known?.length === about.frames * w * h * 2) return { bytes: known, ...size }
  if (about.frames > MOST_COMPARED)
    throw new WaxError(
      'too-many-frames',
      about.fileName,
      `It has more than ${MOST_COMPARED} pictures.`,
      'Cut it roughly first: a loop is looked for in a few minutes at the most.',
    )
  const source = sequenceSource(storage, about.id)
  const { frames } =
    about.read === 'video'
      ? await ofVideo(source)
      : about.read === 'webp'
        ? await ofWebp(source)
        : await ofFolder(await whole(storage, about))
  const played = Array.from({ length: about.frames }, (_, i) => frames[about.order?.[i] ?? i] ?? frames.at(-1)!)
  const bytes = Buffer.concat(played.flatMap(({ luma, alpha }) => [luma, alpha]))
  const half = `${kept}.${nanoid(6)}`
  await writeFile(half, bytes)
  await rename(half, kept)
  return { bytes, ...size }
}

/** The folder of its pictures, with all of them. */
async function whole(storage: string, about: SequenceAbout): Promise<string> {
  const folder = framesFolder(storage, about.id)
  if ((await readFile(join(folder, '000000.png')).catch(() => null)) === null) await readPictures(storage, about).done
  return folder
}
