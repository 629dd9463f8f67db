// Rows of luma and chromas, as codecs keep them, to RGB: ITU-R BT.709-6 §3.

@inline
function valueAt(p: usize, i: usize, wide: bool): f32 {
  return wide ? <f32>load<u16>(p + (i << 1)) : <f32>load<u8>(p + i)
}

/**
 * A row of planes as RGBA of f32, 0–1. `cb` and `cr` are 0 where there is luma alone, `a` where all is solid. `shared`: pixels that
 * share a chroma, as a power of two. (value − zero) · scale is luma, (value − middle) · chromaScale a chroma, value · top alpha.
 */
export function planeRow(
  y: usize, cb: usize, cr: usize, a: usize, wide: bool, shared: usize, count: usize, dst: usize,
  zero: f32, scale: f32, middle: f32, chromaScale: f32, top: f32,
): void {
  let b: f32 = 0, r: f32 = 0
  for (let x: usize = 0; x < count; x++, dst += 16) {
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
