// Distance from pixels instead of from an outline, for what has no outline: groups and pictures. The edge is the line along which alpha
// passes one half, drawn through the squares between pixel centres (marching squares; W. Lorensen, H. Cline, Marching Cubes, 1987, in two
// dimensions), and every distance is the exact one to that line.

import {
  isIn, crossing, leaves, sideX, sideY, SIDES, PLACES, comes, straightFrom,
} from './edge-line'

/** Px by which the fields of two parts of the line overlap, so that none is left out between them. */
const OVER: f32 = 0.01
const FLAT: f32 = 1e-6

/**
 * Keeps the squares of distances to a part of the line, in the field between two straight lines that is nearer to it than to its neighbours:
 * (p − a)·s ≥ 0 and (p − b)·e ≤ 0. The part goes from a to b, along e where it has a length; all counted from the pixel (bx, by), so that
 * the same bits come out wherever the plane begins. With `bounds`, a plane of distances to some place of the line, pixels to which another
 * part must be nearer are passed over: no bit of the result depends on it.
 */
function field(
  dst: usize, w: i32, h: i32, bx: i32, by: i32, bounds: usize,
  ax: f32, ay: f32, sx: f32, sy: f32, cx: f32, cy: f32, ex: f32, ey: f32, length: f32, reach: f32,
): void {
  const top = max(-by, <i32>floor<f32>(min(ay, cy) - reach)), bottom = min(h - 1 - by, <i32>ceil<f32>(max(ay, cy) + reach))
  if (!bounds) {
    const left = max(-bx, <i32>floor<f32>(min(ax, cx) - reach)), right = min(w - 1 - bx, <i32>ceil<f32>(max(ax, cx) + reach))
    for (let y = top; y <= bottom; y++) {
      fieldRow(dst, w, bx, by, y, left, right, ax, ay, sx, sy, cx, cy, ex, ey, length, reach)
    }
    return
  }
  const first = <i32>floor<f32>(min(ay, cy)) - LEVEL, last = <i32>ceil<f32>(max(ay, cy)) + LEVEL
  // Pixels for which the part is nearest, and the way from it to them, lie without a gap. So rows beside it are looked at outward as far as
  // there are such, and each farther row as far as the one before it lets expect them.
  let left = i32.MAX_VALUE, right = i32.MIN_VALUE, leftUp = i32.MAX_VALUE, rightUp = i32.MIN_VALUE
  // The way from the part runs beside the pixels of such a row, by as many rows as there are.
  const rows: i32 = 2 * (last - first - LEVEL) + 1
  const beside = <f32>rows
  const near = <i32>floor<f32>(min(ax, cx)), far = <i32>ceil<f32>(max(ax, cx))
  for (let y = max(top, first); y <= min(bottom, last); y++) {
    let from = max(-bx, min(w - 1 - bx, near)), to = max(-bx, min(w - 1 - bx, far))
    while (from > -bx && maybe(bounds, w, bx, by, from - 1, y, ax, ay, ex, ey, length, beside)) from--
    while (to < w - 1 - bx && maybe(bounds, w, bx, by, to + 1, y, ax, ay, ex, ey, length, beside)) to++
    fieldRow(dst, w, bx, by, y, from, to, ax, ay, sx, sy, cx, cy, ex, ey, length, reach)
    if (y == first) {
      leftUp = from
      rightUp = to
    }
    left = from
    right = to
  }
  if (first >= top) {
    for (let y = first - 1, k = LEVEL; y >= top && leftUp <= rightUp; y--, k++) {
      leftUp = wider(leftUp, far, k, -1, -bx)
      rightUp = wider(rightUp, near, k, 1, w - 1 - bx)
      while (leftUp <= rightUp && !maybe(bounds, w, bx, by, leftUp, y, ax, ay, ex, ey, length, FROM_PART)) leftUp++
      while (leftUp <= rightUp && !maybe(bounds, w, bx, by, rightUp, y, ax, ay, ex, ey, length, FROM_PART)) rightUp--
      fieldRow(dst, w, bx, by, y, leftUp, rightUp, ax, ay, sx, sy, cx, cy, ex, ey, length, reach)
    }
  }
  if (last > bottom) return
  for (let y = last + 1, k = LEVEL; y <= bottom && left <= right; y++, k++) {
    left = wider(left, far, k, -1, -bx)
    right = wider(right, near, k, 1, w - 1 - bx)
    while (left <= right && !maybe(bounds, w, bx, by, left, y, ax, ay, ex, ey, length, FROM_PART)) left++
    while (left <= right && !maybe(bounds, w, bx, by, right, y, ax, ay, ex, ey, length, FROM_PART)) right--
    fieldRow(dst, w, bx, by, y, left, right, ax, ay, sx, sy, cx, cy, ex, ey, length, reach)
  }
}

