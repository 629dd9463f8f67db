import { toDisplay, toLinear } from '../../../core/values/oklab'
import type { SeenPicture } from '../encoders/encoder'

// What was done to the pixels of a frame: the picture that was meant is changed in each way in which other programs are known to change
// one, and the one that comes nearest to what was read is told.

/** RGBA of a row, 0–1. Another row may be asked for; what is outside is clear. */
type RowOf = (y: number) => Float32Array

interface Way {
  words: string
  /** The row as it would be; `meant` is not to be changed. */
  row(meant: RowOf, y: number, size: { width: number; height: number }): Float32Array
}

/** Each pixel by itself: changes RGBA at a place. */
const each = (words: string, change: (pixel: Float32Array, at: number) => void): Way => ({
  words,
  row(meant, y) {
    const row = meant(y).slice()
    for (let at = 0; at < row.length; at += 4) change(row, at)
    return row
  },
})

const colours = (words: string, change: (value: number, alpha: number) => number): Way =>
  each(words, (row, at) => {
    for (let c = at; c < at + 3; c++) row[c] = change(row[c]!, row[at + 3]!)
  })

const alpha = (words: string, change: (alpha: number) => number): Way =>
  each(words, (row, at) => (row[at + 3] = change(row[at + 3]!)))

/** The parts of red and blue in luma: ITU-R BT.709-6 §3.2, ITU-R BT.601-7 §2.5.1. */
const BT709 = [0.2126, 0.0722] as const
const BT601 = [0.299, 0.114] as const
type Matrix = readonly [red: number, blue: number]

/** Luma and chromas by one matrix, changed, and back by another. */
function throughLuma(words: string, to: Matrix, from: Matrix, luma = (y: number) => y, chroma = 1): Way {
  return each(words, (row, at) => {
    const [r, g, b] = [row[at]!, row[at + 1]!, row[at + 2]!]
    const y = to[0] * r + (1 - to[0] - to[1]) * g + to[1] * b
    const cb = ((b - y) / (2 * (1 - to[1]))) * chroma
    const cr = ((r - y) / (2 * (1 - to[0]))) * chroma
    const now = luma(y)
    const [red, blue] = [now + 2 * (1 - from[0]) * cr, now + 2 * (1 - from[1]) * cb]
    row[at] = red
    row[at + 1] = (now - from[0] * red - from[1] * blue) / (1 - from[0] - from[1])
    row[at + 2] = blue
  })
}

const shifted = (words: string, across: number, down: number): Way => ({
  words: `the picture is shifted by a pixel ${words}`,
  row(meant, y) {
    const from = meant(y - down)
    const row = new Float32Array(from.length)
    const by = across * 4
    row.set(from.subarray(Math.max(0, -by), from.length - Math.max(0, by)), Math.max(0, by))
    return row
  },
})

const WAYS: readonly Way[] = [
  alpha('alpha is lost: all is solid', () => 1),
  alpha('alpha is inverted', (a) => 1 - a),
  alpha('alpha is only on or off', (a) => (a >= 0.5 ? 1 : 0)),
  colours('colours were multiplied by alpha once more', (value, a) => value * a),
  colours('colours were divided by alpha, though they should not be', (value, a) =>
    a > 0 ? Math.min(1, value / a) : 0,
  ),
  each('red and blue have changed places', (row, at) => {
    const red = row[at]!
    row[at] = row[at + 2]!
    row[at + 2] = red
  }),
  colours('light was taken from display to linear', toLinear),
  colours('light was taken from linear to display', toDisplay),
  throughLuma('it was written by the matrix of BT.601 and is read by that of BT.709', BT601, BT709),
  throughLuma('it was written by the matrix of BT.709 and is read by that of BT.601', BT709, BT601),
  throughLuma(
    'it was written in full levels and is read in video levels',
    BT709,
    BT709,
    (y) => (y * 255 - 16) / 219,
    255 / 224,
  ),
  throughLuma(
    'it was written in video levels and is read in full levels',
    BT709,
    BT709,
    (y) => (y * 219 + 16) / 255,
    224 / 255,
  ),
  shifted('to the right', 1, 0),
  shifted('to the left', -1, 0),
  shifted('down', 0, 1),
  shifted('up', 0, -1),
  { words: 'the picture stands upside down', row: (meant, y, { height }) => meant(height - 1 - y) },
  {
    words: 'left and right have changed sides',
    row(meant, y) {
      const from = meant(y)
      const row = new Float32Array(from.length)
      for (let at = 0; at < row.length; at += 4) row.set(from.subarray(row.length - at - 4, row.length - at), at)
      return row
    },
  },
]

/** Rows that are looked at. */
const ROWS = 180
/** A way is told where what it leaves over is less than this part of the whole difference. */
const EXPLAINED = 0.35

/** How a picture that was read came from what was meant; null where no known way does. */
export function pixelCause(meant: SeenPicture, found: SeenPicture, width: number, height: number): string | null {
  const size = { width, height }
  const clear = new Float32Array(width * 4)
  const rowOf: RowOf = (y) => (y < 0 || y >= height ? clear : meant.row(y, 0, width).slice())
  const step = Math.max(1, Math.floor(height / ROWS))
  const apart = new Float64Array(WAYS.length + 1)
  for (let y = 0; y < height; y += step) {
    const read = found.row(y, 0, width).slice()
    apart[WAYS.length]! += rowsApart(rowOf(y), read)
    for (const [i, way] of WAYS.entries()) apart[i]! += rowsApart(way.row(rowOf, y, size), read)
  }
  let best = -1
  let least = apart[WAYS.length]! * EXPLAINED
  for (let i = 0; i < WAYS.length; i++) {
    if (apart[i]! < least) {
      least = apart[i]!
      best = i
    }
  }
  return best < 0 ? null : WAYS[best]!.words
}

/** The sum of differences: of alpha everywhere, of colours where there is any. */
function rowsApart(a: Float32Array, b: Float32Array): number {
  let sum = 0
  for (let at = 0; at < a.length; at += 4) {
    sum += 3 * Math.abs(a[at + 3]! - b[at + 3]!)
    if (a[at + 3] === 0) continue
    sum += Math.abs(a[at]! - b[at]!) + Math.abs(a[at + 1]! - b[at + 1]!) + Math.abs(a[at + 2]! - b[at + 2]!)
  }
  return sum
}
