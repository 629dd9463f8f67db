import { WaxError } from '../../../core/errors'
import type { FramePicture } from '../../../core/frame/engine'
import type { Encoder, FilePlan, ReadFile } from './encoder'
import { filesIn, frameName, numberedFiles, numbersIn } from './numbered-files'
import { inOrder, Lanes } from '../lanes'
import { decodePng, encodePng, kept } from './png'

/** One PNG a frame. */
export const pngSequence: Encoder = {
  tags: null,
  open: async (plan) => {
    const files = await numberedFiles(plan.paths[0]!)
    let index = plan.first
    const lanes = new Lanes<Buffer>((png) => files.add(frameName(plan.stem, index++, '.png'), png))
    return {
      write: (picture) => lanes.add(encodePng(kept(picture))),
      close: async () => {
        await lanes.end()
        await files.close()
      },
      abort: () => files.abort(),
    }
  },
  read: async (plan) => {
    const { width, height, bits } = await firstOf(plan)
    const stored = { kind: 'pixels', bits } as const
    const numbers = await numbersIn(plan.paths[0]!, '.png')
    return { width, height, rate: null, tags: null, timecode: null, numbers, stored, frames: pictures(plan) }
  },
}

async function firstOf(plan: FilePlan): Promise<FramePicture> {
  for await (const png of filesIn(plan.paths[0]!, '.png')) return decodePng(png)
  throw new WaxError('no-frames', 'file', 'It holds no PNG.', 'Render it again.')
}

async function* pictures(plan: FilePlan): ReadFile['frames'] {
  for await (const { pixels } of inOrder(filesIn(plan.paths[0]!, '.png'), decodePng)) {
    yield pixels
  }
}