/** Rows above and below a part that are looked at outward from it. */
const LEVEL = 2
/** Px by which the bound of a pixel may be passed: the place for which the part is nearest is up to half a pixel beside it. */
const FROM_PART: f32 = 2.5

/** Where the ways from a part can have come to one row on, at the side `way`: `part` is its end on the other side; k: rows gone so far. */
@inline
function wider(x: i32, part: i32, k: i32, way: i32, end: i32): i32 {
  const out = (x - part) * way
  const next = out > 0 ? x + way * (<i32>ceil<f32>(<f32>out / <f32>k) + 1) : x + way
  return way > 0 ? min(end, next) : max(end, next)
}

/** Whether the part may be the nearest one to a pixel, or to places about it. */
@inline
function maybe(
  bounds: usize, w: i32, bx: i32, by: i32, x: i32, y: i32, ax: f32, ay: f32, ex: f32, ey: f32, length: f32, slack: f32,
): bool {
  const dx: f32 = <f32>x - ax, dy: f32 = <f32>y - ay
  const along: f32 = min(length, max<f32>(0, dx * ex + dy * ey))
  const ox: f32 = dx - along * ex, oy: f32 = dy - along * ey
  const most: f32 = load<f32>(bounds + (<usize>((by + y) * w + bx + x) << 2)) + slack
  return ox * ox + oy * oy <= most * most
}

/** A row of `field`, from `left` to `right`. */
@inline
function fieldRow(
  dst: usize, w: i32, bx: i32, by: i32, y: i32, left: i32, right: i32,
  ax: f32, ay: f32, sx: f32, sy: f32, cx: f32, cy: f32, ex: f32, ey: f32, length: f32, reach: f32,
): void {
  const most: f32 = reach * reach
  const perS: f32 = abs(sx) > FLAT ? <f32>1 / sx : 0, perE: f32 = abs(ex) > FLAT ? <f32>1 / ex : 0
  const fy = <f32>y
  let from = <f32>left, to = <f32>right
  const startAt: f32 = -OVER - (fy - ay) * sy
  if (perS == 0) {
    if (startAt > 0) return
  } else if (perS > 0) from = max(from, ax + startAt * perS)
  else to = min(to, ax + startAt * perS)
  const endAt: f32 = OVER - (fy - cy) * ey
  if (perE == 0) {
    if (endAt < 0) return
  } else if (perE > 0) to = min(to, cx + endAt * perE)
  else from = max(from, cx + endAt * perE)
  const last = <i32>floor<f32>(to)
  let at: usize = dst + (<usize>((by + y) * w + bx + <i32>ceil<f32>(from)) << 2)
  for (let x = <i32>ceil<f32>(from); x <= last; x++, at += 4) {
    const dx: f32 = <f32>x - ax, dy: f32 = fy - ay
    const along: f32 = min(length, max<f32>(0, dx * ex + dy * ey))
    const ox: f32 = dx - along * ex, oy: f32 = dy - along * ey
    const squared: f32 = ox * ox + oy * oy
    if (squared <= most && squared < load<f32>(at)) store<f32>(at, squared)
  }
}

const FAR: f32 = 1e12

