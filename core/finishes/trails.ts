import { choice, number, toggle } from '../values/parameter-kinds'
import type { Kernels, Layers, Picture } from '../kernels/kernels'
import { percent } from './common-parameters'
import { defineFinish } from './definition'

/** Copies of one finish. */
export const MOST_COPIES = 64

export const trails = defineFinish({
  kind: 'trails',
  label: 'Trails',
  help: 'The picture as it was some frames ago, once or often, over or under what it is now',
  parameters: {
    copies: number({
      label: 'Copies',
      help: 'How many earlier pictures are seen',
      ...({ default: 4, min: 0, max: MOST_COPIES, step: 1, unit: '', slider: [0, 16] } as const),
    }),
    spacing: number({
      label: 'Spacing',
      help: 'Frames from one copy to the next; negative ones lie in the future',
      ...({ default: 1, min: -1000, max: 1000, step: 0.05, unit: '', slider: [0, 6] } as const),
    }),
    decay: percent('Decay', 'How much weaker each copy is than the one before it, in %', 30),
    laid: choice({
      label: 'Laid',
      help: 'Over or behind what is there now; the brighter of both; added as light; or the mean of all, a blur of the whole scene over time',
      default: 'behind',
      options: [
        { value: 'over', label: 'Over' },
        { value: 'behind', label: 'Behind' },
        { value: 'lighter', label: 'Lighter' },
        { value: 'add', label: 'Added' },
        { value: 'mean', label: 'Mean' },
      ],
    }),
    across: toggle({
      label: 'Across the seam',
      help: 'Copies come from before the first frame too: the loop has no seam',
      default: true,
    }),
  },
  headline: 'copies',
  reads: 'moments',
  idle: ({ copies, spacing }) => Math.round(copies) === 0 || spacing === 0,
  restless: () => true,
  moments: (values) => framesOf(values),
  work({ copies, spacing, decay, laid, across }, bench, src, dst) {
    const { kernels } = bench
    const frames = framesOf({ copies, spacing })
    const share = (k: number) => (1 - decay / 100) ** (k + 1)
    if (laid === 'mean')
      return mean(kernels, dst, [src, ...frames.map((frame) => () => bench.at(frame, across))], (k) => share(k - 1))
    const lay = (frame: number, onto: (copy: Picture) => void) => {
      const mark = kernels.mark()
      const copy = bench.at(frame, across)
      if (copy) onto(copy)
      kernels.release(mark)
    }
    if (laid === 'behind') {
      kernels.clear(dst)
      // The oldest lies deepest.
      for (let k = frames.length - 1; k >= 0; k--)
        lay(frames[k]!, (copy) => kernels.blend('normal', copy, dst, share(k)))
      kernels.blend('normal', src, dst, 1)
      return
    }
    kernels.copy(src, dst)
    frames.forEach((frame, k) =>
      lay(frame, (copy) => {
        if (laid === 'over') kernels.blend('normal', copy, dst, share(k))
        else if (laid === 'lighter') kernels.lighter(copy, dst, share(k))
        else kernels.plus(copy, dst, share(k))
      }),
    )
  },
})

function framesOf({ copies, spacing }: { copies: number; spacing: number }): number[] {
  return Array.from({ length: Math.round(copies) }, (_, k) => -(k + 1) * spacing)
}

type Source = Picture | (() => Picture | null)

/** Weighed by their shares: divided by the sum of those, so that what is whole in each is whole in the mean. */
function mean(kernels: Kernels, dst: Layers, sources: readonly Source[], share: (k: number) => number): void {
  kernels.clear(dst)
  let sum = 0
  sources.forEach((source, k) => {
    const mark = kernels.mark()
    const picture = typeof source === 'function' ? source() : source
    if (picture) {
      const weight = Math.fround(share(k))
      kernels.addShare(picture, dst, weight)
      sum = Math.fround(sum + weight)
    }
    kernels.release(mark)
  })
  kernels.mean(dst, sum, dst)
}
