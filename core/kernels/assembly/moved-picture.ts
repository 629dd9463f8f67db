// A picture read at other places than its own: moved as a whole, by a map, or channel by channel. The picture is a window at
// (sx, sy) on the card; beyond it there is nothing. What a place beyond the edges of an area stands for, `edges` says.
import { blueAlpha, firstOf, lumas, redGreen, secondOf } from './four-pixels'

/** What lies there; nothing; the last pixel; the picture mirrored; the picture again. */
const OPEN = 0, CLEAR = 1, HELD = 2, MIRRORED = 3, WRAPPED = 4

/** The pixel that a place beyond the area from `low` to `high` stands for; `none` for nothing. */
const NONE = i32.MIN_VALUE

@inline
function standsFor(i: i32, low: i32, high: i32, edges: i32): i32 {
  if (edges == OPEN || (i >= low && i < high)) return i
  if (edges == CLEAR || high <= low) return NONE
  if (edges == HELD) return i < low ? low : high - 1
  const span = high - low
  if (edges == WRAPPED) {
    const rest = (i - low) % span
    return low + (rest < 0 ? rest + span : rest)
  }
  let rest = (i - low) % (2 * span)
  if (rest < 0) rest += 2 * span
  return low + (rest < span ? rest : 2 * span - 1 - rest)
}

/** A picture, its window on the card, and the area whose edges count. */
@unmanaged class Source {
  at: usize
  stride: usize
  x: i32
  y: i32
  w: i32
  h: i32
  edges: i32
  left: i32
  top: i32
  right: i32
  bottom: i32
}

@inline
function tap(s: Source, x: i32, y: i32): v128 {
  const i = standsFor(x, s.left, s.right, s.edges), j = standsFor(y, s.top, s.bottom, s.edges)
  if (i == NONE || j == NONE) return f32x4.splat(0)
  const u = i - s.x, v = j - s.y
  if (u < 0 || v < 0 || u >= s.w || v >= s.h) return f32x4.splat(0)
  return v128.load(s.at + <usize>v * s.stride + (<usize>u << 4))
}

/** Whether a square of pixels from (x, y) lies within the window and the area. */
@inline
function isInside(s: Source, x: i32, y: i32, size: i32): bool {
  if (x < s.x || y < s.y || x + size > s.x + s.w || y + size > s.y + s.h) return false
  return s.edges == OPEN || (x >= s.left && y >= s.top && x + size <= s.right && y + size <= s.bottom)
}

@inline
function mixedOf(a: v128, b: v128, c: v128, d: v128, ku: v128, kv: v128): v128 {
  const top = f32x4.add(a, f32x4.mul(ku, f32x4.sub(b, a))), low = f32x4.add(c, f32x4.mul(ku, f32x4.sub(d, c)))
  // Rounding may go over whole by a last bit.
  return f32x4.pmin(f32x4.splat(1), f32x4.add(top, f32x4.mul(kv, f32x4.sub(low, top))))
}

/** Between the four pixels from (x, y) on, all of which lie inside. */
@inline
function readInside(s: Source, x: i32, y: i32, ku: v128, kv: v128): v128 {
  const p = s.at + <usize>(y - s.y) * s.stride + (<usize>(x - s.x) << 4), q = p + s.stride
  return mixedOf(v128.load(p), v128.load(p, 16), v128.load(q), v128.load(q, 16), ku, kv)
}

/** Between the four pixels from (x, y) on. */
function readAnywhere(s: Source, x: i32, y: i32, ku: v128, kv: v128): v128 {
  if (isInside(s, x, y, 2)) return readInside(s, x, y, ku, kv)
  return mixedOf(tap(s, x, y), tap(s, x + 1, y), tap(s, x, y + 1), tap(s, x + 1, y + 1), ku, kv)
}

/** Between the four pixels around a place. */
@inline
function bilinear(s: Source, u: f32, v: f32): v128 {
  const fu = floor<f32>(u), fv = floor<f32>(v)
  return readAnywhere(s, <i32>fu, <i32>fv, f32x4.splat(u - fu), f32x4.splat(v - fv))
}

/** The pixels whose neighbours to the right and below lie inside too: from `low`, `size` of them. */
@inline
function innerFrom(low: i32, edgeLow: i32, edges: i32): i32 {
  return edges == OPEN ? low : max(low, edgeLow)
}

@inline
function innerSize(low: i32, size: i32, edgeLow: i32, edgeHigh: i32, edges: i32): i32 {
  const high = edges == OPEN ? low + size : min(low + size, edgeHigh)
  return max(0, high - innerFrom(low, edgeLow, edges) - 1)
}

