// Distance from pixels instead of from an outline, for what has no outline: groups and pictures.
// P. Felzenszwalb, D. Huttenlocher, Distance Transforms of Sampled Functions (Theory of Computing 8, 2012): the lower
// envelope of parabolas along the rows, over the nearest pixel of each column. What is nearest is kept, so that its
// own alpha tells where within it the edge lies.

/** For every pixel the row of the nearest pixel of its column that is touched (or, inside, not whole); −1: none. */
function nearestRows(alpha: usize, rows: usize, w: i32, h: i32, inside: bool): void {
  for (let x = 0; x < w; x++) {
    let last = -1
    for (let y = 0; y < h; y++) {
      const at: usize = <usize>(y * w + x) << 2
      const a = load<f32>(alpha + at)
      if (inside ? a < 1 : a > 0) last = y
      store<i32>(rows + at, last)
    }
    last = -1
    for (let y = h - 1; y >= 0; y--) {
      const at: usize = <usize>(y * w + x) << 2
      const above = load<i32>(rows + at)
      if (above == y) last = y
      if (last >= 0 && (above < 0 || last - y < y - above)) store<i32>(rows + at, last)
    }
  }
}

@inline
function alphaAt(alpha: usize, w: i32, h: i32, x: i32, y: i32): f32 {
  return load<f32>(alpha + (<usize>(min(h - 1, max(0, y)) * w + min(w - 1, max(0, x))) << 2))
}

/**
 * Distance from (px, py) to the edge that runs through the pixel (qx, qy), positive: along the direction in which
 * alpha changes there, so that an edge of any slope gives even distances. Beside corners, to the pixel itself.
 */
function toEdge(alpha: usize, w: i32, h: i32, px: i32, py: i32, qx: i32, qy: i32, outward: f32): f32 {
  const l: f32 = alphaAt(alpha, w, h, qx - 1, qy - 1) + <f32>2 * alphaAt(alpha, w, h, qx - 1, qy) + alphaAt(alpha, w, h, qx - 1, qy + 1)
  const r: f32 = alphaAt(alpha, w, h, qx + 1, qy - 1) + <f32>2 * alphaAt(alpha, w, h, qx + 1, qy) + alphaAt(alpha, w, h, qx + 1, qy + 1)
  const t: f32 = alphaAt(alpha, w, h, qx - 1, qy - 1) + <f32>2 * alphaAt(alpha, w, h, qx, qy - 1) + alphaAt(alpha, w, h, qx + 1, qy - 1)
  const b: f32 = alphaAt(alpha, w, h, qx - 1, qy + 1) + <f32>2 * alphaAt(alpha, w, h, qx, qy + 1) + alphaAt(alpha, w, h, qx + 1, qy + 1)
  const gx: f32 = (l - r) * outward, gy: f32 = (t - b) * outward
  const length = sqrt<f32>(gx * gx + gy * gy)
  const dx = <f32>(px - qx), dy = <f32>(py - qy)
  const far = sqrt<f32>(dx * dx + dy * dy)
  const inner: f32 = (<f32>0.5 - alphaAt(alpha, w, h, qx, qy)) * outward
  if (length < <f32>1e-6) return far + inner
  const along: f32 = (dx * gx + dy * gy) / length
  // How far within its pixel the edge lies, for a straight edge of this slope.
  const edge: f32 = inner * max(abs(gx), abs(gy)) / length
  return along > <f32>0.9 * far ? along + edge : far + edge
}

/** The distances of one row, written where `inside` fits the pixel. Scratch: 2·w + 1 words. */
function envelope(alpha: usize, rows: usize, dst: usize, w: i32, h: i32, y: i32, inside: bool, scratch: usize): void {
  const places = scratch, bounds = scratch + (<usize>w << 2)
  const row: usize = <usize>(y * w) << 2
  let top = -1
  for (let q = 0; q < w; q++) {
    const r = load<i32>(rows + row + (<usize>q << 2))
    if (r < 0) continue
    const f = <f64>((y - r) * (y - r)) + <f64>q * <f64>q
    let s: f64 = -1e12
    while (top >= 0) {
      const v = load<i32>(places + (<usize>top << 2))
      const rv = load<i32>(rows + row + (<usize>v << 2))
      s = (f - <f64>((y - rv) * (y - rv)) - <f64>v * <f64>v) / <f64>(2 * (q - v))
      if (s > <f64>load<f32>(bounds + (<usize>top << 2))) break
      top--
    }
    top++
    store<i32>(places + (<usize>top << 2), q)
    store<f32>(bounds + (<usize>top << 2), top == 0 ? <f32>-1e12 : <f32>s)
  }
  let k = 0
  for (let p = 0; p < w; p++) {
    const at: usize = row + (<usize>p << 2)
    const a = load<f32>(alpha + at)
    if (inside ? a < 1 : a > 0) continue
    if (top < 0) {
      store<f32>(dst + at, inside ? <f32>-1e6 : <f32>1e6)
      continue
    }
    while (k < top && load<f32>(bounds + (<usize>(k + 1) << 2)) < <f32>p) k++
    const v = load<i32>(places + (<usize>k << 2)), r = load<i32>(rows + row + (<usize>v << 2))
    const d = toEdge(alpha, w, h, p, y, v, r, inside ? -1 : 1)
    store<f32>(dst + at, inside ? -d : d)
  }
}

/** Signed distance to where alpha passes one half, negative inside. rows: scratch plane; scratch: 2·w + 1 words. */
export function fieldDistance(alpha: usize, dst: usize, w: i32, h: i32, rows: usize, scratch: usize): void {
  for (let i = 0; i < w * h; i++) {
    const at: usize = <usize>i << 2
    store<f32>(dst + at, <f32>0.5 - load<f32>(alpha + at))
  }
  nearestRows(alpha, rows, w, h, false)
  for (let y = 0; y < h; y++) envelope(alpha, rows, dst, w, h, y, false, scratch)
  nearestRows(alpha, rows, w, h, true)
  for (let y = 0; y < h; y++) envelope(alpha, rows, dst, w, h, y, true, scratch)
}
