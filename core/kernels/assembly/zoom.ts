// The mean along lines towards a point. Rays go through whole columns (or rows: then the two axes are told the other way
// round) and lie a pixel apart where they are farthest from the point; pixels between two rays are mixed of both. Sums along a
// ray are whole numbers, so that they end as exactly as they begin.
import { readBetween } from './smear'
import { whole } from './whole-numbers'

/** Bytes of a distance's table: its share of the farthest, 1 by that, where the mean begins and ends on the ray, and by what
 *  it is divided; and the pixel before the ray there. */
const ENTRY = 40

/** A ray's sum from one place to another: sums up to whole pixels, and both ends in part. */
@inline
function meanOf(sums: usize, entry: usize): v128 {
  const p = sums + load<u32>(entry, 12), q = sums + load<u32>(entry, 20)
  const a = v128.load(p), b = v128.load(q)
  const whole = f32x4.convert_i32x4_s(i32x4.sub(b, a))
  const before = f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(v128.load(p, 16), a)), v128.load32_splat(entry, 16))
  const after = f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(v128.load(q, 16), b)), v128.load32_splat(entry, 24))
  return f32x4.div(f32x4.add(f32x4.sub(whole, before), after), v128.load32_splat(entry, 28))
}

/**
 * For the pixels that lie more along than across from the point (`inclusive`: or as much): each becomes the mean of the line from
 * `less` to `more` times its distance. `rays` lie on each side of the axis; none of the pixels is farther than that along it.
 * (along0, across0) is the window's place on the card, in the order of the two axes; the point lies on a grid that makes
 * differences exact. work: 40 · n bytes, then 2 · (n + 2) pixels.
 */
export function zoomRays(
  src: usize, step: i32, row: usize, dst: usize, toStep: i32, toRow: usize, n: i32, m: i32, along0: i32, across0: i32,
  alongC: f64, acrossC: f64, rays: i32, less: f64, more: f64, inclusive: bool, unit: f32, work: usize,
): void {
  // The centres of pixels, as seen from the point.
  const a0 = <f64>along0 + 0.5 - alongC, b0 = <f64>across0 + 0.5 - acrossC
  const zero = min(n, max(0, <i32>ceil(-a0)))
  zoomSide(src, step, row, dst, toStep, toRow, zero, n - zero, m, a0 + <f64>zero, b0, 1, rays, less, more, inclusive, unit, work)
  zoomSide(src, step, row, dst, toStep, toRow, zero - 1, zero, m, 1 - a0 - <f64>zero, b0, -1, rays, less, more, inclusive, unit, work)
}

/** One side of the point: `count` pixels from index `from` on, away from it; the first is `first` away. */
function zoomSide(
  src: usize, step: i32, row: usize, dst: usize, toStep: i32, toRow: usize, from: i32, count: i32, m: i32, first: f64, b0: f64,
  way: i32, rays: i32, less: f64, more: f64, inclusive: bool, unit: f32, work: usize,
): void {
  if (count <= 0) return
  let sums = work + <usize>count * ENTRY, before = sums + (<usize>(count + 2) << 4)
  for (let t = 0; t < count; t++) {
    const entry = work + <usize>t * ENTRY
    const away = first + <f64>t
    const share = away / <f64>rays
    // A mean over less than a pixel is that of a pixel.
    const width = max(1, (more - less) * away)
    const middle = 0.5 * (less + more) * away - first + 0.5
    const start = max(0, min(<f64>count, middle - 0.5 * width)), end = max(0, min(<f64>count, middle + 0.5 * width))
    const i = min(<i32>start, count - 1), j = min(<i32>end, count - 1)
    store<f64>(entry, share)
    store<f32>(entry, share > 0 ? <f32>(1 / share) : 0, 8)
    store<u32>(entry, <u32>i << 4, 12)
    store<f32>(entry, <f32>(start - <f64>i), 16)
    store<u32>(entry, <u32>j << 4, 20)
    store<f32>(entry, <f32>(end - <f64>j), 24)
    store<f32>(entry, <f32>width * unit, 28)
  }
  const scale = f32x4.splat(unit), one = f32x4.splat(1)
  const origin = src + from * step, target = dst + from * toStep
  for (let k = -rays; k <= rays; k++) {
    let sum = i32x4.splat(0)
    let p = origin
    let s = sums
    for (let t = 0, entry = work; t < count; t++, entry += ENTRY) {
      v128.store(s, sum)
      const at = placeOf(k, rays, entry, first, t) - b0
      const j = <i32>floor(at)
      const f = f32x4.splat(<f32>(at - floor(at)))
      let v: v128
      if (j >= 0 && j + 1 < m) {
        const q = p + <usize>j * row
        const a = v128.load(q)
        v = f32x4.add(a, f32x4.mul(f, f32x4.sub(v128.load(q + row), a)))
      } else v = readBetween(p, row, j, m, f)
      sum = i32x4.add(sum, whole(f32x4.mul(v, scale)))
      s += 16
      p += way * step
    }
    v128.store(s, sum)
    v128.store(s, sum, 16)
    // Pixels between the ray before and this one.
    let q = target
    for (let t = 0, entry = work; t < count; t++, entry += ENTRY, q += way * toStep) {
      const at = placeOf(k, rays, entry, first, t) - b0
      const j = <i32>floor(at)
      const part = at - floor(at)
      if (k == -rays) {
        store<i32>(entry, inclusive && part == 0 ? j - 1 : j, 32)
      }
      if (j == load<i32>(entry, 32)) continue
      store<i32>(entry, j, 32)
      if (<u32>j >= <u32>m || (k == rays && part == 0 && !inclusive)) continue
      const here = meanOf(sums, entry)
      const share = f32x4.splat(min<f32>(1, <f32>part * load<f32>(entry, 8)))
      const there = k == -rays ? here : meanOf(before, entry)
      v128.store(q + <usize>j * toRow, f32x4.pmin(one, f32x4.add(here, f32x4.mul(share, f32x4.sub(there, here)))))
    }
    const other = before
    before = sums
    sums = other
  }
}

/** How far across a ray lies at a distance; exactly on the diagonal where it is the last one. */
@inline
function placeOf(k: i32, rays: i32, entry: usize, first: f64, t: i32): f64 {
  if (k == rays) return first + <f64>t
  if (k == -rays) return -(first + <f64>t)
  return <f64>k * load<f64>(entry)
}