// Corners. Half of a corner's pixel is covered only within the corner itself: the line along which alpha passes one half cuts it off, by up
// to half a pixel. Where the line is straight on both sides of a sharp turn, both sides are drawn on until they meet.

/** Cosine of the least turn, 30°: of smaller ones hardly anything is cut off. */
const TURNS: f32 = 0.866
/**
 * Px between the line and the place at which both sides meet, for a right angle; for others times tan(turn / 2). A round corner whose line
 * stays farther away is round.
 */
const CUT_OFF: f32 = 0.66

/** Distance of a place to the straight part of a line from a to c. */
function toPart(vx: f32, vy: f32, ax: f32, ay: f32, cx: f32, cy: f32): f32 {
  const ex: f32 = cx - ax, ey: f32 = cy - ay
  const along: f32 = min<f32>(1, max<f32>(0, ((vx - ax) * ex + (vy - ay) * ey) / (ex * ex + ey * ey)))
  const ox: f32 = vx - ax - along * ex, oy: f32 = vy - ay - along * ey
  return sqrt<f32>(ox * ox + oy * oy)
}

/** Measures to the corner about a square, where there is one. */
function measureCorner(
  alpha: usize, dst: usize, w: i32, h: i32, right: usize, down: usize,
  x: i32, y: i32, from: i32, side: i32, bounds: usize, reach: f32, walk: usize,
): void {
  if (!straightFrom(alpha, w, h, right, down, x, y, from, true, walk)) return
  const ax = load<f32>(walk, PLACES), ay = load<f32>(walk, PLACES + 4)
  let sx = ax - load<f32>(walk, PLACES + 16), sy = ay - load<f32>(walk, PLACES + 20)
  if (!straightFrom(alpha, w, h, right, down, x, y, side, false, walk)) return
  const cx = load<f32>(walk, PLACES), cy = load<f32>(walk, PLACES + 4)
  let ex = load<f32>(walk, PLACES + 16) - cx, ey = load<f32>(walk, PLACES + 20) - cy
  const back = sqrt<f32>(sx * sx + sy * sy), ahead = sqrt<f32>(ex * ex + ey * ey)
  sx /= back
  sy /= back
  ex /= ahead
  ey /= ahead
  const turn: f32 = sx * ey - sy * ex
  if (sx * ex + sy * ey > TURNS || abs(turn) < <f32>0.1) return
  // Where a + p·s meets c − q·e.
  const p: f32 = ((cx - ax) * ey - (cy - ay) * ex) / turn, q: f32 = ((cx - ax) * sy - (cy - ay) * sx) / -turn
  const vx: f32 = ax + p * sx, vy: f32 = ay + p * sy
  if (p <= 0 || q <= 0) return
  const away = toPart(vx, vy, sideX(right, w, x, y, from), sideY(down, w, x, y, from), sideX(right, w, x, y, side), sideY(down, w, x, y, side))
  if (away > CUT_OFF * abs(turn) / (<f32>1 + sx * ex + sy * ey)) return
  field(dst, w, h, x, y, bounds, ax, ay, sx, sy, vx, vy, sx, sy, p, reach)
  field(dst, w, h, x, y, bounds, vx, vy, sx, sy, vx, vy, ex, ey, 0, reach)
  field(dst, w, h, x, y, bounds, vx, vy, ex, ey, cx, cy, ex, ey, q, reach)
}

/** Pixels that all parts of the line together may be held against, for each pixel of the plane, before it is worth to know bounds first. */
const MUCH: f64 = 64

/** Takes the way to the line of the pixel `by` words beside one, where it is shorter from there. (dx, dy): from this one to that one. */
@inline
function handOn(aside: usize, below: usize, at: usize, by: i32, dx: f32, dy: f32): void {
  const other: usize = at + <usize>(by << 2)
  const ox: f32 = load<f32>(aside + other) + dx, oy: f32 = load<f32>(below + other) + dy
  const x = load<f32>(aside + at), y = load<f32>(below + at)
  if (ox * ox + oy * oy < x * x + y * y) {
    store<f32>(aside + at, ox)
    store<f32>(below + at, oy)
  }
}

