// The mean along circles about a point: the picture on rings, each smoothed by running sums, and back. Rings are a pixel
// apart, and so are the samples on each. A ring is closed, or, seen from a point far outside, the arc that crosses the window.
// Sums are whole numbers, so that they are the same wherever a ring begins.
import { whole } from './whole-numbers'

/** Samples of the whole ring of radius r: a multiple of 8, one a pixel. */
@inline
function samplesOf(ring: i32): i32 {
  return 8 * (<i32>ceil((<f64>ring + 0.5) * 0.7853981633974483) + 1)
}

/** Samples that are looked at, where the window spans so many turns: all, or a multiple of 4 with some beyond both ends. */
@inline
function lookedAt(samples: i32, span: f64): i32 {
  const few = (<i32>ceil(span * <f64>samples) + 11) & ~3
  return min(samples, few)
}

/** Pixels that rings from `first` up to `count` take. */
export function ringPixels(first: i32, count: i32, span: f64): f64 {
  let sum: f64 = 0
  for (let ring = first; ring < count; ring++) sum += <f64>(lookedAt(samplesOf(ring), span) + 1)
  return sum
}

/** Four turns of directions from the x axis towards y, 0–1: a polynomial for the arc tangent, right to 2·10⁻⁶ of a turn
 *  (M. Abramowitz, I. Stegun, Handbook of Mathematical Functions, 4.4.49). */
@inline
function turnsOf(x: v128, y: v128): v128 {
  const ax = f32x4.abs(x), ay = f32x4.abs(y)
  // On the point itself every direction is as good.
  const most = f32x4.pmax(f32x4.splat(1e-6), f32x4.pmax(ax, ay))
  const t = f32x4.div(f32x4.pmin(ax, ay), most)
  const q = f32x4.mul(t, t)
  let a = f32x4.splat(0.0028662257)
  a = f32x4.add(f32x4.splat(-0.0161657367), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(0.0429096138), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(-0.0752896400), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(0.1065626393), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(-0.1420889944), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(0.1999355085), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(-0.3333314528), f32x4.mul(q, a))
  a = f32x4.add(f32x4.splat(1), f32x4.mul(q, a))
  a = f32x4.mul(f32x4.mul(a, t), f32x4.splat(0.15915494309189535))
  const zero = f32x4.splat(0)
  a = v128.bitselect(f32x4.sub(f32x4.splat(0.25), a), a, f32x4.gt(ay, ax))
  a = v128.bitselect(f32x4.sub(f32x4.splat(0.5), a), a, f32x4.lt(x, zero))
  return v128.bitselect(f32x4.sub(f32x4.splat(1), a), a, f32x4.lt(y, zero))
}

/** A direction's cosine, or (at 4) sine, from the table of even ones; `place` counts its steps. */
@inline
function fromCircle(circle: usize, place: f32, at: usize): f32 {
  const k = <i32>place
  const q = circle + (<usize>k << 3) + at
  const a = load<f32>(q)
  return a + (place - <f32>k) * (load<f32>(q, 8) - a)
}

@inline
function mixedOf(a: v128, b: v128, c: v128, d: v128, ku: f32, kv: f32): v128 {
  const u = f32x4.splat(ku)
  const top = f32x4.add(a, f32x4.mul(u, f32x4.sub(b, a))), low = f32x4.add(c, f32x4.mul(u, f32x4.sub(d, c)))
  return f32x4.add(top, f32x4.mul(f32x4.splat(kv), f32x4.sub(low, top)))
}

@inline
function read(src: usize, stride: usize, x: i32, y: i32, ku: f32, kv: f32): v128 {
  const p = src + <usize>y * stride + (<usize>x << 4)
  return mixedOf(v128.load(p), v128.load(p, 16), v128.load(p + stride), v128.load(p + stride, 16), ku, kv)
}

/** Where some of the four pixels lie beyond the window. */
function readAtEdge(src: usize, stride: usize, w: i32, h: i32, x: i32, y: i32, ku: f32, kv: f32): v128 {
  const zero = f32x4.splat(0)
  if (x < -1 || y < -1 || x >= w || y >= h) return zero
  const p = src + y * stride + (x << 4)
  const left = x >= 0, right = x + 1 < w, up = y >= 0, down = y + 1 < h
  return mixedOf(
    left && up ? v128.load(p) : zero, right && up ? v128.load(p + 16) : zero,
    left && down ? v128.load(p + stride) : zero, right && down ? v128.load(p + stride + 16) : zero, ku, kv)
}

/**
 * Every pixel becomes the mean of the arc of `arc` turns around it, about (cx, cy). The window lies beyond ring `first`, in
 * the `span` turns from the turn `from` on; 1 for all round. rings: the pixels of `ringPixels(first, count, span)`; table:
 * (count − first) · 16 bytes; circle: cosine and sine (f32) of `steps` even directions and the first again. line: three times
 * the samples of the largest ring that are looked at, and 8.
 */
