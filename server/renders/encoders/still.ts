import { readFile, writeFile } from 'node:fs/promises'
import type { Encoder, ReadFile, ReadFrame } from './encoder'
import { decodePng, encodePng } from './png'

/** One frame. */
export const still: Encoder = {
  tags: null,
  open: (plan) =>
    Promise.resolve({
      write: async (picture) => writeFile(plan.paths[0]!, await encodePng(picture)),
      close: async () => {},
      abort: async () => {},
    }),
  read: async (plan) => {
    const { width, height, pixels } = await decodePng(await readFile(plan.paths[0]!))

    const frames = async function* (): ReadFile['frames'] {
      yield { raw: pixels, pixels, seen: null } satisfies ReadFrame
    }
    return { width, height, rate: null, tags: null, timecode: null, frames: frames() }
  },
}
