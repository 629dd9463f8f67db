// Offset edges: where a pixel lies against the outline moved outward or inward, with the joins of strokes, and
// how much of it an offset edge covers. SVG 2 §13.5.4 (line joins): a mitre or bevel differs from a round join only
// in the wedge between the normals of a corner; there the distance is measured to the join's own edges instead.

// A corner: x, y, the directions of the edge that comes and the edge that goes (unit vectors), its normals are
// those turned to the wedge's side. `kind` 0 mitre, 1 bevel, 2 round (a smooth joint near a corner); `half` is the cosine of half the turn; `side` is 1
// where the wedge lies outside the shape, −1 inside. Ten floats.
const CORNER: usize = 40
/** Px beside a normal that count as on it. */
const ON_NORMAL: f32 = 1e-3

@inline
function metric(c: usize, px: f32, py: f32): f32 {
  const qx: f32 = px - load<f32>(c), qy: f32 = py - load<f32>(c, 4)
  const ax = load<f32>(c, 8), ay = load<f32>(c, 12), bx = load<f32>(c, 16), by = load<f32>(c, 20)
  // Past the end of the one edge and before the start of the other: the wedge between their normals. A little wider, so
  // that a point on a normal, where both measure the same, is not lost between the two by rounding.
  if (qx * ax + qy * ay < -ON_NORMAL || qx * bx + qy * by > ON_NORMAL) return <f32>1e9
  const turn = load<f32>(c, 24)
  const na: f32 = turn * (qx * ay - qy * ax), nb: f32 = turn * (qx * by - qy * bx)
  const half = load<f32>(c, 28)
  const kind = load<f32>(c, 32)
  if (kind == 0) return max(na, nb)
  if (kind == 2) return sqrt<f32>(qx * qx + qy * qy)
  // Along the bisector, scaled so that both edges are met at their ends.
  return (na + nb) / (<f32>2 * half * half)
}

/** Puts mitres and bevels into a signed distance plane; corners are named `first`, `first + 1`, … in `ids`. */
export function measureCorners(
  corners: usize, count: i32, first: i32, distance: usize, ids: usize, w: i32, h: i32, reach: f32,
): void {
  for (let k = 0; k < count; k++, corners += CORNER) {
    const side = load<f32>(corners, 36)
    const far: f32 = load<f32>(corners, 32) == 0 ? reach / load<f32>(corners, 28) : reach
    const x = load<f32>(corners), y = load<f32>(corners, 4)
    const xa = max(0, <i32>floor(x - far)), xb = min(w, <i32>ceil(x + far))
    const ya = max(0, <i32>floor(y - far)), yb = min(h, <i32>ceil(y + far))
    for (let j = ya; j < yb; j++) {
      for (let i = xa; i < xb; i++) {
        const at: usize = <usize>(j * w + i) << 2
        const d = load<f32>(distance + at)
        // What lies on the other side of the edge belongs to another part of the shape.
        if (d * side < 0) continue
        const m = metric(corners, <f32>i + <f32>0.5, <f32>j + <f32>0.5)
        if (m < abs(d)) {
          store<f32>(distance + at, m * side)
          store<i32>(ids + at, first + k)
        }
      }
    }
  }
}

let gx: f32 = 0
let gy: f32 = 0

/** Distance of a point to one segment, unsigned; gx, gy take the direction away from it. For `ends` see distance.ts. */
@inline
function toSegment(s: usize, ends: i32, px: f32, py: f32): f32 {
  const x0 = load<f32>(s), y0 = load<f32>(s, 4)
  const dx: f32 = load<f32>(s, 8) - x0, dy: f32 = load<f32>(s, 12) - y0
  const qx: f32 = px - x0, qy: f32 = py - y0
  const length2: f32 = dx * dx + dy * dy
  const place: f32 = length2 > 0 ? (qx * dx + qy * dy) / length2 : 0
  if ((ends & 1 && place < 0) || (ends & 2 && place > 1)) return <f32>1e9
  const t: f32 = min<f32>(1, max<f32>(0, place))
  const ex: f32 = qx - t * dx, ey: f32 = qy - t * dy
  const d = sqrt<f32>(ex * ex + ey * ey)
  const k: f32 = d > 0 ? <f32>1 / d : 0
  gx = ex * k
  gy = ey * k
  return d
}

