// WCAG 2.2, 2.3.1 "three flashes or below threshold". A general flash is a pair of opposing changes of relative luminance of a
// tenth or more of the most there is, the darker picture being below 0.80; a red flash a pair of opposing changes that involve a
// saturated red. They count where they happen together over more than a quarter of any field of 10 degrees: 341 × 256 px of a
// screen of 1024 × 768.

/** What of a picture is kept: for each of its cells the relative luminance, and how red it is. */
export interface FlashPicture {
  luminance: Float32Array
  /** (R − G − B) · 320 of linear light where R / (R + G + B) ≥ 0.8, else 0: "red flash" of WCAG 2.2 as of its working definition. */
  red: Float32Array
}

const GENERAL = 0.1
const DARKER = 0.8
const RED = 20
/** A quarter of 341 × 256 px of 1024 × 768. */
export const FLASH_AREA = (341 * 256) / 4 / (1024 * 768)

export interface Flashes {
  /** The most flashes within a second, general and red. */
  general: number
  red: number
  /** The frame at which the second with the most of either begins. */
  from: number
  /** Mean relative luminance of every picture, and whether enough of it grew brighter (1), darker (−1) or both in two places (2) to count. */
  luminance: number[]
  changes: number[]
}

const isGeneral = (from: number, to: number) => Math.abs(to - from) >= GENERAL && Math.min(from, to) < DARKER
const isRed = (from: number, to: number) => Math.abs(to - from) > RED

/**
 * The most flashes in any second of a run of pictures of cells. A change counts for a frame where more than FLASH_AREA of all cells
 * make one of the same direction with it; two opposing ones are a flash. `perSecond`: frames a second. `goesRound`: after the last picture
 * comes the first one again, so that a second may hold the seam, or a short loop several times.
 */
export function flashesIn(pictures: readonly FlashPicture[], perSecond: number, goesRound = false): Flashes {
  const second = Math.max(1, Math.round(perSecond))
  const count = pictures.length
  // Once before, for what the first pictures come after; then as far as a second reaches from the last one.
  const rounds = goesRound && count > 0 ? 2 + Math.ceil(second / count) : 1
  const run = Array.from({ length: rounds * count }, (_, i) => pictures[i % count]!)
  const begin = goesRound ? count : 0
  const [generals, reds] = [changesOf(run, 'luminance', isGeneral), changesOf(run, 'red', isRed)]
  const [general, red] = [generals, reds].map((all) => all.slice(begin, begin + count)) as [number[], number[]]
  const result: Flashes = {
    ...{ general: 0, red: 0, from: 0 },
    luminance: pictures.map(({ luminance }) => mean(luminance)),
    changes: general.map((change, i) => change || red[i]!),
  }
  for (let from = 0; from < count; from++) {
    const inSecond = (changes: readonly number[]) => pairsOf(changes.slice(begin + from, begin + from + second))
    const [here, redHere] = [inSecond(generals), inSecond(reds)]
    if (Math.max(here, redHere) > Math.max(result.general, result.red)) result.from = from
    result.general = Math.max(result.general, here)
    result.red = Math.max(result.red, redHere)
  }
  return result
}

function mean(values: Float32Array): number {
  let sum = 0
  for (const value of values) sum += value
  return sum / Math.max(1, values.length)
}

/**
 * For every picture 1 or −1 where enough of it changes that way, 2 where enough does either in two places, else 0. A cell changes at each turning point that is far enough from
 * the one before it; `flashes` tells whether two values are.
 */
function changesOf(
  pictures: readonly FlashPicture[],
  of: keyof FlashPicture,
  flashes: (from: number, to: number) => boolean,
): number[] {
  const [first] = pictures
  if (!first) return []
  const turned = first[of].slice()
  const directions = new Int8Array(turned.length)
  return pictures.map((picture) => {
    const values = picture[of]
    let [up, down] = [0, 0]
    for (let i = 0; i < values.length; i++) {
      const [value, from] = [values[i]!, turned[i]!]
      if (value === from) continue
      const direction = value > from ? 1 : -1
      if (direction !== directions[i]) {
        if (!flashes(from, value)) continue
        directions[i] = direction
        if (direction > 0) up++
        else down++
      }
      turned[i] = value
    }
    const [isUp, isDown] = [up / turned.length > FLASH_AREA, down / turned.length > FLASH_AREA]
    return isUp && isDown ? 2 : isUp ? 1 : isDown ? -1 : 0
  })
}

/** How many opposing pairs a run of changes has: each change after one of the other direction is half a flash. */
function pairsOf(changes: readonly number[]): number {
  let [last, turns] = [0, 0]
  for (const change of changes) {
    if (change === 0 || change === last) continue
    turns++
    // Two places that change against each other: in each of them it is a turn.
    last = change === 2 ? -(last || 1) : change
  }
  return Math.floor(turns / 2)
}
