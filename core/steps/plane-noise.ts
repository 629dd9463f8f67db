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
    const turned = part * (k + 1)
    return { own: (seed + k * 0x9e37) >>> 0, c: cosDegrees(turned), s: sinDegrees(turned), grow: 2 ** k }
  })
  const sum = 2 - 2 ** (1 - whole)
  return (x, y) => {
    let value = 0
    for (const { own, c, s, grow } of fields) value += layer(x * grow, y * grow, own, c, s) / grow
    return value / sum
  }
}

function layer(x: number, y: number, seed: number, c: number, s: number): number {
  const [ix, iy] = [Math.floor(x), Math.floor(y)]
  const [fx, fy] = [x - ix, y - iy]
  const corner = (dx: number, dy: number) => {
    const row = Math.floor(hashed(iy + dy, seed) * 0x7fffffff)
    const [gx, gy] = TABLE[Math.floor(hashed(ix + dx, row) * DIRECTIONS)]!
    return (gx * c - gy * s) * (fx - dx) + (gx * s + gy * c) * (fy - dy)
  }
  const [u, v] = [fade(fx), fade(fy)]
  const top = corner(0, 0) + (corner(1, 0) - corner(0, 0)) * u
  const foot = corner(0, 1) + (corner(1, 1) - corner(0, 1)) * u
  return (top + (foot - top) * v) * HEIGHT
}
