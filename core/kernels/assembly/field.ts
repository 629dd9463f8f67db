// Distance from pixels instead of from an outline, for what has no outline: groups and pictures.
// P. Felzenszwalb, D. Huttenlocher, Distance Transforms of Sampled Functions (Theory of Computing 8, 2012): the lower
// envelope of parabolas along the rows, over the nearest pixel of each column. What is nearest is kept, so that its
// own alpha tells where within it the edge lies.

/**
 * For every pixel the row of the nearest pixel of its column that is touched (or, inside, not whole); −1: none. Row by row,
 * as the memory lies; `last`: scratch of w words.
 */
function nearestRows(alpha: usize, rows: usize, w: i32, h: i32, inside: bool, last: usize): void {
  for (let x = 0; x < w; x++) store<i32>(last + (<usize>x << 2), -1)
  for (let y = 0; y < h; y++) {
    const row: usize = <usize>(y * w) << 2
    for (let x = 0; x < w; x++) {
      const here: usize = <usize>x << 2
      const a = load<f32>(alpha + row + here)
      if (inside ? a < 1 : a > 0) store<i32>(last + here, y)
      store<i32>(rows + row + here, load<i32>(last + here))
    }
  }
  for (let x = 0; x < w; x++) store<i32>(last + (<usize>x << 2), -1)
  for (let y = h - 1; y >= 0; y--) {
    const row: usize = <usize>(y * w) << 2
    for (let x = 0; x < w; x++) {
      const here: usize = <usize>x << 2
      const above = load<i32>(rows + row + here)
      if (above == y) store<i32>(last + here, y)
      const below = load<i32>(last + here)
      if (below >= 0 && (above < 0 || below - y < y - above)) store<i32>(rows + row + here, below)
    }
  }
}

@inline
function alphaAt(alpha: usize, w: i32, h: i32, x: i32, y: i32): f32 {
  return load<f32>(alpha + (<usize>(min(h - 1, max(0, y)) * w + min(w - 1, max(0, x))) << 2))
}

/**
 * How far inside its pixel's middle a straight edge lies that covers the share `a` of it; (gx, gy) is its unit normal.
 * The inverse of the area that a half plane takes of a pixel.
 */
@inline
function edgeWithin(a: f32, gx: f32, gy: f32): f32 {
  const m = max(abs(gx), abs(gy)), n = min(abs(gx), abs(gy))
  const c: f32 = a > <f32>0.5 ? <f32>1 - a : a
  const s: f32 = <f32>2 * m * c >= n ? (<f32>0.5 - c) * m : <f32>0.5 * (m + n) - sqrt<f32>(<f32>2 * m * n * c)
  return a > <f32>0.5 ? -s : s
}

/** Half the length that the pixel shows of a straight edge `s` from its middle; (gx, gy) is the edge's unit normal. */
@inline
function halfChord(s: f32, gx: f32, gy: f32): f32 {
  const m = max(abs(gx), abs(gy)), n = min(abs(gx), abs(gy))
  const rest: f32 = <f32>0.5 * (m + n) - abs(s)
  return <f32>0.5 * max<f32>(0, min<f32>(<f32>1 / m, rest / max<f32>(<f32>1e-6, m * n)))
}

/** Px that an edge is taken to go on beyond its pixel: the pixel that holds the nearest point need not be the one asked. */
const BEYOND: f32 = 0.1

/** Words that say where the edge runs through a pixel: its unit normal, how far from the middle, half its length. */
const EDGE: usize = 4

/**
 * The edge that runs through the pixel (qx, qy). It is taken for straight there, across the direction in which alpha
 * changes, and as long as the pixel shows it. A pixel in which alpha does not change has half a length below zero.
 */
