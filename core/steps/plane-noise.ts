import { cosDegrees, sinDegrees } from '../kernels/exact'
import { hashed } from '../values/ring-noise'

// Noise over the plane from gradients on a grid, which may turn (K. Perlin, Improving Noise, 2002; K. Perlin & F. Neyret,
// Flow Noise, 2001). A whole turn brings it back; neighbouring fields are told apart by their seed.

const DIRECTIONS = 256
const TABLE = Array.from({ length: DIRECTIONS }, (_, i) => {
  const angle = (i * 360) / DIRECTIONS
  return [cosDegrees(angle), sinDegrees(angle)] as const
})

/** The largest value of unit gradients is √½, in the middle of a cell whose corners all point there. */
const HEIGHT = Math.SQRT2

const fade = (t: number) => t * t * t * (t * (t * 6 - 15) + 10)

/** Noise of several layers with values from −1 to 1, its mean 0. `turns`: how far its gradients have turned. */
export function planeNoise(seed: number, layers: number, turns = 0): (x: number, y: number) => number {
  const whole = Math.max(1, Math.round(layers))
  // Whole turns are none, to the bit.
  const part = (turns - Math.floor(turns)) * 360
  const fields = Array.from({ length: whole }, (_, k) => {
    // Finer layers flow faster, by whole factors: all come round together.
    return { layer: layerOf((seed + k * 0x9e37) >>> 0, part * (k + 1)), grow: 2 ** k }
  })
  const sum = 2 - 2 ** (1 - whole)
  return (x, y) => {
    let value = 0
    for (const { layer, grow } of fields) value += layer(x * grow, y * grow) / grow
    return value / sum
  }
}

/** One layer whose gradients have turned by so many degrees. Who asks along a line asks often in the same cell: it is kept. */
function layerOf(seed: number, degrees: number): (x: number, y: number) => number {
  const [c, s] = [cosDegrees(degrees), sinDegrees(degrees)]
  let [cellX, cellY] = [NaN, NaN]
  /** Gradients at the corners of the cell: above on the left and on the right, then below. */
  const slopes = new Float64Array(8)
  const enter = (ix: number, iy: number) => {
    for (let dy = 0; dy < 2; dy++) {
      const row = Math.floor(hashed(iy + dy, seed) * 0x7fffffff)
      for (let dx = 0; dx < 2; dx++) {
        const [gx, gy] = TABLE[Math.floor(hashed(ix + dx, row) * DIRECTIONS)]!
        slopes[dy * 4 + dx * 2] = gx * c - gy * s
        slopes[dy * 4 + dx * 2 + 1] = gx * s + gy * c
      }
    }
    cellX = ix
    cellY = iy
  }
  return (x, y) => {
    const [ix, iy] = [Math.floor(x), Math.floor(y)]
    if (ix !== cellX || iy !== cellY) enter(ix, iy)
    const [fx, fy] = [x - ix, y - iy]
    const [left, right] = [slopes[0]! * fx + slopes[1]! * fy, slopes[2]! * (fx - 1) + slopes[3]! * fy]
    const [leftBelow, rightBelow] = [
      slopes[4]! * fx + slopes[5]! * (fy - 1),
      slopes[6]! * (fx - 1) + slopes[7]! * (fy - 1),
    ]
    const [u, v] = [fade(fx), fade(fy)]
    const top = left + (right - left) * u
    const foot = leftBelow + (rightBelow - leftBelow) * u
    return (top + (foot - top) * v) * HEIGHT
  }
}
