// Exact area coverage by signed-area accumulation: each segment adds, to every pixel of the rows it crosses, the
// area between itself and the pixel's right edge; a running sum over the row is then the covered area (common
// practice). Sums are integers of 2^-20 px², so that they cancel exactly and do not depend on where a box begins.

const ONE: f64 = 1048576

const FINE: f64 = 1073741824

/** On a grid of 2^-30 px, on which sums with the ends of segments are exact: wherever a box begins, they are the same. */
@inline
function onGrid(way: f64): f64 {
  return nearest(way * FINE) / FINE
}

/** The share of pixel `k` that lies to the right of a straight edge from xa to xb (xa ≤ xb, first = floor(xa)). */
@inline
function rightOf(k: i32, first: i32, last: i32, xa: f64, xb: f64, slope: f64): f64 {
  if (last == first + 1) return <f64>(first + 1) - 0.5 * (xa + xb)
  if (k == first) {
    const gap = <f64>(first + 1) - xa
    return 0.5 * slope * gap * gap
  }
  if (k == last - 1) {
    const gap = xb - <f64>(last - 1)
    return 1 - 0.5 * slope * gap * gap
  }
  return slope * (<f64>k - xa + 0.5)
}

/** Adds one stretch inside a single row of `w` pixels; `row` is the row's address, d its height in 2^-20 px. */
@inline
function addStretch(row: usize, w: i32, x: f64, xNext: f64, d: f64): void {
  const xa = min(x, xNext), xb = max(x, xNext)
  if (xa >= <f64>w) return
  if (xb <= 0) {
    store<i32>(row, load<i32>(row) + <i32>d)
    return
  }
  const first = <i32>floor(xa), last = <i32>ceil(xb)
  const slope: f64 = xb > xa ? 1 / (xb - xa) : 0
  // Each pixel gets the growth of one rounded sum: the parts of a stretch add up to it wherever it is cut.
  let before = 0
  const end = min(last, w)
  for (let k = max(first, 0); k < end; k++) {
    const sum = <i32>nearest(d * rightOf(k, first, last, xa, xb, slope))
    const p = row + (<usize>k << 2)
    store<i32>(p, load<i32>(p) + sum - before)
    before = sum
  }
  if (last < w) {
    const p = row + (<usize>last << 2)
    store<i32>(p, load<i32>(p) + <i32>d - before)
  }
}

/**
 * Segments (x0, y0, x1, y1 as f32 quadruples, box pixels, multiples of 2^-10) into an accumulation buffer of `h`
 * rows of `w + 4` integers that was set to zero. Parts left of the box count fully, parts right of it not at all.
 */
export function rasterSegments(segments: usize, count: i32, acc: usize, w: i32, h: i32): void {
  const stride: usize = <usize>(w + 4) << 2
  for (let k = 0; k < count; k++, segments += 16) {
    let x0 = <f64>load<f32>(segments), y0 = <f64>load<f32>(segments, 4)
    let x1 = <f64>load<f32>(segments, 8), y1 = <f64>load<f32>(segments, 12)
    if (y0 == y1) continue
    let dir: f64 = ONE
    if (y0 > y1) {
      dir = -ONE
      let t = x0
      x0 = x1
      x1 = t
      t = y0
      y0 = y1
      y1 = t
    }
    if (y1 <= 0 || y0 >= <f64>h) continue
    if (x0 >= <f64>w && x1 >= <f64>w) continue
    const slope = (x1 - x0) / (y1 - y0)
    const top = <i32>max<f64>(y0, 0), bottom = <i32>min<f64>(<f64>h, ceil(y1))
    for (let y = top; y < bottom; y++) {
      const ya = max<f64>(<f64>y, y0), yb = min<f64>(<f64>(y + 1), y1)
      if (yb <= ya) continue
      // Ends are taken from the segment itself, not by adding up, so that long edges do not drift.
      const xa = ya == y0 ? x0 : x0 + onGrid((ya - y0) * slope)
      const xb = yb == y1 ? x1 : x0 + onGrid((yb - y0) * slope)
      addStretch(acc + <usize>y * stride, w, xa, xb, (yb - ya) * dir)
    }
  }
}

/** Running sums of the accumulation buffer: coverage 0..1 by the non-zero rule for outlines that do not overlap. */
export function integrateCoverage(acc: usize, dst: usize, w: i32, h: i32): void {
  const scale = f32x4.splat(1.0 / 1048576.0), one = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let s = 0
    let level = f32x4.splat(0)
    for (let x = 0; x < w; x += 4) {
      const a = v128.load(acc)
      // Between edges nothing is added: four pixels at once.
      if (v128.any_true(a)) {
        const s0 = s + i32x4.extract_lane(a, 0), s1 = s0 + i32x4.extract_lane(a, 1)
        const s2 = s1 + i32x4.extract_lane(a, 2)
        s = s2 + i32x4.extract_lane(a, 3)
        const sums = i32x4.abs(i32x4(s0, s1, s2, s))
        v128.store(dst, f32x4.pmin(one, f32x4.mul(scale, f32x4.convert_i32x4_s(sums))))
        level = f32x4.pmin(one, f32x4.splat(<f32>abs(s) * <f32>(1.0 / 1048576.0)))
      } else {
        v128.store(dst, level)
      }
      acc += 16
      dst += 16
    }
    acc += 16
  }
}