/** Four places at once, into four pixels from q on; `inner` is where all that they read lies inside. */
@inline
function readFour(s: Source, u: v128, v: v128, q: usize, innerX: v128, innerY: v128, innerW: v128, innerH: v128): void {
  const fu = f32x4.floor(u), fv = f32x4.floor(v)
  const x = i32x4.trunc_sat_f32x4_s(fu), y = i32x4.trunc_sat_f32x4_s(fv)
  const ku = f32x4.sub(u, fu), kv = f32x4.sub(v, fv)
  const k0 = v128.shuffle<f32>(ku, ku, 0, 0, 0, 0), k1 = v128.shuffle<f32>(ku, ku, 1, 1, 1, 1)
  const k2 = v128.shuffle<f32>(ku, ku, 2, 2, 2, 2), k3 = v128.shuffle<f32>(ku, ku, 3, 3, 3, 3)
  const l0 = v128.shuffle<f32>(kv, kv, 0, 0, 0, 0), l1 = v128.shuffle<f32>(kv, kv, 1, 1, 1, 1)
  const l2 = v128.shuffle<f32>(kv, kv, 2, 2, 2, 2), l3 = v128.shuffle<f32>(kv, kv, 3, 3, 3, 3)
  const inside = v128.and(i32x4.lt_u(i32x4.sub(x, innerX), innerW), i32x4.lt_u(i32x4.sub(y, innerY), innerH))
  if (i32x4.all_true(inside)) {
    v128.store(q, readInside(s, i32x4.extract_lane(x, 0), i32x4.extract_lane(y, 0), k0, l0))
    v128.store(q, readInside(s, i32x4.extract_lane(x, 1), i32x4.extract_lane(y, 1), k1, l1), 16)
    v128.store(q, readInside(s, i32x4.extract_lane(x, 2), i32x4.extract_lane(y, 2), k2, l2), 32)
    v128.store(q, readInside(s, i32x4.extract_lane(x, 3), i32x4.extract_lane(y, 3), k3, l3), 48)
  } else {
    v128.store(q, readAnywhere(s, i32x4.extract_lane(x, 0), i32x4.extract_lane(y, 0), k0, l0))
    v128.store(q, readAnywhere(s, i32x4.extract_lane(x, 1), i32x4.extract_lane(y, 1), k1, l1), 16)
    v128.store(q, readAnywhere(s, i32x4.extract_lane(x, 2), i32x4.extract_lane(y, 2), k2, l2), 32)
    v128.store(q, readAnywhere(s, i32x4.extract_lane(x, 3), i32x4.extract_lane(y, 3), k3, l3), 48)
  }
}

/** A cubic through four values at −1, 0, 1, 2 (E. Catmull, R. Rom, A class of local interpolating splines, 1974). */
@inline
function cubic(a: v128, b: v128, c: v128, d: v128, t: v128): v128 {
  const half = f32x4.splat(0.5)
  const first = f32x4.sub(c, a)
  const second = f32x4.sub(
    f32x4.add(f32x4.add(a, a), f32x4.mul(f32x4.splat(4), c)), f32x4.add(f32x4.mul(f32x4.splat(5), b), d))
  const third = f32x4.add(f32x4.mul(f32x4.splat(3), f32x4.sub(b, c)), f32x4.sub(d, a))
  return f32x4.add(b, f32x4.mul(half, f32x4.mul(t, f32x4.add(first, f32x4.mul(t, f32x4.add(second, f32x4.mul(t, third)))))))
}

@inline
function cubicRow(s: Source, x: i32, y: i32, inside: bool, t: v128): v128 {
  if (inside) {
    const p = s.at + <usize>(y - s.y) * s.stride + (<usize>(x - s.x) << 4)
    return cubic(v128.load(p - 16), v128.load(p), v128.load(p, 16), v128.load(p, 32), t)
  }
  return cubic(tap(s, x - 1, y), tap(s, x, y), tap(s, x + 1, y), tap(s, x + 2, y), t)
}

/** Through the sixteen pixels around a place; sharper than between four. */
function bicubic(s: Source, u: f32, v: f32): v128 {
  const fu = floor<f32>(u), fv = floor<f32>(v)
  const x = <i32>fu, y = <i32>fv
  const ku = f32x4.splat(u - fu), kv = f32x4.splat(v - fv)
  const inside = isInside(s, x - 1, y - 1, 4)
  const out = cubic(
    cubicRow(s, x, y - 1, inside, ku), cubicRow(s, x, y, inside, ku),
    cubicRow(s, x, y + 1, inside, ku), cubicRow(s, x, y + 2, inside, ku), kv)
  // The curve swings over: alpha stays within 0–1, colours within alpha.
  const alpha: f32 = min<f32>(1, max<f32>(0, f32x4.extract_lane(out, 3)))
  return f32x4.replace_lane(f32x4.pmin(f32x4.splat(alpha), f32x4.pmax(f32x4.splat(0), out)), 3, alpha)
}

