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

@inline
function quantise(p: v128, noise: v128, top: f32): v128 {
  const a: f32 = min<f32>(1, max<f32>(0, f32x4.extract_lane(p, 3)))
  if (a == 0) return i32x4.splat(0)
  const k: f32 = top / a
  const scaled = f32x4.replace_lane(f32x4.mul(p, f32x4.splat(k)), 3, a * top)
  // Whole alpha stays whole: noise below one step cannot move an exact integer.
  const v = f32x4.add(f32x4.add(scaled, noise), f32x4.splat(0.5))
  return i32x4.trunc_sat_f32x4_u(f32x4.pmin(f32x4.splat(top), f32x4.pmax(f32x4.splat(0), v)))
}

/** w is a multiple of 4. dst: w·h·4 bytes. */
export function straight8(src: usize, dst: usize, w: i32, h: i32, tile: usize): void {
  for (let y = 0; y < h; y++) {
    const noiseRow = tile + (<usize>(y & (TILE - 1)) * TILE << 4)
    for (let x = 0; x < w; x += 4) {
      const p0 = v128.load(src), p1 = v128.load(src, 16), p2 = v128.load(src, 32), p3 = v128.load(src, 48)
      if (!v128.any_true(v128.or(v128.or(p0, p1), v128.or(p2, p3)))) {
        v128.store(dst, i32x4.splat(0))
      } else {
        const n = noiseRow + (<usize>(x & (TILE - 1)) << 4)
        v128.store(dst, i8x16.narrow_i16x8_u(
          i16x8.narrow_i32x4_s(quantise(p0, v128.load(n), 255), quantise(p1, v128.load(n, 16), 255)),
          i16x8.narrow_i32x4_s(quantise(p2, v128.load(n, 32), 255), quantise(p3, v128.load(n, 48), 255)),
        ))
      }
      src += 64
      dst += 16
    }
  }
}

/** As straight8, with 16 bits a channel (little-endian). dst: w·h·8 bytes. */
export function straight16(src: usize, dst: usize, w: i32, h: i32, tile: usize): void {
  for (let y = 0; y < h; y++) {
    const noiseRow = tile + (<usize>(y & (TILE - 1)) * TILE << 4)
    for (let x = 0; x < w; x += 2) {
      const n = noiseRow + (<usize>(x & (TILE - 1)) << 4)
      v128.store(dst, i16x8.narrow_i32x4_u(
        quantise(v128.load(src), v128.load(n), 65535), quantise(v128.load(src, 16), v128.load(n, 16), 65535),
      ))
      src += 32
      dst += 16
    }
  }
}
