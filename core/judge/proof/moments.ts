import type { FlashPicture } from '../measures/flashes'
import type { Frames, Rect } from '../../units'

// Which frames of the hold are looked at in full size: its first one, then again and again the one that differs most from all that
// were chosen. A hold that stands still has one moment; a bar that passes behind a letter for three frames has one of its own.

/** Frames that are chosen because of the words, and because of anything. */
const OF_WORDS = 3
const OF_ALL = 2
/** Side of the cells that are compared, in px of the small pictures. */
const CELL = 4
/** Lightness by which a cell of a frame differs that is worth a look, of 1. */
const DIFFERS = 0.03

/** A small picture of a frame. */
export interface SmallPicture extends FlashPicture {
  width: number
  height: number
  /** Where type stands, in px of that picture. */
  type: readonly Rect[]
}

/** Mean lightness of cells, and which of them have type in them. */
interface Cells {
  lightness: Float32Array
  hasType: Uint8Array
}

/** Frames, in their order, of pictures by frame from `from` on; the first one always. */
export function momentsOf(pictures: readonly SmallPicture[], from: Frames): Frames[] {
  const cells = pictures.map(cellsOf)
  const chosen = [0]
  choose(OF_WORDS, true)
  choose(OF_ALL, false)
  return chosen.sort((a, b) => a - b).map((i) => from + i)

  function choose(count: number, wordsOnly: boolean): void {
    const nearest = cells.map((one) => Math.min(...chosen.map((i) => apart(one, cells[i]!, wordsOnly))))
    for (let n = 0; n < count; n++) {
      const most = nearest.reduce((best, distance, i) => (distance > nearest[best]! ? i : best), 0)
      if (nearest[most]! < DIFFERS) return
      chosen.push(most)
      cells.forEach((one, i) => (nearest[i] = Math.min(nearest[i]!, apart(one, cells[most]!, wordsOnly))))
    }
  }
}

/** The largest difference of any cell. */
function apart(one: Cells, other: Cells, wordsOnly: boolean): number {
  let most = 0
  for (let i = 0; i < one.lightness.length; i++) {
    if (wordsOnly && one.hasType[i] === 0 && other.hasType[i] === 0) continue
    const difference = Math.abs(one.lightness[i]! - other.lightness[i]!)
    if (difference > most) most = difference
  }
  return most
}

function cellsOf({ width, height, luminance, type }: SmallPicture): Cells {
  const columns = Math.ceil(width / CELL)
  const lightness = new Float32Array(columns * Math.ceil(height / CELL))
  const hasType = new Uint8Array(lightness.length)
  for (let y = 0, i = 0; y < height; y++) {
    const row = Math.floor(y / CELL) * columns
    // About as the eye takes it.
    for (let x = 0; x < width; x++, i++) lightness[row + Math.floor(x / CELL)]! += Math.sqrt(luminance[i]!) / CELL ** 2
  }
  for (const { left, top, right, bottom } of type) {
    const last = { x: Math.min(width, right), y: Math.min(height, bottom) }
    for (let y = Math.max(0, Math.floor(top / CELL)); y * CELL < last.y; y++)
      for (let x = Math.max(0, Math.floor(left / CELL)); x * CELL < last.x; x++) hasType[y * columns + x] = 1
  }
  return { lightness, hasType }
}
