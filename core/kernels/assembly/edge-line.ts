// The line along which alpha passes one half: where it crosses the ways between pixels, how it goes from square to square, and where it
// is straight.

/** Alpha of a pixel; beyond the plane that of its border. */
@inline
function alphaAt(alpha: usize, w: i32, h: i32, x: i32, y: i32): f32 {
  return load<f32>(alpha + (<usize>(min(h - 1, max(0, y)) * w + min(w - 1, max(0, x))) << 2))
}

const HALF: f32 = 0.5
@inline
export function isIn(a: f32): bool {
  return a > HALF
}

/**
 * How far inside its pixel's middle a straight edge lies that covers the share `a` of it; (gx, gy) is its unit normal.
 * The inverse of the area that a half plane takes of a pixel.
 */
@inline
function edgeWithin(a: f32, gx: f32, gy: f32): f32 {
  const m = max(abs(gx), abs(gy)), n = min(abs(gx), abs(gy))
  const c: f32 = a > HALF ? <f32>1 - a : a
  const s: f32 = <f32>2 * m * c >= n ? (HALF - c) * m : HALF * (m + n) - sqrt<f32>(<f32>2 * m * n * c)
  return a > HALF ? -s : s
}

/** Changes of alpha about a pixel: a hard edge shows 4 of them, however it runs; a soft one fewer, as its width asks. */
const HARD: f32 = 3.2
const SOFT: f32 = 2.4
/** An edge that runs along the way from one pixel to the next is not found on that way. */
const ALONG: f32 = 0.35

/**
 * Where on the way from a pixel to one of its neighbours, (ex, ey) away, the straight edge lies that runs through the pixel, as its alpha
 * and those around it tell. Gives the place in `out` and returns how much that counts: nothing where no hard edge runs through it.
 */
function placeFrom(alpha: usize, w: i32, h: i32, x: i32, y: i32, ex: f32, ey: f32, out: usize): f32 {
  const a = alphaAt(alpha, w, h, x, y)
  const sure: f32 = min(a, <f32>1 - a)
  if (sure <= 0) return 0
  const lt = alphaAt(alpha, w, h, x - 1, y - 1), t = alphaAt(alpha, w, h, x, y - 1), rt = alphaAt(alpha, w, h, x + 1, y - 1)
  const l = alphaAt(alpha, w, h, x - 1, y), r = alphaAt(alpha, w, h, x + 1, y)
  const lb = alphaAt(alpha, w, h, x - 1, y + 1), b = alphaAt(alpha, w, h, x, y + 1), rb = alphaAt(alpha, w, h, x + 1, y + 1)
  let gx: f32 = lt + <f32>2 * l + lb - rt - <f32>2 * r - rb, gy: f32 = lt + <f32>2 * t + rt - lb - <f32>2 * b - rb
  const length = sqrt<f32>(gx * gx + gy * gy)
  if (length <= SOFT) return 0
  gx /= length
  gy /= length
  const across: f32 = ex * gx + ey * gy
  if (abs(across) < ALONG) return 0
  store<f32>(out, -edgeWithin(a, gx, gy) / across)
  return sure * min<f32>(1, (length - SOFT) / (HARD - SOFT))
}

/** Ends of a way between two pixels, at which the edge never lies: parts of it have a direction. */
const NEAR: f32 = 0.001
/** How much a pixel counts at the least that has no hard edge, in the mean of both. */
const EVEN: f32 = 0.02

/** Where on the way from a pixel to its neighbour to the right, or below it, alpha passes one half: 0–1. */
export function crossing(alpha: usize, w: i32, h: i32, x: i32, y: i32, down: i32, out: usize): f32 {
  const qx = x + 1 - down, qy = y + down
  const a = alphaAt(alpha, w, h, x, y), b = alphaAt(alpha, w, h, qx, qy)
  const ex: f32 = down ? 0 : 1, ey: f32 = down ? 1 : 0
  // Of a soft edge the place is where the straight line between both values passes one half.
  let at: f32 = EVEN * ((a - HALF) / (a - b)), all: f32 = EVEN
  const first = placeFrom(alpha, w, h, x, y, ex, ey, out)
  if (first > 0) {
    at += first * load<f32>(out)
    all += first
  }
  const second = placeFrom(alpha, w, h, qx, qy, -ex, -ey, out)
  if (second > 0) {
    at += second * (<f32>1 - load<f32>(out))
    all += second
  }
  return min<f32>(<f32>1 - NEAR, max<f32>(NEAR, at / all))
}

// A square between four pixel centres, by its corner at the top left. Its sides: 0 above, 1 right, 2 below, 3 left. Lines run from side to
// side with what is opaque on their right.