/**
 * For each pixel how far some place of the line is, hardly ever more than a part of a pixel farther than the nearest: in `aside`. Ways are
 * handed on from pixel to pixel (P.-E. Danielsson, Euclidean Distance Mapping, 1980).
 */
function waysToLine(alpha: usize, w: i32, h: i32, right: usize, down: usize, aside: usize, below: usize): void {
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at: usize = <usize>(y * w + x) << 2
      const here = isIn(load<f32>(alpha + at))
      let ox: f32 = 1e6, oy: f32 = 1e6
      if (x < w - 1 && here != isIn(load<f32>(alpha + at + 4))) {
        ox = load<f32>(right + at)
        oy = 0
      }
      if (x > 0 && here != isIn(load<f32>(alpha + at - 4))) {
        const way: f32 = load<f32>(right + at - 4) - <f32>1
        if (abs(way) < abs(ox)) {
          ox = way
          oy = 0
        }
      }
      const near: f32 = oy == 0 ? abs(ox) : <f32>1e6
      let up: f32 = near
      if (y < h - 1 && here != isIn(load<f32>(alpha + at + (<usize>w << 2)))) {
        const way = load<f32>(down + at)
        if (way < up) {
          up = way
          ox = 0
          oy = way
        }
      }
      if (y > 0 && here != isIn(load<f32>(alpha + at - (<usize>w << 2)))) {
        const way: f32 = load<f32>(down + at - (<usize>w << 2)) - <f32>1
        if (abs(way) < up) {
          ox = 0
          oy = way
        }
      }
      store<f32>(aside + at, ox)
      store<f32>(below + at, oy)
    }
  }
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at: usize = <usize>(y * w + x) << 2
      if (x > 0) handOn(aside, below, at, -1, -1, 0)
      if (y == 0) continue
      handOn(aside, below, at, -w, 0, -1)
      if (x > 0) handOn(aside, below, at, -w - 1, -1, -1)
      if (x < w - 1) handOn(aside, below, at, -w + 1, 1, -1)
    }
    for (let x = w - 2; x >= 0; x--) handOn(aside, below, <usize>(y * w + x) << 2, 1, 1, 0)
  }
  for (let y = h - 1; y >= 0; y--) {
    for (let x = w - 1; x >= 0; x--) {
      const at: usize = <usize>(y * w + x) << 2
      if (x < w - 1) handOn(aside, below, at, 1, 1, 0)
      if (y == h - 1) continue
      handOn(aside, below, at, w, 0, 1)
      if (x < w - 1) handOn(aside, below, at, w + 1, 1, 1)
      if (x > 0) handOn(aside, below, at, w - 1, -1, 1)
    }
    for (let x = 1; x < w; x++) handOn(aside, below, <usize>(y * w + x) << 2, -1, -1, 0)
  }
  for (let i: usize = 0, end: usize = <usize>(w * h) << 2; i < end; i += 4) {
    const ox = load<f32>(aside + i), oy = load<f32>(below + i)
    store<f32>(aside + i, sqrt<f32>(ox * ox + oy * oy))
  }
}

/**
 * Signed distance from pixel centres to where alpha passes one half, negative inside; exact up to `reach`, farther ones are ±1e6.
 * right, down: scratch planes for where the line crosses the ways between pixels; aside, below: for ways to the line; `walk`: scratch of 64
 * bytes.
 */
