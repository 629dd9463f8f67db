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
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, columns: usize,
): void {
  if (b == 0 && c == 0 && a > 0) {
    addUprightNoise(dst, w, h, x0, y0, table, weight, seed, a, d, e, f, columns)
    return
  }
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

/**
 * The same where the lattice stands upright. Along a row within one cell the noise is two straight lines mixed by the fade, both of
 * which are the same for all rows: four pixels are computed at once. columns: 8 · w + 16 bytes.
 */
function addUprightNoise(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, table: usize, weight: f32, seed: u32,
  a: f64, d: f64, e: f64, f: f64, columns: usize,
): void {
  const fades = columns + (<usize>(w + 2) << 2)
  for (let x = 0; x < w; x++) {
    const u = a * (<f64>(x + x0) + 0.5) + e
    const s = <f32>(u - floor(u))
    store<f32>(columns + (<usize>x << 2), s)
    store<f32>(fades + (<usize>x << 2), faded(s))
  }
  const first = <i32>floor(a * (<f64>x0 + 0.5) + e)
  for (let y = 0; y < h; y++, dst += <usize>w << 2) {
    const v = d * (<f64>(y + y0) + 0.5) + f
    const fv = floor(v)
    const iv = <i32>fv
    const t = <f32>(v - fv), t1: f32 = t - 1
    const kt = faded(t), rest: f32 = <f32>1 - kt
    let cell = first
    let x = 0
    // The line from the left side of a cell: value + slope · s; and, as seen from there, that from its right side.
    let p00 = table + (direction(cell, iv, seed) << 3), p01 = table + (direction(cell, iv + 1, seed) << 3)
    let slope: f32 = rest * load<f32>(p00) + kt * load<f32>(p01)
    let value: f32 = rest * load<f32>(p00, 4) * t + kt * load<f32>(p01, 4) * t1
    while (x < w) {
      // The pixels whose centres lie in this cell.
      let end = <i32>ceil((<f64>(cell + 1) - e) / a - 0.5) - x0
      while (end > x && floor(a * (<f64>(end - 1 + x0) + 0.5) + e) > <f64>cell) end--
      while (end < w && floor(a * (<f64>(end + x0) + 0.5) + e) <= <f64>cell) end++
      end = min(end, w)
      p00 = table + (direction(cell + 1, iv, seed) << 3)
      p01 = table + (direction(cell + 1, iv + 1, seed) << 3)
      const nextSlope: f32 = rest * load<f32>(p00) + kt * load<f32>(p01)
      const nextValue: f32 = rest * load<f32>(p00, 4) * t + kt * load<f32>(p01, 4) * t1
      const v0 = f32x4.splat(value), s0 = f32x4.splat(slope)
      const v1 = f32x4.splat(nextValue - nextSlope), s1 = f32x4.splat(nextSlope), k = f32x4.splat(weight)
      for (; x + 4 <= end; x += 4) {
        const at: usize = <usize>x << 2
        const s = v128.load(columns + at)
        const left = f32x4.add(v0, f32x4.mul(s0, s)), right = f32x4.add(v1, f32x4.mul(s1, s))
        const mixed = f32x4.add(left, f32x4.mul(v128.load(fades + at), f32x4.sub(right, left)))
        v128.store(dst + at, f32x4.add(v128.load(dst + at), f32x4.mul(k, mixed)))
      }
      for (; x < end; x++) {
        const at: usize = <usize>x << 2
        const s = load<f32>(columns + at)
        const left: f32 = value + slope * s, right: f32 = (nextValue - nextSlope) + nextSlope * s
        store<f32>(dst + at, load<f32>(dst + at) + weight * (left + load<f32>(fades + at) * (right - left)))
      }
      slope = nextSlope
      value = nextValue
      cell++
    }
  }
}
