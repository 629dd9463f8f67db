import { readFile, writeFile } from 'node:fs/promises'
import type { Encoder, ReadFile } from './encoder'
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
    const { width, height, bits, pixels } = await decodePng(await readFile(plan.paths[0]!))
    const frames = async function* (): ReadFile['frames'] {
      yield pixels
    }
    const stored = { kind: 'pixels', bits } as const
    return { width, height, rate: null, tags: null, timecode: null, stored, frames: frames() }
  },
}
