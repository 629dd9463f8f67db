// The only place where float pixels become integers: premultiplied f32 → straight RGBA, dithered.
// Noise is uniform in (−½, ½) of one step, the same for the same seed and place, so a value that needs no
// rounding is never changed and a still picture does not boil.

const TILE = 64

/** Fills a tile of 64 × 64 × RGBA floats with seeded noise (integer hash with two multiply-xorshift rounds). */
export function ditherTile(tile: usize, seed: u32): void {
  for (let i: u32 = 0; i < <u32>(TILE * TILE * 4); i++) {
    let x: u32 = i * 0x9e3779b1 ^ seed
    x ^= x >> 16
    x *= 0x7feb352d
    x ^= x >> 15
    x *= 0x846ca68b
    x ^= x >> 16
    // 24 bits, centred: never exactly ±½.
    store<f32>(tile + (<usize>i << 2), (<f32>(x >> 8) + <f32>0.5) * <f32>(1.0 / 16777216.0) - <f32>0.5)
  }
}

/** 2²³: a float of this size has no room for a fraction, so adding it rounds to the nearest integer. */
const ROUNDING: f32 = 8388608

/**
 * One pixel, premultiplied, at full scale: `factor` makes it straight, alpha itself keeps `top`. Whole alpha stays
 * whole: noise below one step cannot move an exact integer. What lies outside the range is cut by the narrowing.
 */
@inline
function quantise(p: v128, factor: v128, noise: v128, top: f32): v128 {
  const scaled = f32x4.add(f32x4.mul(p, f32x4.replace_lane(factor, 3, top)), noise)
  const magic = f32x4.splat(ROUNDING)
  return i32x4.sub(f32x4.add(scaled, magic), magic)
}

/** An empty pixel stays empty, whatever the noise. */
@inline
function unlessEmpty(v: v128, alpha: v128): v128 {
  return v128.and(v, f32x4.gt(alpha, f32x4.splat(0)))
}

/** Straight RGBA of a window; w is a multiple of 4, strides in bytes. (x0, y0) is its place in the noise. */
export function straight8(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, tile: usize,
): void {
  const top = f32x4.splat(255), tiny = f32x4.splat(1e-9)
  for (let y = 0; y < h; y++) {
    const noiseRow = tile + (<usize>((y + y0) & (TILE - 1)) * TILE << 4)
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    for (let x = x0; x < x0 + w; x += 4) {
      const p0 = v128.load(s), p1 = v128.load(s, 16), p2 = v128.load(s, 32), p3 = v128.load(s, 48)
      if (!v128.any_true(v128.or(v128.or(p0, p1), v128.or(p2, p3)))) {
        v128.store(d, i32x4.splat(0))
      } else {
        const n = noiseRow + (<usize>(x & (TILE - 1)) << 4)
        const a01 = v128.shuffle<f32>(p0, p1, 3, 7, 3, 7), a23 = v128.shuffle<f32>(p2, p3, 3, 7, 3, 7)
        const alpha = v128.shuffle<f32>(a01, a23, 0, 1, 4, 5)
        const k = f32x4.div(top, f32x4.pmax(alpha, tiny))
        const q0 = quantise(p0, v128.shuffle<f32>(k, k, 0, 0, 0, 0), v128.load(n), 255)
        const q1 = quantise(p1, v128.shuffle<f32>(k, k, 1, 1, 1, 1), v128.load(n, 16), 255)
        const q2 = quantise(p2, v128.shuffle<f32>(k, k, 2, 2, 2, 2), v128.load(n, 32), 255)
        const q3 = quantise(p3, v128.shuffle<f32>(k, k, 3, 3, 3, 3), v128.load(n, 48), 255)
        const bytes = i8x16.narrow_i16x8_u(i16x8.narrow_i32x4_s(q0, q1), i16x8.narrow_i32x4_s(q2, q3))
        v128.store(d, unlessEmpty(bytes, alpha))
      }
      s += 64
      d += 16
    }
  }
}

/** As straight8, with 16 bits a channel (little-endian). */
export function straight16(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, tile: usize,
): void {
  for (let y = 0; y < h; y++) {
    const noiseRow = tile + (<usize>((y + y0) & (TILE - 1)) * TILE << 4)
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    for (let x = x0; x < x0 + w; x += 2) {
      const n = noiseRow + (<usize>(x & (TILE - 1)) << 4)
      const p0 = v128.load(s), p1 = v128.load(s, 16)
      const a0 = v128.shuffle<f32>(p0, p0, 3, 3, 3, 3), a1 = v128.shuffle<f32>(p1, p1, 3, 3, 3, 3)
      const top = f32x4.splat(65535), tiny = f32x4.splat(1e-9)
      const q0 = unlessEmpty(quantise(p0, f32x4.div(top, f32x4.pmax(a0, tiny)), v128.load(n), 65535), a0)
      const q1 = unlessEmpty(quantise(p1, f32x4.div(top, f32x4.pmax(a1, tiny)), v128.load(n, 16), 65535), a1)
      v128.store(d, i16x8.narrow_i32x4_u(q0, q1))
      s += 32
      d += 16
    }
  }
}
