// Exact area coverage by signed-area accumulation: each segment adds, to every pixel of the rows it
// crosses, the area between itself and the pixel's right edge; a running sum over the row is then the
// covered area. Method: "font-rs" style accumulation buffers, common practice; exact up to f32 rounding.

/** Adds one monotone stretch inside a single row. `row` is the row's address, x in [0, w]. */
@inline
function addSpan(row: usize, x: f32, xNext: f32, d: f32): void {
  let xa = x, xb = xNext
  if (xa > xb) {
    xa = xNext
    xb = x
  }
  const floorA = floor<f32>(xa)
  const first = <i32>floorA
  const ceilB = ceil<f32>(xb)
  const last = <i32>ceilB
  let p = row + (<usize>first << 2)
  if (last <= first + 1) {
    const mid: f32 = <f32>0.5 * (x + xNext) - floorA
    store<f32>(p, load<f32>(p) + d - d * mid)
    store<f32>(p, load<f32>(p, 4) + d * mid, 4)
    return
  }
  const slope: f32 = <f32>1 / (xb - xa)
  const headGap: f32 = xa - floorA
  const head: f32 = <f32>0.5 * slope * (<f32>1 - headGap) * (<f32>1 - headGap)
  const tailGap: f32 = xb - ceilB + <f32>1
  const tail: f32 = <f32>0.5 * slope * tailGap * tailGap
  store<f32>(p, load<f32>(p) + d * head)
  if (last == first + 2) {
    store<f32>(p, load<f32>(p, 4) + d * (<f32>1 - head - tail), 4)
  } else {
    const second: f32 = slope * (<f32>1.5 - headGap)
    store<f32>(p, load<f32>(p, 4) + d * (second - head), 4)
    for (let xi = first + 2; xi < last - 1; xi++) {
      const t = row + (<usize>xi << 2)
      store<f32>(t, load<f32>(t) + d * slope)
    }
    const beforeLast: f32 = second + <f32>(last - first - 3) * slope
    const t = row + (<usize>(last - 1) << 2)
    store<f32>(t, load<f32>(t) + d * (<f32>1 - beforeLast - tail))
  }
  p = row + (<usize>last << 2)
  store<f32>(p, load<f32>(p) + d * tail)
}

/**
 * Segments (x0, y0, x1, y1 as f32 quadruples, box pixels) into an accumulation buffer of `h` rows of
 * `w + 4` floats that was set to zero. Parts left of the box count fully, parts right of it not at all.
 */
export function rasterSegments(segments: usize, count: i32, acc: usize, w: i32, h: i32): void {
  const stride: usize = <usize>(w + 4) << 2
  const right = <f32>w
  for (let k = 0; k < count; k++, segments += 16) {
    let x0 = load<f32>(segments), y0 = load<f32>(segments, 4)
    let x1 = load<f32>(segments, 8), y1 = load<f32>(segments, 12)
    if (y0 == y1) continue
    let dir: f32 = 1
    if (y0 > y1) {
      dir = -1
      let t = x0
      x0 = x1
      x1 = t
      t = y0
      y0 = y1
      y1 = t
    }
    if (y1 <= 0 || y0 >= <f32>h) continue
    if (x0 >= right && x1 >= right) continue
    const slope: f32 = (x1 - x0) / (y1 - y0)
    const top = <i32>max<f32>(y0, 0), bottom = <i32>min<f32>(<f32>h, ceil<f32>(y1))
    for (let y = top; y < bottom; y++) {
      const row = acc + <usize>y * stride
      const ya: f32 = max<f32>(<f32>y, y0), yb: f32 = min<f32>(<f32>(y + 1), y1)
      const dy: f32 = yb - ya
      if (dy <= 0) continue
      // Ends are taken from the segment itself, not by adding up, so that long edges do not drift.
      const xa: f32 = ya == y0 ? x0 : x0 + (ya - y0) * slope
      const xb: f32 = yb == y1 ? x1 : x0 + (yb - y0) * slope
      const lo = min(xa, xb), hi = max(xa, xb)
      if (lo >= 0 && hi <= right) {
        addSpan(row, xa, xb, dy * dir)
      } else if (hi <= 0) {
        store<f32>(row, load<f32>(row) + dy * dir)
      } else if (lo < right) {
        // The stretch crosses the box's left or right side: cut it there.
        const perX: f32 = dy / (hi - lo)
        const inLo = max<f32>(lo, 0), inHi = min<f32>(hi, right)
        if (lo < 0) store<f32>(row, load<f32>(row) + -lo * perX * dir)
        addSpan(row, inLo, inHi, (inHi - inLo) * perX * dir)
      }
    }
  }
}

@inline
function snapped(s: f32): f32 {
  const q: f32 = abs<f32>(s)
  return q < <f32>1e-4 ? <f32>0 : q > <f32>0.9999 ? <f32>1 : q
}

/**
 * Running sums of the accumulation buffer: coverage 0..1. Rounding residue is snapped to exactly 0 and 1.
 */
export function integrateCoverage(acc: usize, dst: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let s: f32 = 0
    let level = f32x4.splat(0)
    for (let x = 0; x < w; x += 4) {
      const a = v128.load(acc)
      // Between edges nothing is added: four pixels at once.
      if (v128.any_true(a)) {
        const s0: f32 = s + f32x4.extract_lane(a, 0), s1: f32 = s0 + f32x4.extract_lane(a, 1)
        const s2: f32 = s1 + f32x4.extract_lane(a, 2)
        s = s2 + f32x4.extract_lane(a, 3)
        v128.store(dst, f32x4(snapped(s0), snapped(s1), snapped(s2), snapped(s)))
        level = f32x4.splat(snapped(s))
      } else {
        v128.store(dst, level)
      }
      acc += 16
      dst += 16
    }
    acc += 16
  }
}
