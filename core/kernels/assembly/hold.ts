// How far pixels of one picture are from those of another: what a delivered file is checked by.

/**
 * Holds a row of RGBA against another. `meant`: whole numbers of 8 or 16 bits, or f32 (`bits` 8, 16, 32), times `scale`. `found`: f32.
 * Writes into `sums` the largest difference of each channel, then their sums, f32: of alpha everywhere, of the colours where alpha is
 * meant. Gives the number of those pixels.
 */
export function holdRow(meant: usize, bits: i32, scale: f32, found: usize, count: i32, sums: usize): i32 {
  const factor = f32x4.splat(scale)
  const alphaAlone = i32x4(0, 0, 0, -1)
  let most = f32x4.splat(0), sum = f32x4.splat(0), inked = 0
  const step: usize = bits == 8 ? 4 : bits == 16 ? 8 : 16
  for (let i = 0; i < count; i++, meant += step, found += 16) {
    let value: v128
    if (bits == 8) {
      value = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(meant))))
    } else if (bits == 16) {
      value = f32x4.convert_i32x4_u(v128.load16x4_u(meant))
    } else value = v128.load(meant)
    let off = f32x4.abs(f32x4.sub(f32x4.mul(value, factor), v128.load(found)))
    if (f32x4.extract_lane(value, 3) == 0) off = v128.and(off, alphaAlone)
    else inked++
    most = f32x4.max(most, off)
    sum = f32x4.add(sum, off)
  }
  v128.store(sums, most)
  v128.store(sums + 16, sum)
  return inked
}

/** BT.709 (ITU-R BT.709-6 §3): the parts of red and blue in luma; what the chromas are divided by. */
const RED: f32 = 0.2126
const BLUE: f32 = 0.0722
const GREEN: f32 = 1 - RED - BLUE
const BLUE_SPAN: f32 = 2 * (1 - BLUE)
const RED_SPAN: f32 = 2 * (1 - RED)

/**
 * How far the colours of a row are moved where its luma and chromas are rounded to whole steps and nothing else is done: the sum over
 * red, green and blue of the pixels with alpha. `meant`, `bits` and `scale` as of `holdRow`; `lumas`, `chromas`: steps of 0–1.
 */
export function roundRow(meant: usize, bits: i32, scale: f32, count: i32, lumas: f32, chromas: f32): f32 {
  const step: usize = bits == 8 ? 4 : bits == 16 ? 8 : 16
  let sum: f32 = 0
  for (let i = 0; i < count; i++, meant += step) {
    if (channel(meant, bits, 3) == 0) continue
    const r = channel(meant, bits, 0) * scale
    const g = channel(meant, bits, 1) * scale
    const b = channel(meant, bits, 2) * scale
    const y = RED * r + GREEN * g + BLUE * b
    const luma = nearest(y * lumas) / lumas
    const cb = nearest(((b - y) / BLUE_SPAN) * chromas) / chromas
    const cr = nearest(((r - y) / RED_SPAN) * chromas) / chromas
    const red = luma + RED_SPAN * cr
    const blue = luma + BLUE_SPAN * cb
    sum += abs(red - r) + abs(blue - b) + abs((luma - RED * red - BLUE * blue) / GREEN - g)
  }
  return sum
}

// @ts-ignore: a decorator of the kernels' language.
@inline
function channel(pixel: usize, bits: i32, place: usize): f32 {
  if (bits == 8) return <f32>load<u8>(pixel + place)
  if (bits == 16) return <f32>load<u16>(pixel + (place << 1))
  return load<f32>(pixel + (place << 2))
}
