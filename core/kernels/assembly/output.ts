// The only place where pixels leave the engine: premultiplied f32 → straight or premultiplied RGBA, as dithered integers or
// as numbers.
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

/** A premultiplied colour is never more than its alpha, whatever the noise. */
@inline
function withinAlpha(q: v128): v128 {
  return i32x4.min_s(q, v128.shuffle<i32>(q, q, 3, 3, 3, 3))
}

/**
 * RGBA of 8 bits a channel of a window, straight or premultiplied; w is a multiple of 4, strides in bytes. (x0, y0) is its
 * place in the noise.
 */
export function whole8(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, tile: usize,
  premultiplied: bool,
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
        const k = premultiplied ? top : f32x4.div(top, f32x4.pmax(alpha, tiny))
        let q0 = quantise(p0, v128.shuffle<f32>(k, k, 0, 0, 0, 0), v128.load(n), 255)
        let q1 = quantise(p1, v128.shuffle<f32>(k, k, 1, 1, 1, 1), v128.load(n, 16), 255)
        let q2 = quantise(p2, v128.shuffle<f32>(k, k, 2, 2, 2, 2), v128.load(n, 32), 255)
        let q3 = quantise(p3, v128.shuffle<f32>(k, k, 3, 3, 3, 3), v128.load(n, 48), 255)
        if (premultiplied) {
          q0 = withinAlpha(q0)
          q1 = withinAlpha(q1)
          q2 = withinAlpha(q2)
          q3 = withinAlpha(q3)
        }
        const bytes = i8x16.narrow_i16x8_u(i16x8.narrow_i32x4_s(q0, q1), i16x8.narrow_i32x4_s(q2, q3))
        v128.store(d, unlessEmpty(bytes, alpha))
      }
      s += 64
      d += 16
    }
  }
}

/** As whole8, with 16 bits a channel (little-endian). */
export function whole16(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, tile: usize,
  premultiplied: bool,
): void {
  const top = f32x4.splat(65535), tiny = f32x4.splat(1e-9)
  for (let y = 0; y < h; y++) {
    const noiseRow = tile + (<usize>((y + y0) & (TILE - 1)) * TILE << 4)
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    for (let x = x0; x < x0 + w; x += 2) {
      const n = noiseRow + (<usize>(x & (TILE - 1)) << 4)
      const p0 = v128.load(s), p1 = v128.load(s, 16)
      const a0 = v128.shuffle<f32>(p0, p0, 3, 3, 3, 3), a1 = v128.shuffle<f32>(p1, p1, 3, 3, 3, 3)
      const k0 = premultiplied ? top : f32x4.div(top, f32x4.pmax(a0, tiny))
      const k1 = premultiplied ? top : f32x4.div(top, f32x4.pmax(a1, tiny))
      let q0 = quantise(p0, k0, v128.load(n), 65535), q1 = quantise(p1, k1, v128.load(n, 16), 65535)
      if (premultiplied) {
        q0 = withinAlpha(q0)
        q1 = withinAlpha(q1)
      }
      v128.store(d, i16x8.narrow_i32x4_u(unlessEmpty(q0, a0), unlessEmpty(q1, a1)))
      s += 32
      d += 16
    }
  }
}

/** As whole8, as 32-bit numbers: nothing is dithered; alpha and straight colours are cut to 0–1, as integers are. */
export function numbers32(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, premultiplied: bool,
): void {
  const one = f32x4.splat(1), zero = f32x4.splat(0)
  for (let y = 0; y < h; y++) {
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++, s += 16, d += 16) {
      const p = v128.load(s)
      const alpha = f32x4.extract_lane(p, 3)
      if (alpha <= 0) {
        v128.store(d, zero)
        continue
      }
      const whole = min<f32>(alpha, 1)
      const straight = f32x4.pmin(one, f32x4.pmax(zero, f32x4.div(p, f32x4.splat(alpha))))
      const colour = premultiplied ? f32x4.mul(straight, f32x4.splat(whole)) : straight
      v128.store(d, f32x4.replace_lane(colour, 3, whole))
    }
  }
}

/** As numbers32, as 16-bit numbers (IEEE 754 binary16), rounded to the nearest, to even between two. `room` holds a row. */
export function numbers16(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, premultiplied: bool, room: usize,
): void {
  for (let y = 0; y < h; y++) {
    const row = dst + <usize>y * dstStride
    numbers32(src + <usize>y * srcStride, 0, room, 0, w, 1, premultiplied)
    for (let i = 0; i < w * 4; i++) store<u16>(row + (<usize>i << 1), half(load<f32>(room + (<usize>i << 2))))
  }
}

/** A number of 0–1 as binary16. */
@inline
function half(value: f32): u16 {
  // Below 2⁻¹⁴ the step is 2⁻²⁴ everywhere: adding 2⁻¹ leaves no room for less.
  if (value < 0.00006103515625) return <u16>(reinterpret<u32>(value + 0.5) - 0x3f000000)
  const bits = reinterpret<u32>(value)
  return <u16>((bits - 0x38000000 + 0xfff + (bits >> 13 & 1)) >> 13)
}