@inline
function toCorner(c: usize, px: f32, py: f32): f32 {
  const m = metric(c, px, py)
  if (m >= <f32>1e8) return m
  const qx: f32 = px - load<f32>(c), qy: f32 = py - load<f32>(c, 4)
  const ax = load<f32>(c, 8), ay = load<f32>(c, 12), bx = load<f32>(c, 16), by = load<f32>(c, 20)
  const turn = load<f32>(c, 24)
  const kind = load<f32>(c, 32)
  if (kind == 2) {
    const k: f32 = m > 0 ? <f32>1 / m : 0
    gx = qx * k
    gy = qy * k
  } else if (kind == 1) {
    const twice: f32 = <f32>2 * load<f32>(c, 28) * load<f32>(c, 28)
    gx = turn * (ay + by) / twice
    gy = -turn * (ax + bx) / twice
  } else if (turn * (qx * ay - qy * ax) >= turn * (qx * by - qy * bx)) {
    gx = turn * ay
    gy = -turn * ax
  } else {
    gx = turn * by
    gy = -turn * bx
  }
  return m
}

/** Share of a pixel that lies on the near side of a straight edge `s` px beyond its centre; (gx, gy) is the edge's normal. */
@inline
function halfPlane(s: f32, gx: f32, gy: f32): f32 {
  const a = max(abs(gx), abs(gy)), b = min(abs(gx), abs(gy))
  const outer: f32 = <f32>0.5 * (a + b), inner: f32 = <f32>0.5 * (a - b), q = abs(s)
  if (q >= outer) return s > 0 ? <f32>1 : <f32>0
  if (q <= inner) return <f32>0.5 + s / a
  const rest: f32 = outer - q
  const cut: f32 = rest * rest / (<f32>2 * a * b)
  return s > 0 ? <f32>1 - cut : cut
}

/**
 * The same for an edge of some curvature (1/px, positive where the near side is the inner one): what the bow cuts off
 * its chord c is c³/24 of the curvature, to second order.
 */
@inline
function arcPlane(s: f32, gx: f32, gy: f32, curvature: f32): f32 {
  const a = max(abs(gx), abs(gy)), b = min(abs(gx), abs(gy))
  const outer: f32 = <f32>0.5 * (a + b), inner: f32 = <f32>0.5 * (a - b), q = abs(s)
  const chord: f32 = q >= outer ? 0 : q <= inner ? <f32>1 / a : (outer - q) / (a * b)
  const cover: f32 = halfPlane(s, gx, gy) - curvature * chord * chord * chord * <f32>(1.0 / 24.0)
  return min<f32>(1, max<f32>(0, cover))
}

const MOST: i32 = 24
const candidates = memory.data(96)

/** Gathers what is nearest for the pixel and its neighbours; gives how many there are. */
function gather(ids: usize, x: i32, y: i32, w: i32, h: i32): i32 {
  let n = 0
  for (let j = max(0, y - 1); j <= min(h - 1, y + 1); j++) {
    for (let i = max(0, x - 1); i <= min(w - 1, x + 1); i++) {
      const id = load<i32>(ids + (<usize>(j * w + i) << 2))
      if (id < 0) continue
      let known = false
      for (let k = 0; k < n; k++) if (load<i32>(candidates + (<usize>k << 2)) == id) known = true
      if (known || n == MOST) continue
      store<i32>(candidates + (<usize>n << 2), id)
      n++
    }
  }
  return n
}

/** Parts along each side of a pixel in which the offset edge turns a corner; each part is cut by one straight edge. */
const PARTS: i32 = 4

// What is nearest to each of the four parts of a row: its distance, and the direction away from it.
let nearU: v128 = f32x4.splat(0)
let nearX: v128 = f32x4.splat(0)
let nearY: v128 = f32x4.splat(0)

/** Takes a candidate for those of four points in whose lanes `open` is set and to which it is nearer. */
@inline
function takeNearer(v: v128, vx: v128, vy: v128, open: v128): void {
  const nearer = v128.and(open, f32x4.lt(v, nearU))
  nearU = v128.bitselect(v, nearU, nearer)
  nearX = v128.bitselect(vx, nearX, nearer)
  nearY = v128.bitselect(vy, nearY, nearer)
}

