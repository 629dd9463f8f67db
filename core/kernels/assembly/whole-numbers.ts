// From floats to whole numbers, faster than by a conversion that looks after all that cannot be one.

/** Added to a number below 2²², it leaves its nearest whole number in the lowest bits. */
const ROUNDING: f32 = 12582912
const ROUNDING_BITS = 0x4b400000

/** The nearest whole numbers of four floats from 0 to 2²². */
@inline
export function whole(v: v128): v128 {
  return i32x4.sub(f32x4.add(v, f32x4.splat(ROUNDING)), i32x4.splat(ROUNDING_BITS))
}
