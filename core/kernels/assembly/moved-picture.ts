// A picture read at other places than its own: moved as a whole, by a map, or channel by channel. The picture is a window at
// (sx, sy) on the card; beyond it there is nothing. What a place beyond the edges of an area stands for, `edges` says.

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

/** Between the four pixels around a place. */
@inline
function bilinear(s: Source, u: f32, v: f32): v128 {
  const fu = floor<f32>(u), fv = floor<f32>(v)
  const x = <i32>fu, y = <i32>fv
  const ku = f32x4.splat(u - fu), kv = f32x4.splat(v - fv)
  let a: v128, b: v128, c: v128, d: v128
  if (isInside(s, x, y, 2)) {
    const p = s.at + <usize>(y - s.y) * s.stride + (<usize>(x - s.x) << 4), q = p + s.stride
    a = v128.load(p)
    b = v128.load(p, 16)
    c = v128.load(q)
    d = v128.load(q, 16)
  } else {
    a = tap(s, x, y)
    b = tap(s, x + 1, y)
    c = tap(s, x, y + 1)
    d = tap(s, x + 1, y + 1)
  }
  const top = f32x4.add(a, f32x4.mul(ku, f32x4.sub(b, a))), low = f32x4.add(c, f32x4.mul(ku, f32x4.sub(d, c)))
  // Rounding may go over whole by a last bit.
  return f32x4.pmin(f32x4.splat(1), f32x4.add(top, f32x4.mul(kv, f32x4.sub(low, top))))
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
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const py = <f64>(y + y0) + 0.5
    for (let x = 0; x < w; x++, q += 16) {
      const px = <f64>(x + x0) + 0.5
      const u = <f32>(a * px + b * py + e - 0.5), v = <f32>(c * px + d * py + f - 0.5)
      v128.store(q, smooth ? bicubic(s, u, v) : bilinear(s, u, v))
    }
  }
}

/** Each pixel reads the picture by the planes' px beside its own place. */
export function displaceRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize, smooth: bool, right: usize, down: usize,
): void {
  const s = changetype<Source>(source)
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++, q += 16, right += 4, down += 4) {
      const dx = load<f32>(right), dy = load<f32>(down)
      // Where nothing moves, the pixel is what it was, to the bit.
      if (dx == 0 && dy == 0) v128.store(q, tap(s, x + x0, y + y0))
      else {
        const u: f32 = <f32>(x + x0) + dx, v: f32 = <f32>(y + y0) + dy
        v128.store(q, smooth ? bicubic(s, u, v) : bilinear(s, u, v))
      }
    }
  }
}

/** Red, green and blue each read beside their own place; alpha is the most that any of the three finds. */
export function partRows(
  dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32, source: usize,
  rx: f32, ry: f32, gx: f32, gy: f32, bx: f32, by: f32,
): void {
  const s = changetype<Source>(source)
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const v: f32 = <f32>(y + y0)
    for (let x = 0; x < w; x++, q += 16) {
      const u: f32 = <f32>(x + x0)
      const r = bilinear(s, u + rx, v + ry), g = bilinear(s, u + gx, v + gy), b = bilinear(s, u + bx, v + by)
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

/** (channel − neutral) · amount of straight colours, weighed by alpha: 0–2 red to blue, 3 alpha, 4 luma. */
export function mapPlane(
  src: usize, stride: usize, dst: usize, w: i32, h: i32, channel: i32, neutral: f32, amount: f32,
): void {
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16, dst += 4) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      let c: f32 = 0, whole: f32 = alpha
      if (channel == 0) c = f32x4.extract_lane(v, 0)
      else if (channel == 1) c = f32x4.extract_lane(v, 1)
      else if (channel == 2) c = f32x4.extract_lane(v, 2)
      else if (channel == 3) {
        c = alpha
        whole = 1
      } else {
        const k = f32x4.mul(v, f32x4(0.2126, 0.7152, 0.0722, 0))
        c = f32x4.extract_lane(k, 0) + f32x4.extract_lane(k, 1) + f32x4.extract_lane(k, 2)
      }
      store<f32>(dst, (c - neutral * whole) * amount)
    }
  }
}