export function spinRings(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32,
  cx: f64, cy: f64, arc: f64, first: i32, count: i32, from: f64, span: f64,
  rings: usize, table: usize, circle: usize, steps: i32, line: usize,
): void {
  let at = rings
  const middleX = f32x4.splat(<f32>(cx - 0.5 - <f64>x0)), middleY = f32x4.splat(<f32>(cy - 0.5 - <f64>y0))
  const innerX = i32x4.splat(w - 1), innerY = i32x4.splat(h - 1), outerX = i32x4.splat(w + 1), outerY = i32x4.splat(h + 1)
  const one = i32x4.splat(1), zero = f32x4.splat(0)
  for (let ring = first; ring < count; ring++) {
    const samples = samplesOf(ring), seen = lookedAt(samples, span)
    let start = seen == samples ? 0 : <i32>floor(from * <f64>samples) - 3
    if (start < 0) start += samples
    const entry = table + (<usize>(ring - first) << 4)
    store<u32>(entry, <u32>at)
    store<i32>(entry, samples, 4)
    store<i32>(entry, start, 8)
    store<i32>(entry, seen, 12)
    const radius = f32x4.splat(<f32>ring + <f32>0.5)
    const stretch: f32 = <f32>steps / <f32>samples
    // Four directions are one, turned by none to three samples.
    const c1 = fromCircle(circle, stretch, 0), c2 = fromCircle(circle, 2 * stretch, 0), c3 = fromCircle(circle, 3 * stretch, 0)
    const s1 = fromCircle(circle, stretch, 4), s2 = fromCircle(circle, 2 * stretch, 4), s3 = fromCircle(circle, 3 * stretch, 4)
    let cosines = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(1), 1, c1), 2, c2), 3, c3)
    let sines = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(zero, 1, s1), 2, s2), 3, s3)
    cosines = f32x4.mul(cosines, radius)
    sines = f32x4.mul(sines, radius)
    let any = zero
    let p = at
    for (let i = 0; i < seen; i += 4, p += 64) {
      let sample = start + i
      if (sample >= samples) sample -= samples
      const place: f32 = <f32>sample * stretch
      const c = f32x4.splat(fromCircle(circle, place, 0)), s = f32x4.splat(fromCircle(circle, place, 4))
      const u = f32x4.add(middleX, f32x4.sub(f32x4.mul(c, cosines), f32x4.mul(s, sines)))
      const v = f32x4.add(middleY, f32x4.add(f32x4.mul(s, cosines), f32x4.mul(c, sines)))
      const fu = f32x4.floor(u), fv = f32x4.floor(v)
      const x = i32x4.trunc_sat_f32x4_s(fu), y = i32x4.trunc_sat_f32x4_s(fv)
      const ku = f32x4.sub(u, fu), kv = f32x4.sub(v, fv)
      const inside = i32x4.bitmask(v128.and(i32x4.lt_u(x, innerX), i32x4.lt_u(y, innerY)))
      let a = zero, b = zero, d = zero, e = zero
      if (inside == 15) {
        a = read(src, srcStride, i32x4.extract_lane(x, 0), i32x4.extract_lane(y, 0), f32x4.extract_lane(ku, 0), f32x4.extract_lane(kv, 0))
        b = read(src, srcStride, i32x4.extract_lane(x, 1), i32x4.extract_lane(y, 1), f32x4.extract_lane(ku, 1), f32x4.extract_lane(kv, 1))
        d = read(src, srcStride, i32x4.extract_lane(x, 2), i32x4.extract_lane(y, 2), f32x4.extract_lane(ku, 2), f32x4.extract_lane(kv, 2))
        e = read(src, srcStride, i32x4.extract_lane(x, 3), i32x4.extract_lane(y, 3), f32x4.extract_lane(ku, 3), f32x4.extract_lane(kv, 3))
      } else if (v128.any_true(v128.and(i32x4.lt_u(i32x4.add(x, one), outerX), i32x4.lt_u(i32x4.add(y, one), outerY)))) {
        a = readAtEdge(src, srcStride, w, h, i32x4.extract_lane(x, 0), i32x4.extract_lane(y, 0), f32x4.extract_lane(ku, 0), f32x4.extract_lane(kv, 0))
        b = readAtEdge(src, srcStride, w, h, i32x4.extract_lane(x, 1), i32x4.extract_lane(y, 1), f32x4.extract_lane(ku, 1), f32x4.extract_lane(kv, 1))
        d = readAtEdge(src, srcStride, w, h, i32x4.extract_lane(x, 2), i32x4.extract_lane(y, 2), f32x4.extract_lane(ku, 2), f32x4.extract_lane(kv, 2))
        e = readAtEdge(src, srcStride, w, h, i32x4.extract_lane(x, 3), i32x4.extract_lane(y, 3), f32x4.extract_lane(ku, 3), f32x4.extract_lane(kv, 3))
      }
      any = v128.or(v128.or(any, v128.or(a, b)), v128.or(d, e))
      v128.store(p, a)
      v128.store(p, b, 16)
      v128.store(p, d, 32)
      v128.store(p, e, 48)
    }
    if (v128.any_true(any)) smoothRing(at, samples, seen, arc, line)
    v128.store(at + (<usize>seen << 4), seen == samples ? v128.load(at) : zero)
    at += <usize>(seen + 1) << 4
  }
  const lanes = f32x4(0, 1, 2, 3), lowest = f32x4.splat(<f32>first), highest = i32x4.splat(count - 2)
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const dy = f32x4.splat(<f32>(<f64>(y + y0) + 0.5 - cy))
    const squared = f32x4.mul(dy, dy)
    for (let x = 0; x < w; x += 4, q += 64) {
      const dx = f32x4.add(f32x4.splat(<f32>(<f64>(x + x0) + 0.5 - cx)), lanes)
      const turn = turnsOf(dx, dy)
      const away = f32x4.sqrt(f32x4.add(f32x4.mul(dx, dx), squared))
      const ring = f32x4.pmax(lowest, f32x4.sub(away, f32x4.splat(0.5)))
      const j = i32x4.min_s(i32x4.trunc_sat_f32x4_s(ring), highest)
      const k = f32x4.pmin(f32x4.splat(1), f32x4.sub(ring, f32x4.convert_i32x4_s(j)))
      v128.store(q, onRings(table, i32x4.extract_lane(j, 0) - first, f32x4.extract_lane(k, 0), f32x4.extract_lane(turn, 0)))
      v128.store(q, onRings(table, i32x4.extract_lane(j, 1) - first, f32x4.extract_lane(k, 1), f32x4.extract_lane(turn, 1)), 16)
      v128.store(q, onRings(table, i32x4.extract_lane(j, 2) - first, f32x4.extract_lane(k, 2), f32x4.extract_lane(turn, 2)), 32)
      v128.store(q, onRings(table, i32x4.extract_lane(j, 3) - first, f32x4.extract_lane(k, 3), f32x4.extract_lane(turn, 3)), 48)
    }
  }
}

