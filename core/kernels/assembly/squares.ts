// How far the colours of four pixels together are from those of another picture, where all is even. Codecs that keep one colour for
// four pixels are right there; at an edge they cannot be.

/** Rows that are looked at for being even: the square's two, and two above and below. */
const ROWS: usize = 6
/** The square's first row among them. */
const OWN: usize = 2

/** Two pixels of RGBA as eight numbers of 16 bits. */
@inline
function pair(p: usize, wide: bool): v128 {
  return wide ? v128.load(p) : i16x8.extend_low_i8x16_u(v128.load64_zero(p))
}

@inline
function sumOf(two: v128): v128 {
  return i32x4.add(i32x4.extend_low_i16x8_u(two), i32x4.extend_high_i16x8_u(two))
}

/** How far two pixels are from what was read of them. */
@inline
function apartFrom(two: v128, read: usize, factor: v128): v128 {
  const left = f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(two)), factor)
  const right = f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(two)), factor)
  return f32x4.add(
    f32x4.abs(f32x4.sub(left, v128.load(read))),
    f32x4.abs(f32x4.sub(right, v128.load(read, 16))),
  )
}

/**
 * Holds the squares of two rows. `meant`: six rows of RGBA without gaps, whole numbers of 8 bits, or 16 where they are `wide`; times
 * `scale` they are 0–1. `upper` and `lower`: what was read of the two rows in the middle, RGBA of f32. A square counts where no value
 * of it or within two pixels of it is further than `apart` from its first one, and all have alpha. `room`: 8 bytes a pixel. Writes
 * into `sums` the largest difference of the means of each channel, then their sums, then the sums of the differences of each of their
 * pixels, f32. Gives the number of such squares.
 */
export function holdSquares(
  meant: usize, wide: bool, width: i32, scale: f32, apart: i32, upper: usize, lower: usize, room: usize, sums: usize,
): i32 {
  const step: usize = wide ? 16 : 8
  const down: usize = (<usize>width << 2) << (wide ? 1 : 0)
  const pairs = width >> 1
  // The least and the most of each column of two pixels.
  for (let k = 0, p = meant, to = room; k < pairs; k++, p += step, to += 16) {
    let least = pair(p, wide), most = least
    for (let row: usize = 1; row < ROWS; row++) {
      const two = pair(p + row * down, wide)
      least = i16x8.min_u(least, two)
      most = i16x8.max_u(most, two)
    }
    least = i16x8.min_u(least, i64x2.shuffle(least, least, 1, 1))
    most = i16x8.max_u(most, i64x2.shuffle(most, most, 1, 1))
    v128.store(to, i64x2.shuffle(least, most, 0, 2))
  }
  const most16 = i16x8.splat(<i16>apart)
  const factor = f32x4.splat(scale), quarter = f32x4.splat(0.25)
  const colours = i32x4(-1, -1, -1, 0)
  let largest = f32x4.splat(0), sum = f32x4.splat(0), single = f32x4.splat(0), count = 0
  for (let k = 1; k * 2 + 3 < width; k++) {
    const at = room + (<usize>k << 4)
    const before = v128.load(at, 0), here = v128.load(at, 16), after = v128.load(at - 16)
    const least = i16x8.min_u(i16x8.min_u(before, here), after)
    const most = i16x8.max_u(i16x8.max_u(before, here), after)
    if (i16x8.extract_lane_u(least, 3) == 0) continue
    const own = meant + OWN * down + <usize>k * step
    const above = pair(own, wide)
    const first = i64x2.shuffle(above, above, 0, 0)
    const off = i64x2.shuffle(i16x8.sub_sat_u(first, least), i16x8.sub_sat_u(most, first), 0, 3)
    if (v128.any_true(i16x8.gt_u(off, most16))) continue
    const below = pair(own + down, wide)
    const made = f32x4.convert_i32x4_u(i32x4.add(sumOf(above), sumOf(below)))
    const place = <usize>k << 5
    const read = f32x4.add(
      f32x4.add(v128.load(upper + place), v128.load(upper + place, 16)),
      f32x4.add(v128.load(lower + place), v128.load(lower + place, 16)),
    )
    const apartBy = v128.and(f32x4.mul(f32x4.abs(f32x4.sub(f32x4.mul(made, factor), read)), quarter), colours)
    largest = f32x4.max(largest, apartBy)
    sum = f32x4.add(sum, apartBy)
    single = f32x4.add(single, f32x4.add(apartFrom(above, upper + place, factor), apartFrom(below, lower + place, factor)))
    count++
  }
  v128.store(sums, largest)
  v128.store(sums + 16, sum)
  v128.store(sums + 32, v128.and(single, colours))
  return count
}