/** As `toSegment`, for four points of a row. */
@inline
function fourToSegment(s: usize, ends: i32, px: v128, py: f32, open: v128): void {
  const x0 = load<f32>(s), y0 = load<f32>(s, 4)
  const dx: f32 = load<f32>(s, 8) - x0, dy: f32 = load<f32>(s, 12) - y0
  const qx = f32x4.sub(px, f32x4.splat(x0)), qy: f32 = py - y0
  const length2: f32 = dx * dx + dy * dy
  const zero = f32x4.splat(0), one = f32x4.splat(1)
  const along = f32x4.add(f32x4.mul(qx, f32x4.splat(dx)), f32x4.splat(qy * dy))
  const place = length2 > 0 ? f32x4.div(along, f32x4.splat(length2)) : zero
  const t = f32x4.min(one, f32x4.max(zero, place))
  const ex = f32x4.sub(qx, f32x4.mul(t, f32x4.splat(dx))), ey = f32x4.sub(f32x4.splat(qy), f32x4.mul(t, f32x4.splat(dy)))
  const d = f32x4.sqrt(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)))
  const k = v128.bitselect(f32x4.div(one, d), zero, f32x4.gt(d, zero))
  let seen = open
  if (ends & 1) seen = v128.andnot(seen, f32x4.lt(place, zero))
  if (ends & 2) seen = v128.andnot(seen, f32x4.gt(place, one))
  takeNearer(d, f32x4.mul(ex, k), f32x4.mul(ey, k), seen)
}

/** As `toCorner`, for four points of a row. */
function fourToCorner(c: usize, px: v128, py: f32, open: v128): void {
  let v = f32x4.splat(1e9), vx = f32x4.splat(0), vy = f32x4.splat(0)
  for (let lane = 0; lane < 4; lane++) {
    const here: v128 = i32x4.eq(i32x4(0, 1, 2, 3), i32x4.splat(lane))
    const x: f32 = lane == 0 ? f32x4.extract_lane(px, 0) : lane == 1 ? f32x4.extract_lane(px, 1)
      : lane == 2 ? f32x4.extract_lane(px, 2) : f32x4.extract_lane(px, 3)
    v = v128.bitselect(f32x4.splat(toCorner(c, x, py)), v, here)
    vx = v128.bitselect(f32x4.splat(gx), vx, here)
    vy = v128.bitselect(f32x4.splat(gy), vy, here)
  }
  takeNearer(v, vx, vy, open)
}

/** As `halfPlane`, for four. */
@inline
function fourHalfPlanes(s: v128, nx: v128, ny: v128): v128 {
  const zero = f32x4.splat(0), one = f32x4.splat(1), half = f32x4.splat(0.5)
  const a = f32x4.max(f32x4.abs(nx), f32x4.abs(ny)), b = f32x4.min(f32x4.abs(nx), f32x4.abs(ny))
  const outer = f32x4.mul(half, f32x4.add(a, b)), inner = f32x4.mul(half, f32x4.sub(a, b)), q = f32x4.abs(s)
  const positive = f32x4.gt(s, zero)
  const rest = f32x4.sub(outer, q)
  const cut = f32x4.div(f32x4.mul(rest, rest), f32x4.mul(f32x4.mul(f32x4.splat(2), a), b))
  const corner = v128.bitselect(f32x4.sub(one, cut), cut, positive)
  const middle = v128.bitselect(f32x4.add(half, f32x4.div(s, a)), corner, f32x4.le(q, inner))
  return v128.bitselect(v128.bitselect(one, zero, positive), middle, f32x4.ge(q, outer))
}

/** How much of a pixel near the offset edge lies within it. */
function coverAt(
  segments: usize, cuts: usize, corners: usize, first: i32, ids: usize, d: f32, x: i32, y: i32, w: i32, h: i32, edge: f32,
): f32 {
  const n = gather(ids, x, y, w, h)
  if (n == 0) return min<f32>(1, max<f32>(0, edge - d + <f32>0.5))
  const sign = f32x4.splat(d < 0 ? <f32>-1 : <f32>1), all = i32x4.splat(-1), far = f32x4.splat(1e8)
  const px = f32x4.add(f32x4.splat(<f32>x), f32x4(0.125, 0.375, 0.625, 0.875))
  let cover: f32 = 0
  for (let j = 0; j < PARTS; j++) {
    const py: f32 = <f32>y + (<f32>j + <f32>0.5) / <f32>PARTS
    nearU = f32x4.splat(1e9)
    nearX = f32x4.splat(0)
    nearY = f32x4.splat(1)
    for (let k = 0; k < n; k++) {
      const id = load<i32>(candidates + (<usize>k << 2))
      if (id >= first) fourToCorner(corners + <usize>(id - first) * CORNER, px, py, all)
      else fourToSegment(segments + (<usize>id << 4), cuts ? load<u8>(cuts + <usize>id) : 0, px, py, all)
    }
    const lost = f32x4.ge(nearU, far)
    if (v128.any_true(lost)) {
      // Here lies a piece of the edge too short to be nearest to any pixel's middle: its neighbours' ends stand for it.
      for (let k = 0; k < n; k++) {
        const id = load<i32>(candidates + (<usize>k << 2))
        if (id < first) fourToSegment(segments + (<usize>id << 4), 0, px, py, lost)
      }
    }
    const squared = f32x4.add(f32x4.mul(nearX, nearX), f32x4.mul(nearY, nearY))
    const length = f32x4.max(f32x4.splat(1e-6), f32x4.sqrt(squared))
    const away = f32x4.sub(f32x4.splat(edge), f32x4.mul(sign, nearU))
    const parts = fourHalfPlanes(
      f32x4.div(f32x4.mul(f32x4.splat(<f32>PARTS), away), length), f32x4.div(nearX, length), f32x4.div(nearY, length),
    )
    cover += f32x4.extract_lane(parts, 0)
    cover += f32x4.extract_lane(parts, 1)
    cover += f32x4.extract_lane(parts, 2)
    cover += f32x4.extract_lane(parts, 3)
  }
  return cover / <f32>(PARTS * PARTS)
}

