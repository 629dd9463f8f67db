// Gradient noise that flows: the gradients of its lattice turn (K. Perlin, F. Neyret, Flow Noise, 2001). Each turns by whole
// turns while the evolution does, in its own sense and at its own pace, so that the noise closes and never becomes its
// own negative.

/** Directions of gradients. Tables of so many (x, y) pairs are made for each octave. */
const DIRECTIONS = 256

@inline
function direction(x: i32, y: i32, seed: u32): usize {
  let v: u32 = <u32>x * 0x9e3779b1 ^ (<u32>y * 0x85ebca77 + seed)
  v ^= v >> 16
  v *= 0x7feb352d
  v ^= v >> 15
  v *= 0x846ca68b
  v ^= v >> 16
  return <usize>(v & (DIRECTIONS - 1))
}

/** 6t⁵ − 15t⁴ + 10t³ (K. Perlin, Improving Noise, 2002). */
@inline
function faded(t: f32): f32 {
  return t * t * t * (t * (t * <f32>6 - <f32>15) + <f32>10)
}

/**
 * Adds an octave of noise, about −0.7 to 0.7 times `weight`, at u = a·x + b·y + e, v = c·x + d·y + f of each pixel's centre, in
 * cells of the lattice. `table` holds DIRECTIONS gradients.
 */
export function addFlowNoise(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, table: usize, weight: f32, seed: u32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64,
): void {
  for (let y = 0; y < h; y++) {
    const py = <f64>(y + y0) + 0.5
    let cellX = i32.MIN_VALUE, cellY = i32.MIN_VALUE
    let x00: f32 = 0, y00: f32 = 0, x10: f32 = 0, y10: f32 = 0, x01: f32 = 0, y01: f32 = 0, x11: f32 = 0, y11: f32 = 0
    for (let x = 0; x < w; x++, dst += 4) {
      const px = <f64>(x + x0) + 0.5
      const u = a * px + b * py + e, v = c * px + d * py + f
      const fu = floor(u), fv = floor(v)
      const iu = <i32>fu, iv = <i32>fv
      if (iu != cellX || iv != cellY) {
        const p00 = table + (direction(iu, iv, seed) << 3), p10 = table + (direction(iu + 1, iv, seed) << 3)
        const p01 = table + (direction(iu, iv + 1, seed) << 3), p11 = table + (direction(iu + 1, iv + 1, seed) << 3)
        x00 = load<f32>(p00)
        y00 = load<f32>(p00, 4)
        x10 = load<f32>(p10)
        y10 = load<f32>(p10, 4)
        x01 = load<f32>(p01)
        y01 = load<f32>(p01, 4)
        x11 = load<f32>(p11)
        y11 = load<f32>(p11, 4)
        cellX = iu
        cellY = iv
      }
      const s = <f32>(u - fu), t = <f32>(v - fv)
      const s1: f32 = s - 1, t1: f32 = t - 1
      const ks = faded(s), kt = faded(t)
      const top: f32 = x00 * s + y00 * t + ks * (x10 * s1 + y10 * t - (x00 * s + y00 * t))
      const low: f32 = x01 * s + y01 * t1 + ks * (x11 * s1 + y11 * t1 - (x01 * s + y01 * t1))
      store<f32>(dst, load<f32>(dst) + weight * (top + kt * (low - top)))
    }
  }
}
