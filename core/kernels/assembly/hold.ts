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
