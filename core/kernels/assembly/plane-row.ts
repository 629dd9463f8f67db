// Rows of luma and chromas, as codecs keep them, to RGB: ITU-R BT.709-6 §3.

@inline
function valueAt(p: usize, i: usize, wide: bool): f32 {
  return wide ? <f32>load<u16>(p + (i << 1)) : <f32>load<u8>(p + i)
}

/** Four values in a row. */
@inline
function fourAt(p: usize, i: usize, wide: bool): v128 {
  return f32x4.convert_i32x4_u(
    wide
      ? v128.load16x4_u(p + (i << 1))
      : i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p + i))),
  )
}

/** The chromas of four pixels. */
@inline
function chromasAt(p: usize, x: usize, shared: usize, wide: bool): v128 {
  if (shared == 0) return fourAt(p, x, wide)
  const first = valueAt(p, x >> shared, wide)
  const second = valueAt(p, (x + 2) >> shared, wide)
  return f32x4(first, first, second, second)
}

/**
 * A row of planes as RGBA of f32, 0–1. `cb` and `cr` are 0 where there is luma alone, `a` where all is solid. `shared`: pixels that
 * share a chroma, as a power of two: 0 or 1. (value − zero) · scale is luma, (value − middle) · chromaScale a chroma, value · top alpha.
 */
export function planeRow(
  y: usize, cb: usize, cr: usize, a: usize, wide: bool, shared: usize, count: usize, dst: usize,
  zero: f32, scale: f32, middle: f32, chromaScale: f32, top: f32,
): void {
  const zeros = f32x4.splat(zero), scales = f32x4.splat(scale)
  const middles = f32x4.splat(middle), chromaScales = f32x4.splat(chromaScale)
  const fours = count & ~3
  let b4 = f32x4.splat(0), r4 = f32x4.splat(0), alpha = f32x4.splat(1)
  for (let x: usize = 0; x < fours; x += 4, dst += 64) {
    const luma = f32x4.mul(f32x4.sub(fourAt(y, x, wide), zeros), scales)
    if (cb != 0) {
      b4 = f32x4.mul(f32x4.sub(chromasAt(cb, x, shared, wide), middles), chromaScales)
      r4 = f32x4.mul(f32x4.sub(chromasAt(cr, x, shared, wide), middles), chromaScales)
    }
    if (a != 0) alpha = f32x4.mul(fourAt(a, x, wide), f32x4.splat(top))
    const red = f32x4.add(luma, f32x4.mul(f32x4.splat(1.5748), r4))
    const green = f32x4.sub(
      f32x4.sub(luma, f32x4.mul(f32x4.splat(0.1873), b4)),
      f32x4.mul(f32x4.splat(0.4681), r4),
    )
    const blue = f32x4.add(luma, f32x4.mul(f32x4.splat(1.8556), b4))
    const rg = v128.shuffle<f32>(red, green, 0, 4, 1, 5), ba = v128.shuffle<f32>(blue, alpha, 0, 4, 1, 5)
    const rgHigh = v128.shuffle<f32>(red, green, 2, 6, 3, 7), baHigh = v128.shuffle<f32>(blue, alpha, 2, 6, 3, 7)
    v128.store(dst, i64x2.shuffle(rg, ba, 0, 2))
    v128.store(dst, i64x2.shuffle(rg, ba, 1, 3), 16)
    v128.store(dst, i64x2.shuffle(rgHigh, baHigh, 0, 2), 32)
    v128.store(dst, i64x2.shuffle(rgHigh, baHigh, 1, 3), 48)
  }
  let b: f32 = 0, r: f32 = 0
  for (let x = fours; x < count; x++, dst += 16) {
    const luma = (valueAt(y, x, wide) - zero) * scale
    if (cb != 0) {
      b = (valueAt(cb, x >> shared, wide) - middle) * chromaScale
      r = (valueAt(cr, x >> shared, wide) - middle) * chromaScale
    }
    store<f32>(dst, luma + <f32>1.5748 * r)
    store<f32>(dst + 4, luma - <f32>0.1873 * b - <f32>0.4681 * r)
    store<f32>(dst + 8, luma + <f32>1.8556 * b)
    store<f32>(dst + 12, a != 0 ? valueAt(a, x, wide) * top : <f32>1)
  }
}