/** The picture at u = a·x + b·y + e, v = c·x + d·y + f of each pixel's centre; (x0, y0) is where dst lies on the card. */
export function moveRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize, smooth: bool,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64,
): void {
  const s = changetype<Source>(source)
  const innerX = i32x4.splat(innerFrom(s.x, s.left, s.edges)), innerY = i32x4.splat(innerFrom(s.y, s.top, s.edges))
  const innerW = i32x4.splat(innerSize(s.x, s.w, s.left, s.right, s.edges))
  const innerH = i32x4.splat(innerSize(s.y, s.h, s.top, s.bottom, s.edges))
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const py = <f64>(y + y0) + 0.5
    const ru = b * py + e - 0.5, rv = d * py + f - 0.5
    let x = 0
    if (!smooth) {
      for (; x + 4 <= w; x += 4, q += 64) {
        const first = f64x2.add(f64x2.splat(<f64>(x + x0)), f64x2(0.5, 1.5)), second = f64x2.add(first, f64x2.splat(2))
        readFour(s, along(a, ru, first, second), along(c, rv, first, second), q, innerX, innerY, innerW, innerH)
      }
    }
    for (; x < w; x++, q += 16) {
      const px = <f64>(x + x0) + 0.5
      const u = <f32>(a * px + ru), v = <f32>(c * px + rv)
      v128.store(q, smooth ? bicubic(s, u, v) : bilinear(s, u, v))
    }
  }
}

/** k · x + t for four places in double precision. */
@inline
function along(k: f64, t: f64, first: v128, second: v128): v128 {
  const left = f32x4.demote_f64x2_zero(f64x2.add(f64x2.mul(f64x2.splat(k), first), f64x2.splat(t)))
  const right = f32x4.demote_f64x2_zero(f64x2.add(f64x2.mul(f64x2.splat(k), second), f64x2.splat(t)))
  return v128.shuffle<f32>(left, right, 0, 1, 4, 5)
}

/** Each pixel reads the picture by the planes' px beside its own place; no plane moves nothing on its axis. */
export function displaceRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize, smooth: bool, right: usize, down: usize,
): void {
  const s = changetype<Source>(source)
  const innerX = i32x4.splat(innerFrom(s.x, s.left, s.edges)), innerY = i32x4.splat(innerFrom(s.y, s.top, s.edges))
  const innerW = i32x4.splat(innerSize(s.x, s.w, s.left, s.right, s.edges))
  const innerH = i32x4.splat(innerSize(s.y, s.h, s.top, s.bottom, s.edges))
  const lanes = f32x4(0, 1, 2, 3), zero = f32x4.splat(0)
  const stepX: usize = right ? 16 : 0, stepY: usize = down ? 16 : 0
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const row = f32x4.splat(<f32>(y + y0))
    for (let x = 0; x < w; x += 4, q += 64, right += stepX, down += stepY) {
      const dx = right ? v128.load(right) : zero, dy = down ? v128.load(down) : zero
      const u = f32x4.add(f32x4.add(f32x4.splat(<f32>(x + x0)), lanes), dx), v = f32x4.add(row, dy)
      if (smooth) {
        v128.store(q, bicubic(s, f32x4.extract_lane(u, 0), f32x4.extract_lane(v, 0)))
        v128.store(q, bicubic(s, f32x4.extract_lane(u, 1), f32x4.extract_lane(v, 1)), 16)
        v128.store(q, bicubic(s, f32x4.extract_lane(u, 2), f32x4.extract_lane(v, 2)), 32)
        v128.store(q, bicubic(s, f32x4.extract_lane(u, 3), f32x4.extract_lane(v, 3)), 48)
      } else readFour(s, u, v, q, innerX, innerY, innerW, innerH)
    }
  }
}

