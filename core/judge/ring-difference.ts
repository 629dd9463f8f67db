import type { FramePicture } from '../frame/engine'
import type { Frames } from '../units'

/** How much two pictures differ, 0–255 a channel, in premultiplied colour: what is clear differs in nothing. */
export interface PictureDifference {
  mean: number
  largest: number
}

export function pictureDifference(a: FramePicture, b: FramePicture): PictureDifference {
  const [p, q] = [a.pixels, b.pixels]
  let sum = 0
  let largest = 0
  for (let i = 0; i < p.length; i += 4) {
    const alphaP = p[i + 3]!
    const alphaQ = q[i + 3]!
    if (alphaP === alphaQ && p[i] === q[i] && p[i + 1] === q[i + 1] && p[i + 2] === q[i + 2]) continue
    let most = Math.abs(alphaP - alphaQ)
    sum += most
    for (let c = i; c < i + 3; c++) {
      const by = Math.abs(p[c]! * alphaP - q[c]! * alphaQ) / 255
      sum += by
      if (by > most) most = by
    }
    if (most > largest) largest = most
  }
  return { mean: sum / Math.max(1, p.length), largest }
}

export interface RingDifference {
  /** Mean difference of each frame's picture to the next one's; the last is the step across the seam. */
  steps: number[]
  seam: number
  /** The largest step elsewhere, and the frame that it starts from. */
  largest: { step: number; frame: Frames }
  /** Whether the step across the seam is larger than any other by more than rounding. */
  shows: boolean
}

/** Less than this is dithering and rounding. */
const NOISE = 0.02

/** Reads the steps round the whole ring. Needs at least one frame. */
export function ringDifference(steps: readonly number[]): RingDifference {
  const seam = steps.at(-1)!
  const others = steps.slice(0, -1)
  const largest = others.reduce((most, step, frame) => (step > most.step ? { step, frame } : most), {
    step: 0,
    frame: 0,
  })
  return { steps: [...steps], seam, largest, shows: seam > largest.step * 1.25 + NOISE }
}