/** From which side a line goes on that comes into a square by the side `from`; −1: none. */
export function leaves(alpha: usize, w: i32, h: i32, x: i32, y: i32, from: i32): i32 {
  if (x < 0 || y < 0 || x >= w - 1 || y >= h - 1) return -1
  const at: usize = alpha + (<usize>(y * w + x) << 2), below: usize = at + (<usize>w << 2)
  const lt = load<f32>(at), rt = load<f32>(at, 4), lb = load<f32>(below), rb = load<f32>(below, 4)
  const corners = i32(isIn(lt)) | (i32(isIn(rt)) << 1) | (i32(isIn(rb)) << 2) | (i32(isIn(lb)) << 3)
  // Two lines where corners across from each other are opaque: what their middle is tells which belong together.
  const joined = isIn(<f32>0.25 * (lt + rt + lb + rb))
  switch (corners) {
    case 1: return from == 0 ? 3 : -1
    case 2: return from == 1 ? 0 : -1
    case 3: return from == 1 ? 3 : -1
    case 4: return from == 2 ? 1 : -1
    case 5: return from == 0 ? (joined ? 1 : 3) : from == 2 ? (joined ? 3 : 1) : -1
    case 6: return from == 2 ? 0 : -1
    case 7: return from == 2 ? 3 : -1
    case 8: return from == 3 ? 2 : -1
    case 9: return from == 0 ? 2 : -1
    case 10: return from == 1 ? (joined ? 2 : 0) : from == 3 ? (joined ? 0 : 2) : -1
    case 11: return from == 1 ? 2 : -1
    case 12: return from == 3 ? 1 : -1
    case 13: return from == 0 ? 1 : -1
    case 14: return from == 3 ? 0 : -1
    default: return -1
  }
}

/** The place at which a line crosses a side of a square, from the square's first corner on. */
@inline
export function sideX(right: usize, w: i32, x: i32, y: i32, side: i32): f32 {
  return side == 1 ? 1 : side == 3 ? 0 : load<f32>(right + (<usize>((side == 2 ? y + 1 : y) * w + x) << 2))
}
@inline
export function sideY(down: usize, w: i32, x: i32, y: i32, side: i32): f32 {
  return side == 2 ? 1 : side == 0 ? 0 : load<f32>(down + (<usize>(y * w + (side == 1 ? x + 1 : x)) << 2))
}

/** The sides at which lines can come into a square. */
export const SIDES = 4

/** Squares beside a corner whose places its own alpha changes; from there on so many more tell the direction. */
const BESIDE = 3
const STRAIGHT = 4
/** Px that the middle of those may lie aside of the straight line through the others: arcs from 40 px on do. */
const ASIDE: f32 = 0.03

// Scratch of whoever walks along the line: the square and the side that it has come to, and three places.
const WALK_X: usize = 0, WALK_Y: usize = 4, WALK_SIDE: usize = 8
export const PLACES: usize = 16

/** By which side the line that leaves a square by `side` comes into it; −1: none. */
export function comes(alpha: usize, w: i32, h: i32, x: i32, y: i32, side: i32): i32 {
  for (let from = 0; from < SIDES; from++) if (leaves(alpha, w, h, x, y, from) == side) return from
  return -1
}

/** Goes on by so many squares, back or ahead, to the side at which the line leaves there; false where it ends before. */
function walked(alpha: usize, w: i32, h: i32, steps: i32, back: bool, walk: usize): bool {
  let x = load<i32>(walk, WALK_X), y = load<i32>(walk, WALK_Y), side = load<i32>(walk, WALK_SIDE)
  for (let i = 0; i < steps; i++) {
    x += side == 1 ? 1 : side == 3 ? -1 : 0
    y += side == 2 ? 1 : side == 0 ? -1 : 0
    side = back ? comes(alpha, w, h, x, y, side ^ 2) : leaves(alpha, w, h, x, y, side ^ 2)
    if (side < 0) return false
  }
  store<i32>(walk, x, WALK_X)
  store<i32>(walk, y, WALK_Y)
  store<i32>(walk, side, WALK_SIDE)
  return true
}

/** Three places along the line from a side of a square on, counted from that square; false where it is not straight there. */
export function straightFrom(
  alpha: usize, w: i32, h: i32, right: usize, down: usize, x: i32, y: i32, side: i32, back: bool, walk: usize,
): bool {
  store<i32>(walk, x, WALK_X)
  store<i32>(walk, y, WALK_Y)
  store<i32>(walk, side, WALK_SIDE)
  for (let i = 0; i < 3; i++) {
    if (!walked(alpha, w, h, i == 0 ? BESIDE : STRAIGHT / 2, back, walk)) return false
    const px = load<i32>(walk, WALK_X), py = load<i32>(walk, WALK_Y), at = load<i32>(walk, WALK_SIDE)
    const place = walk + PLACES + <usize>(i << 3)
    store<f32>(place, sideX(right, w, px, py, at) + <f32>(px - x))
    store<f32>(place, sideY(down, w, px, py, at) + <f32>(py - y), 4)
  }
  const ax = load<f32>(walk, PLACES), ay = load<f32>(walk, PLACES + 4)
  const mx = load<f32>(walk, PLACES + 8) - ax, my = load<f32>(walk, PLACES + 12) - ay
  const ex = load<f32>(walk, PLACES + 16) - ax, ey = load<f32>(walk, PLACES + 20) - ay
  const length = sqrt<f32>(ex * ex + ey * ey)
  return length > 1 && abs(mx * ey - my * ex) < ASIDE * length
}
