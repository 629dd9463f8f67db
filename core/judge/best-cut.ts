import type { Frames } from '../units'

// Where a sequence of pictures repeats itself: the distance of every frame to every other, the periods found in it, and the cut
// whose end leads into its beginning with the least difference.

/** A frame as it is compared: premultiplied luma and alpha of a few pixels, 0–255, all frames of one size. */
export interface SmallFrame {
  luma: Uint8Array
  alpha: Uint8Array
}

/** Frames that are compared at the most: the work and the map grow with their square. */
export const MOST_COMPARED = 3000
/** The shortest cut: what is shorter is a still. */
export const LEAST_CUT: Frames = 2
/** A valley of the differences that goes down so far from their middle to their least is a period too. */
const DEEP = 0.75

/** Frames compared with each other. */
export interface FrameDistances {
  count: number
  /** Root of the mean square difference of frames i and j, 0–255, at i · count + j. */
  values: Float32Array
}

/** The distance of every frame to every other one; O(n² · pixels). */
export function distancesOf(frames: readonly SmallFrame[]): FrameDistances {
  const count = frames.length
  const values = new Float32Array(count * count)
  for (let i = 0; i < count; i++) {
    for (let j = i + 1; j < count; j++) {
      const d = distance(frames[i]!, frames[j]!)
      values[i * count + j] = d
      values[j * count + i] = d
    }
  }
  return { count, values }
}

function distance(a: SmallFrame, b: SmallFrame): number {
  let sum = 0
  for (let i = 0; i < a.luma.length; i++) {
    const [l, t] = [a.luma[i]! - b.luma[i]!, a.alpha[i]! - b.alpha[i]!]
    sum += l * l + t * t
  }
  return Math.sqrt(sum / (2 * Math.max(1, a.luma.length)))
}

/** A length after which a sequence looks like itself again. */
export interface Period {
  length: Frames
  /** Mean distance of frames that far apart. */
  difference: number
}

/** A cut [in, out) to be played again and again. */
export interface Cut {
  in: Frames
  out: Frames
  /** The step across its seam, from frame out − 1 to frame in. */
  seam: number
  /** The usual step from frame to frame within it: the middle one. */
  step: number
  /** Whether the seam is a larger step than any within, by more than a quarter. */
  shows: boolean
}

export interface BestCut {
  frames: Frames
  /** The shortest first; none where nothing repeats. */
  periods: Period[]
  best: Cut
  /** The best cut of each period found, in their order. */
  others: Cut[]
}

const at = ({ count, values }: FrameDistances, i: number, j: number) => values[i * count + j]!

/** Mean distance of frames that lie so many apart, for 1 … count − 1. */
export function differencesByLag(distances: FrameDistances): number[] {
  const { count } = distances
  return Array.from({ length: Math.max(0, count - 1) }, (_, k) => {
    const lag = k + 1
    let sum = 0
    for (let i = 0; i + lag < count; i++) sum += at(distances, i, i + lag)
    return sum / (count - lag)
  })
}

/** Lengths at which the mean difference has a deep valley. Of a sequence that repeats p long, p and its multiples. */
export function periodsOf(distances: FrameDistances): Period[] {
  const by = differencesByLag(distances)
  // Of very long distances only a few pairs are left: too few to tell.
  const told = by.slice(0, Math.max(1, Math.floor(distances.count * 0.75)))
  const inOrder = [...told].sort((a, b) => a - b)
  const [least, middle] = [inOrder[0] ?? 0, inOrder[inOrder.length >> 1] ?? 0]
  const level = middle - (middle - least) * DEEP
  return told.flatMap((difference, i): Period[] => {
    const lag = i + 1
    const [before, after] = [told[i - 1] ?? Infinity, told[i + 1] ?? Infinity]
    // The step to the next frame is no period, however small it is.
    const isValley = lag >= LEAST_CUT && i > 0 && difference <= before && difference < after
    return isValley && difference <= level && difference < by[0]! + (middle - by[0]!) * 0.5
      ? [{ length: lag, difference }]
      : []
  })
}

/** The cut of one length whose end is most like its beginning, neighbours on both sides included. */
function cutOf(distances: FrameDistances, length: Frames): Cut {
  const { count } = distances
  let best = 0
  let least = Infinity
  for (let from = 0; from + length <= count; from++) {
    const cost = costOf(distances, from, from + length)
    if (cost < least) [least, best] = [cost, from]
  }
  return cutAt(distances, best, best + length)
}

/** How unlike the frames around out are to those around in: where all are alike, value and speed go on. */
function costOf(distances: FrameDistances, from: Frames, to: Frames): number {
  const { count } = distances
  let sum = 0
  let pairs = 0
  for (const k of [-1, 0, 1]) {
    if (from + k < 0 || to + k >= count) continue
    sum += at(distances, from + k, to + k)
    pairs++
  }
  return pairs > 0 ? sum / pairs : Infinity
}

/** How a cut [from, to) of two frames at least repeats itself. */
export function cutAt(distances: FrameDistances, from: Frames, to: Frames): Cut {
  const steps = Array.from({ length: to - from - 1 }, (_, i) => at(distances, from + i, from + i + 1)).sort(
    (a, b) => a - b,
  )
  const seam = at(distances, to - 1, from)
  const largest = steps.at(-1) ?? 0
  return { in: from, out: to, seam, step: steps[steps.length >> 1] ?? 0, shows: stands(seam, largest) }
}

/**
 * The best cut of a sequence: of its shortest period where it has some; all of it where that is a loop; or else of at least half of
 * all frames. Needs two frames at least.
 */
export function bestCut(distances: FrameDistances): BestCut {
  const { count } = distances
  const periods = periodsOf(distances)
  const others = periods.map(({ length }) => cutOf(distances, length))
  const [first] = others
  return { frames: count, periods, best: first ?? loosest(distances), others }
}

/**
 * Whether a sequence leads from its last frame into its first as it does beside them. A cut from scene to scene elsewhere in it, which is a
 * larger step, hides no seam.
 */
function isLoop(distances: FrameDistances): boolean {
  const last = distances.count - 1
  const beside = Math.max(at(distances, 0, 1), at(distances, last - 1, last))
  return !stands(at(distances, last, 0), beside)
}

/** Whether a step is larger than others by more than a quarter. */
const stands = (step: number, others: number) => step > others * 1.25 + 0.5

/** Where nothing repeats: all that is a loop, or the longest cuts only, and of these the one whose seam is smallest. */
function loosest(distances: FrameDistances): Cut {
  const { count } = distances
  if (isLoop(distances)) return cutAt(distances, 0, count)
  const least = Math.max(LEAST_CUT, Math.ceil(count / 2))
  let best = { from: 0, to: count, cost: Infinity }
  for (let length = least; length < count; length++) {
    for (let from = 0; from + length < count; from++) {
      const cost = costOf(distances, from, from + length)
      if (cost < best.cost) best = { from, to: from + length, cost }
    }
  }
  return cutAt(distances, best.from, best.to)
}
