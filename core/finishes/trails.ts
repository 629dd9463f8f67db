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
  keepsStill: ({ laid }) => laid === 'mean' || laid === 'lighter',
  moments: (values) => framesOf(values),
  work({ copies, spacing, decay, laid, across }, bench, src, dst) {
    const { kernels } = bench
    const frames = framesOf({ copies, spacing })
    const share = (k: number) => (1 - decay / 100) ** (k + 1)
    // The mean of what is the same everywhere is that, and so is the brighter of both.
    const part = laid === 'mean' || laid === 'lighter' ? bench.changes(frames, across) : src.box
    const within = (picture: Picture): Picture => {
      const { x, y, w, h } = part ?? { ...src.box, w: 0 }
      return { ...kernels.window(picture, x - picture.box.x, y - picture.box.y, w, h), box: { x, y, w, h } }
    }
    const lay = (frame: number, onto: (copy: Picture) => void) => {
      const mark = kernels.mark()
      const copy = bench.at(frame, across, part ?? undefined)
      if (copy) onto(within(copy))
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
    if (!part) return
    const onto = within(dst)
    if (laid === 'mean') {
      const sum = new SharedMean(kernels, onto)
      sum.add(within(src), 1)
      frames.forEach((frame, k) => lay(frame, (copy) => sum.add(copy, share(k))))
      sum.end()
      return
    }
    frames.forEach((frame, k) =>
      lay(frame, (copy) => {
        if (laid === 'over') kernels.blend('normal', copy, onto, share(k))
        else if (laid === 'lighter') kernels.lighter(copy, onto, share(k))
        else kernels.plus(copy, onto, share(k))
      }),
    )
  },
})

function framesOf({ copies, spacing }: { copies: number; spacing: number }): number[] {
  return Array.from({ length: Math.round(copies) }, (_, k) => -(k + 1) * spacing)
}

/** A mean weighed by shares: divided by their sum, so that what is whole in each is whole in the mean. */
class SharedMean {
  private shares = 0

  constructor(
    private readonly kernels: Kernels,
    private readonly onto: Layers,
  ) {
    kernels.clear(onto)
  }

  add(picture: Layers, share: number): void {
    const weight = Math.fround(share)
    this.kernels.addShare(picture, this.onto, weight)
    this.shares = Math.fround(this.shares + weight)
  }

  end(): void {
    this.kernels.mean(this.onto, this.shares, this.onto)
  }
}