function edgeOf(alpha: usize, w: i32, h: i32, qx: i32, qy: i32, edge: usize): void {
  const lt = alphaAt(alpha, w, h, qx - 1, qy - 1), t = alphaAt(alpha, w, h, qx, qy - 1), rt = alphaAt(alpha, w, h, qx + 1, qy - 1)
  const l = alphaAt(alpha, w, h, qx - 1, qy), r = alphaAt(alpha, w, h, qx + 1, qy)
  const lb = alphaAt(alpha, w, h, qx - 1, qy + 1), b = alphaAt(alpha, w, h, qx, qy + 1), rb = alphaAt(alpha, w, h, qx + 1, qy + 1)
  let gx: f32 = lt + <f32>2 * l + lb - rt - <f32>2 * r - rb, gy: f32 = lt + <f32>2 * t + rt - lb - <f32>2 * b - rb
  const length = sqrt<f32>(gx * gx + gy * gy), a = alphaAt(alpha, w, h, qx, qy)
  if (length < <f32>1e-6) {
    store<f32>(edge, -1, 12)
    return
  }
  gx /= length
  gy /= length
  const s = edgeWithin(a, gx, gy)
  store<f32>(edge, gx)
  store<f32>(edge, gy, 4)
  store<f32>(edge, s, 8)
  store<f32>(edge, halfChord(s, gx, gy), 12)
}

/** Distance to an edge of the pixel that lies (dx, dy) away, positive. */
@inline
function toEdge(edge: usize, x: i32, y: i32): f32 {
  let dx = <f32>x, dy = <f32>y
  const half = load<f32>(edge, 12)
  if (half < 0) return sqrt<f32>(dx * dx + dy * dy)
  const gx = load<f32>(edge), gy = load<f32>(edge, 4), s = load<f32>(edge, 8)
  dx += gx * s
  dy += gy * s
  const across: f32 = dx * gx + dy * gy
  const aside: f32 = max<f32>(0, abs<f32>(dx * gy - dy * gx) - half - BEYOND)
  return sqrt<f32>(across * across + aside * aside)
}

/** The distances of one row, written where `inside` fits the pixel. Scratch: 7·w + 1 words. */
function envelope(
  alpha: usize, rows: usize, dst: usize, w: i32, h: i32, y: i32, inside: bool, reach: f32, scratch: usize,
): void {
  const places = scratch, bounds = scratch + (<usize>w << 2)
  // In a row each column has one nearest pixel: where the edge runs through it is found once.
  const edges = bounds + (<usize>(w + 1) << 2), known = edges + EDGE * (<usize>w << 2)
  for (let x = 0; x < w; x++) store<i32>(known + (<usize>x << 2), 0)
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
    const v = load<i32>(places + (<usize>k << 2))
    const up = <f32>(y - load<i32>(rows + row + (<usize>v << 2))), aside = <f32>(p - v)
    if (up * up + aside * aside > reach * reach) {
      store<f32>(dst + at, inside ? <f32>-1e6 : <f32>1e6)
      continue
    }
    // The nearest pixel need not hold the nearest piece of the edge: its neighbours are asked too.
    let d: f32 = 1e6
    for (let c = max(0, v - 1); c <= min(w - 1, v + 1); c++) {
      const r = load<i32>(rows + row + (<usize>c << 2))
      if (r < 0) continue
      const edge = edges + EDGE * (<usize>c << 2)
      if (!load<i32>(known + (<usize>c << 2))) {
        store<i32>(known + (<usize>c << 2), 1)
        edgeOf(alpha, w, h, c, r, edge)
      }
      d = min(d, toEdge(edge, p - c, y - r))
    }
    store<f32>(dst + at, inside ? -d : d)
  }
}

/**
 * Signed distance to where alpha passes one half, negative inside; exact up to `reach` − 2, farther ones may be ±1e6.
 * rows: scratch plane; scratch: 7·w + 1 words.
 */
export function fieldDistance(
  alpha: usize, dst: usize, w: i32, h: i32, rows: usize, scratch: usize, reach: f32,
): void {
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at: usize = <usize>(y * w + x) << 2
      const a = load<f32>(alpha + at)
      if (a > 0 && a < 1) {
        edgeOf(alpha, w, h, x, y, scratch)
        store<f32>(dst + at, (a > <f32>0.5 ? <f32>-1 : <f32>1) * toEdge(scratch, 0, 0))
      }
    }
  }
  nearestRows(alpha, rows, w, h, false, scratch)
  for (let y = 0; y < h; y++) envelope(alpha, rows, dst, w, h, y, false, reach, scratch)
  nearestRows(alpha, rows, w, h, true, scratch)
  for (let y = 0; y < h; y++) envelope(alpha, rows, dst, w, h, y, true, reach, scratch)
}