/** How far a neighbour's distance may be from what a straight edge gives it. */
const STRAIGHT: f32 = 0.045
/** Arcs tighter than this curvature, or bends the other way, are measured part by part. */
const ROUND: f32 = 0.3
/** An edge farther from a pixel's centre than half its diagonal does not touch it. */
const TOUCH: f32 = 0.7072
/** Distances that are looked at beside mitres and blunt bevels. */
const BESIDE_CORNER: f32 = 2.5

/** Whether a corner is nearest to a pixel or one of its neighbours. */
function besideCorner(ids: usize, first: i32, x: i32, y: i32, w: i32, h: i32): bool {
  for (let j = max(0, y - 1); j <= min(h - 1, y + 1); j++) {
    for (let i = max(0, x - 1); i <= min(w - 1, x + 1); i++) {
      if (load<i32>(ids + (<usize>(j * w + i) << 2)) >= first) return true
    }
  }
  return false
}

/**
 * How much of each pixel lies within the outline moved outward by `edge` px. `distance` is signed; `ids` names the
 * nearest segment, or from `first` on a corner; −1 where nothing is near. `steepest`: how fast the distance to a corner
 * changes at most; the bevel of a thin tip is much steeper than a distance.
 */
export function offsetMask(
  distance: usize, ids: usize, segments: usize, cuts: usize, corners: usize, first: i32, dst: usize, w: i32, h: i32,
  edge: f32, steepest: f32,
): void {
  const e = f32x4.splat(edge), one = f32x4.splat(1), zero = f32x4.splat(0)
  // Mitres and bevels change faster across a pixel than a distance does; without corners nothing does.
  const most: f32 = corners ? max(BESIDE_CORNER, steepest) : TOUCH
  const near = f32x4.splat(most)
  const stride: usize = <usize>w << 2
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x += 4) {
      const at: usize = <usize>(y * w + x) << 2
      const d = v128.load(distance + at), s = f32x4.sub(e, d)
      v128.store(dst + at, v128.bitselect(one, zero, f32x4.gt(s, zero)))
      if (v128.any_true(f32x4.lt(f32x4.abs(s), near))) {
        for (let k = 0; k < 4; k++) {
          const p: usize = at + (<usize>k << 2)
          const here = load<f32>(distance + p)
          const id = load<i32>(ids + p)
          const gap = abs(edge - here)
          const px = x + k
          if (gap >= most || (gap >= BESIDE_CORNER && !besideCorner(ids, first, px, y, w, h))) continue
          if (id >= 0 && id < first && px > 0 && y > 0 && px + 1 < w && y + 1 < h) {
            // Where the distance changes as it does beside a straight edge, the share of a half plane is exact.
            toSegment(segments + (<usize>id << 4), 0, <f32>px + <f32>0.5, <f32>y + <f32>0.5)
            const sign: f32 = here < 0 ? <f32>-1 : <f32>1
            const nx: f32 = gx * sign, ny: f32 = gy * sign
            const right = load<f32>(distance + p + 4), left = load<f32>(distance + p - 4)
            const below = load<f32>(distance + p + stride), above = load<f32>(distance + p - stride)
            const off = max(
              max(abs(right - here - nx), abs(left - here + nx)), max(abs(below - here - ny), abs(above - here + ny)),
            )
            const curved: f32 = right + left + below + above - <f32>4 * here
            const round: f32 = curved * sign
            if (off < STRAIGHT || (round > 0 && round < ROUND && off < <f32>0.6 * round + <f32>0.02)) {
              store<f32>(dst + p, arcPlane(edge - here, nx, ny, curved))
              continue
            }
          }
          store<f32>(dst + p, coverAt(segments, cuts, corners, first, ids, here, px, y, w, h, edge))
        }
      }
    }
  }
}
