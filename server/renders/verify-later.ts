import { basename } from 'node:path'
import { deliveryOf } from '../../core/formats/deliveries/table'
import type { FilePlan } from './encoders/encoder'
import { encoderOf } from './encoders/table'
import type { CheckResult } from './report'
import type { Sidecar } from './sidecar'
import { fileHash } from './sidecar'
import { digest } from './digest'
import { aboutFile, check } from './verify'

/**
 * Holds files against the sidecar that was written with them: whether they are the same bytes, and, where not, whether each of
 * their frames is still the one that was checked. Files that were packed anew without touching the pictures pass.
 */
export async function verifyAgainst(sidecar: Sidecar, paths: readonly string[]): Promise<CheckResult[]> {
  const { options, frame, rate, frames } = sidecar
  const isWhole = await sameFiles(sidecar, paths)
  const plan: FilePlan = {
    ...{
      paths,
      ...frame,
      rate,
      frames: frames.read.length,
      first: options.from,
      options,
      stem: '',
      title: sidecar.card.name,
    },
    form: deliveryOf(options.format).form(options),
  }
  // Packed anew, its frames may still be proved the same: then nothing is wrong.
  const bytes = (passed: boolean) =>
    check('read', 'Bytes', isWhole ? 'the files as they were made' : 'changed since', 'as they were made', passed)
  try {
    const encoder = encoderOf(options.format)
    const file = await encoder.read(plan)
    const read: string[] = []
    for await (const raw of file.frames) read.push(digest(raw))
    const wrong = read.findIndex((hash, at) => hash !== frames.read[at])
    const words = wrong < 0 ? 'every frame as it was checked' : `frame ${wrong} is another one`
    const checks = [
      check('frames', 'Frames', String(read.length), String(frames.read.length), read.length === frames.read.length),
      ...aboutFile(file, encoder, plan),
      check('colour', 'Pictures', words, 'every frame as it was checked', wrong < 0),
    ]
    return [bytes(isWhole || checks.every(({ passed }) => passed)), ...checks]
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    return [bytes(isWhole), check('read', 'Reading', message, 'the whole file can be read', false)]
  }
}

async function sameFiles({ files }: Sidecar, paths: readonly string[]): Promise<boolean> {
  if (files.length !== paths.length) return false
  const hashes = await Promise.all(paths.map((path) => fileHash(path).catch(() => basename(path))))
  return files.every(({ sha256 }, i) => sha256 === hashes[i])
}
