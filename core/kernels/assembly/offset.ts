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

@inline
function toCandidate(k: i32, segments: usize, cuts: usize, corners: usize, first: i32, px: f32, py: f32): f32 {
  const id = load<i32>(candidates + (<usize>k << 2))
  return id >= first
    ? toCorner(corners + <usize>(id - first) * CORNER, px, py)
    : toSegment(segments + (<usize>id << 4), cuts ? load<u8>(cuts + <usize>id) : 0, px, py)
}

/** Parts along each side of a pixel in which the offset edge turns a corner; each part is cut by one straight edge. */
const PARTS: i32 = 4

/** How much of a pixel near the offset edge lies within it. */
function coverAt(
  segments: usize, cuts: usize, corners: usize, first: i32, ids: usize, d: f32, x: i32, y: i32, w: i32, h: i32, edge: f32,
): f32 {
  const n = gather(ids, x, y, w, h)
  if (n == 0) return min<f32>(1, max<f32>(0, edge - d + <f32>0.5))
  const sign: f32 = d < 0 ? <f32>-1 : <f32>1
  let nx: f32 = 0, ny: f32 = 1
  let cover: f32 = 0
  for (let j = 0; j < PARTS; j++) {
    const sy: f32 = <f32>y + (<f32>j + <f32>0.5) / <f32>PARTS
    for (let i = 0; i < PARTS; i++) {
      const sx: f32 = <f32>x + (<f32>i + <f32>0.5) / <f32>PARTS
      let u: f32 = 1e9
      for (let k = 0; k < n; k++) {
        const v = toCandidate(k, segments, cuts, corners, first, sx, sy)
        if (v < u) {
          u = v
          nx = gx
          ny = gy
        }
      }
      if (u >= <f32>1e8) {
        // Here lies a piece of the edge too short to be nearest to any pixel's middle: its neighbours' ends stand for it.
        for (let k = 0; k < n; k++) {
          if (load<i32>(candidates + (<usize>k << 2)) >= first) continue
          const v = toCandidate(k, segments, 0, corners, first, sx, sy)
          if (v < u) {
            u = v
            nx = gx
            ny = gy
          }
        }
      }
      const length = max<f32>(1e-6, sqrt<f32>(nx * nx + ny * ny))
      cover += halfPlane(<f32>PARTS * (edge - sign * u) / length, nx / length, ny / length)
    }
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