/** Between two rings. */
@inline
function onRings(table: usize, ring: i32, k: f32, turn: f32): v128 {
  const entry = table + (<usize>ring << 4)
  const a = onRing(entry, turn), b = onRing(entry + 16, turn)
  return f32x4.pmin(f32x4.splat(1), f32x4.add(a, f32x4.mul(f32x4.splat(k), f32x4.sub(b, a))))
}

@inline
function onRing(entry: usize, turn: f32): v128 {
  const samples = load<i32>(entry, 4)
  let place: f32 = turn * <f32>samples - <f32>load<i32>(entry, 8)
  if (place < 0) place += <f32>samples
  const i = min(<i32>place, load<i32>(entry, 12) - 1)
  const p = <usize>load<u32>(entry) + (<usize>i << 4)
  const a = v128.load(p)
  return f32x4.add(a, f32x4.mul(f32x4.splat(place - <f32>i), f32x4.sub(v128.load(p, 16), a)))
}

/** The mean over an arc on both sides of each sample of a closed ring, or of the part of it that is looked at, in place. */
function smoothRing(at: usize, samples: i32, seen: i32, arc: f64, line: usize): void {
  const half = 0.5 * min(1, arc) * <f64>samples
  const inner = <i32>max(0, ceil(half - 0.5) - 1)
  const end = <f32>(half - 0.5 - <f64>inner)
  if (end <= 0 && inner == 0) return
  let bits = 30
  while (bits > 0 && (samples >> (30 - bits)) > 0) bits--
  const unit = <f32>(1 << min(bits, 21))
  const scale = f32x4.splat(unit)
  // No sample counts twice: an arc of a whole turn is the mean of the ring.
  const most = min(inner, (samples - 2) >> 1)
  const part: f32 = most < inner ? <f32>0.5 : min<f32>(1, end)
  const ends = f32x4.splat(part), total = f32x4.splat(unit * (<f32>(most + most + 1) + (part + part)))
  // Of an arc nothing lies beyond its ends, of a ring it goes on.
  const reach = min(most, seen) + 1
  const middle = line + (<usize>reach << 4)
  for (let i: usize = 0; i < <usize>seen << 4; i += 16) {
    v128.store(middle + i, whole(f32x4.mul(v128.load(at + i), scale)))
  }
  const bytes: usize = <usize>reach << 4, all: usize = <usize>seen << 4
  if (seen == samples) {
    memory.copy(line, middle + all - bytes, bytes)
    memory.copy(middle + all, middle, bytes)
  } else {
    memory.fill(line, 0, bytes)
    memory.fill(middle + all, 0, bytes)
  }
  let sum = i32x4.splat(0)
  let p = line + 16
  for (let k = 0; k < 2 * (reach - 1); k++, p += 16) sum = i32x4.add(sum, v128.load(p))
  let old = line + 16
  for (let i: usize = 0; i < all; i += 16) {
    sum = i32x4.add(sum, v128.load(p))
    const beside = i32x4.add(v128.load(old - 16), v128.load(p, 16))
    const counted = f32x4.add(f32x4.convert_i32x4_s(sum), f32x4.mul(ends, f32x4.convert_i32x4_s(beside)))
    v128.store(at + i, f32x4.div(counted, total))
    sum = i32x4.sub(sum, v128.load(old))
    p += 16
    old += 16
  }
}