export function fieldDistance(
  alpha: usize, dst: usize, w: i32, h: i32, right: usize, down: usize, aside: usize, below: usize, walk: usize, reach: f32,
): void {
  let crossings = 0
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at: usize = <usize>(y * w + x) << 2
      store<f32>(dst + at, FAR)
      const here = isIn(load<f32>(alpha + at))
      if (x < w - 1 && here != isIn(load<f32>(alpha + at, 4))) {
        store<f32>(right + at, crossing(alpha, w, h, x, y, 0, walk))
        crossings++
      }
      if (y < h - 1 && here != isIn(load<f32>(alpha + at + (<usize>w << 2)))) {
        store<f32>(down + at, crossing(alpha, w, h, x, y, 1, walk))
        crossings++
      }
    }
  }
  let bounds: usize = 0
  if (<f64>crossings * <f64>reach * <f64>reach > MUCH * <f64>w * <f64>h) {
    waysToLine(alpha, w, h, right, down, aside, below)
    bounds = aside
  }
  for (let y = 0; y < h - 1; y++) {
    for (let x = 0; x < w - 1; x++) {
      const at: usize = alpha + (<usize>(y * w + x) << 2), under: usize = at + (<usize>w << 2)
      const first = isIn(load<f32>(at))
      if (first == isIn(load<f32>(at, 4)) && first == isIn(load<f32>(under)) && first == isIn(load<f32>(under, 4))) continue
      for (let from = 0; from < SIDES; from++) {
        const side = leaves(alpha, w, h, x, y, from)
        if (side < 0) continue
        measure(alpha, dst, w, h, right, down, x, y, from, side, bounds, reach)
        measureCorner(alpha, dst, w, h, right, down, x, y, from, side, bounds, reach, walk)
      }
    }
  }
  for (let i: usize = 0, end: usize = <usize>(w * h) << 2; i < end; i += 4) {
    const squared = load<f32>(dst + i)
    const d: f32 = squared < FAR ? sqrt<f32>(squared) : 1e6
    store<f32>(dst + i, isIn(load<f32>(alpha + i)) ? -d : d)
  }
}

/** Measures to the line through a square, and to the corner that it makes with the line that goes on from it. */
function measure(
  alpha: usize, dst: usize, w: i32, h: i32, right: usize, down: usize, x: i32, y: i32, from: i32, side: i32, bounds: usize,
  reach: f32,
): void {
  const ax = sideX(right, w, x, y, from), ay = sideY(down, w, x, y, from)
  const cx = sideX(right, w, x, y, side), cy = sideY(down, w, x, y, side)
  const length = sqrt<f32>((cx - ax) * (cx - ax) + (cy - ay) * (cy - ay))
  const ex: f32 = (cx - ax) / length, ey: f32 = (cy - ay) / length
  field(dst, w, h, x, y, bounds, ax, ay, ex, ey, cx, cy, ex, ey, length, reach)
  // The square beyond that side, and the same side as it has it.
  const nx = x + (side == 1 ? 1 : side == 3 ? -1 : 0), ny = y + (side == 2 ? 1 : side == 0 ? -1 : 0)
  const into = side ^ 2
  const out = leaves(alpha, w, h, nx, ny, into)
  // Where the line comes from beyond the plane, or goes there, its end is the nearest of it to what lies beyond that.
  const px = x + (from == 1 ? 1 : from == 3 ? -1 : 0), py = y + (from == 2 ? 1 : from == 0 ? -1 : 0)
  if (px < 0 || py < 0 || px >= w - 1 || py >= h - 1) {
    field(dst, w, h, x, y, bounds, ax, ay, -ex, -ey, ax, ay, 0, 0, 0, reach)
  }
  if (out < 0) {
    field(dst, w, h, x, y, bounds, cx, cy, ex, ey, cx, cy, 0, 0, 0, reach)
    return
  }
  const gx = sideX(right, w, nx, ny, out) + <f32>(nx - x) - cx, gy = sideY(down, w, nx, ny, out) + <f32>(ny - y) - cy
  const ahead = sqrt<f32>(gx * gx + gy * gy)
  const fx: f32 = gx / ahead, fy: f32 = gy / ahead
  // As good as straight: the fields of both overlap by more.
  if (abs(ex * fy - ey * fx) * reach < OVER && ex * fx + ey * fy > 0) return
  field(dst, w, h, x, y, bounds, cx, cy, ex, ey, cx, cy, fx, fy, 0, reach)
}