/** Red, green and blue each read beside their own place; alpha is the most that any of the three finds. */
export function partRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize,
  rx: f32, ry: f32, gx: f32, gy: f32, bx: f32, by: f32,
): void {
  const s = changetype<Source>(source)
  // All pixels lie alike between those that they read.
  const rX = <i32>floor<f32>(rx), rY = <i32>floor<f32>(ry), gX = <i32>floor<f32>(gx), gY = <i32>floor<f32>(gy)
  const bX = <i32>floor<f32>(bx), bY = <i32>floor<f32>(by)
  const rU = f32x4.splat(rx - floor<f32>(rx)), rV = f32x4.splat(ry - floor<f32>(ry))
  const gU = f32x4.splat(gx - floor<f32>(gx)), gV = f32x4.splat(gy - floor<f32>(gy))
  const bU = f32x4.splat(bx - floor<f32>(bx)), bV = f32x4.splat(by - floor<f32>(by))
  const innerX = innerFrom(s.x, s.left, s.edges), innerY = innerFrom(s.y, s.top, s.edges)
  const innerW = innerSize(s.x, s.w, s.left, s.right, s.edges), innerH = innerSize(s.y, s.h, s.top, s.bottom, s.edges)
  const lowX = innerX - min(rX, min(gX, bX)), highX = innerX + innerW - max(rX, max(gX, bX))
  const lowY = innerY - min(rY, min(gY, bY)), highY = innerY + innerH - max(rY, max(gY, bY))
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const v = y + y0
    const rows = v >= lowY && v < highY
    for (let x = 0; x < w; x++, q += 16) {
      const u = x + x0
      let r: v128, g: v128, b: v128
      if (rows && u >= lowX && u < highX) {
        r = readInside(s, u + rX, v + rY, rU, rV)
        g = readInside(s, u + gX, v + gY, gU, gV)
        b = readInside(s, u + bX, v + bY, bU, bV)
      } else {
        r = readAnywhere(s, u + rX, v + rY, rU, rV)
        g = readAnywhere(s, u + gX, v + gY, gU, gV)
        b = readAnywhere(s, u + bX, v + bY, bU, bV)
      }
      const alpha = f32x4.pmax(r, f32x4.pmax(g, b))
      v128.store(q, v128.shuffle<f32>(v128.shuffle<f32>(r, g, 0, 5, 0, 5), v128.shuffle<f32>(b, alpha, 2, 7, 2, 7), 0, 1, 4, 5))
    }
  }
}

/** As `partRows`, each channel enlarged by a factor about (cx, cy): a lens that bends colours apart. */
export function spreadRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize,
  cx: f32, cy: f32, rk: f32, gk: f32, bk: f32,
): void {
  const s = changetype<Source>(source)
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const v: f32 = <f32>(y + y0) + <f32>0.5 - cy
    for (let x = 0; x < w; x++, q += 16) {
      const u: f32 = <f32>(x + x0) + <f32>0.5 - cx
      const r = bilinear(s, cx - <f32>0.5 + u * rk, cy - <f32>0.5 + v * rk)
      const g = bilinear(s, cx - <f32>0.5 + u * gk, cy - <f32>0.5 + v * gk)
      const b = bilinear(s, cx - <f32>0.5 + u * bk, cy - <f32>0.5 + v * bk)
      const alpha = f32x4.pmax(r, f32x4.pmax(g, b))
      v128.store(q, v128.shuffle<f32>(v128.shuffle<f32>(r, g, 0, 5, 0, 5), v128.shuffle<f32>(b, alpha, 2, 7, 2, 7), 0, 1, 4, 5))
    }
  }
}

/**
 * (channel − neutral) · amount of straight colours, weighed by alpha: 0–2 red to blue, 3 alpha, 4 luma. What differs from the neutral value
 * by `slack` or less is neutral, and from there on it counts.
 */
export function mapPlane(
  src: usize, stride: usize, dst: usize, w: i32, h: i32, channel: i32, neutral: f32, slack: f32, amount: f32,
): void {
  const k = f32x4.splat(amount), middle = f32x4.splat(neutral), near = f32x4.splat(slack), zero = f32x4.splat(0)
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * stride
    for (let x = 0; x < w; x += 4, p += 64, dst += 16) {
      const v0 = v128.load(p), v1 = v128.load(p, 16), v2 = v128.load(p, 32), v3 = v128.load(p, 48)
      // Four pixels, channel by channel.
      const rg0 = redGreen(v0, v1), rg1 = redGreen(v2, v3)
      const ba0 = blueAlpha(v0, v1), ba1 = blueAlpha(v2, v3)
      const r = firstOf(rg0, rg1), g = secondOf(rg0, rg1)
      const b = firstOf(ba0, ba1), alpha = secondOf(ba0, ba1)
      let c = alpha, whole = alpha
      if (channel == 0) c = r
      else if (channel == 1) c = g
      else if (channel == 2) c = b
      else if (channel == 3) whole = f32x4.splat(1)
      else c = lumas(r, g, b)
      const off = f32x4.sub(c, f32x4.mul(middle, whole)), free = f32x4.mul(near, whole)
      const counts = f32x4.sub(f32x4.pmax(zero, f32x4.sub(off, free)), f32x4.pmax(zero, f32x4.sub(f32x4.neg(off), free)))
      v128.store(dst, f32x4.mul(counts, k))
    }
  }
}
