// One-channel work: masks made from distance, coverage and height. `count` is a number of floats, a multiple of 4.

export function fillPlane(p: usize, count: i32, value: f32): void {
  if (value == 0) {
    memory.fill(p, 0, <usize>count << 2)
    return
  }
  const v = f32x4.splat(value)
  for (let i = 0; i < count; i += 4) {
    v128.store(p, v)
    p += 16
  }
}

/** −1 in every integer: no name. */
export function fillNames(p: usize, count: i32): void {
  memory.fill(p, 0xff, <usize>count << 2)
}

/** The first row of a plane that is not clear; h where all are. */
export function firstRow(src: usize, w: i32, h: i32): i32 {
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x += 4, src += 16) if (v128.any_true(v128.load(src))) return y
  }
  return h
}

/** The last row of a plane that is not clear; −1 where all are. */
export function lastRow(src: usize, w: i32, h: i32): i32 {
  let p = src + (<usize>(w * h) << 2)
  for (let y = h - 1; y >= 0; y--) {
    for (let x = 0; x < w; x += 4) {
      p -= 16
      if (v128.any_true(v128.load(p))) return y
    }
  }
  return -1
}

/** dst = 1 − src. */
export function complement(src: usize, dst: usize, count: i32): void {
  const one = f32x4.splat(1)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.sub(one, v128.load(src)))
    src += 16
    dst += 16
  }
}

/** dst = x²(3 − 2x) of src, cut to 0–1: a rise without corners. */
export function smoothStep(src: usize, dst: usize, count: i32): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), three = f32x4.splat(3)
  for (let i = 0; i < count; i += 4) {
    const v = f32x4.pmin(one, f32x4.pmax(zero, v128.load(src)))
    v128.store(dst, f32x4.mul(f32x4.mul(v, v), f32x4.sub(three, f32x4.add(v, v))))
    src += 16
    dst += 16
  }
}

/**
 * The band between two nested covers. Where a neighbour of opacity `above` lies over the inner one, the band is
 * strengthened in the pixels they share, so that "neighbour over band" adds up to whole cover and no hairline of
 * backdrop shows between.
 */
export function bandMask(inner: usize, outer: usize, dst: usize, count: i32, above: f32): void {
  const one = f32x4.splat(1), zero = f32x4.splat(0), tiny = f32x4.splat(1e-6), va = f32x4.splat(above)
  for (let i = 0; i < count; i += 4) {
    const inside = v128.load(inner)
    const band = f32x4.pmax(zero, f32x4.sub(v128.load(outer), inside))
    v128.store(dst, f32x4.pmin(one, f32x4.div(band, f32x4.pmax(tiny, f32x4.sub(one, f32x4.mul(va, inside))))))
    inner += 16
    outer += 16
    dst += 16
  }
}

/** dst = (src − from) · scale, cut to 0..1. */
export function rampMask(src: usize, dst: usize, count: i32, from: f32, scale: f32): void {
  const a = f32x4.splat(from), k = f32x4.splat(scale), zero = f32x4.splat(0), one = f32x4.splat(1)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.pmin(one, f32x4.pmax(zero, f32x4.mul(k, f32x4.sub(v128.load(src), a)))))
    src += 16
    dst += 16
  }
}

/** dst = |src|. */
export function absolute(src: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.abs(v128.load(src)))
    src += 16
    dst += 16
  }
}

/** dst = a · b. */
export function product(a: usize, b: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.mul(v128.load(a), v128.load(b)))
    a += 16
    b += 16
    dst += 16
  }
}

// Parts that were cut from one shape lie beside each other in the pixels of the cut: what they cover there is the sum of both, not what is
// left when one lies over the other. They are taken to lie beside each other as far as the pixel has room for it.

/** dst = dst + src, at most 1. */
export function addCover(src: usize, dst: usize, count: i32): void {
  const one = f32x4.splat(1)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.pmin(one, f32x4.add(v128.load(dst), v128.load(src))))
    src += 16
    dst += 16
  }
}

/** dst = the share of the cover `own` that has no room beside the cover `other`, 0–1. */
export function overlapMask(own: usize, other: usize, dst: usize, count: i32): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), tiny = f32x4.splat(1e-6)
  for (let i = 0; i < count; i += 4) {
    const g = v128.load(own)
    const over = f32x4.pmax(zero, f32x4.sub(f32x4.add(g, v128.load(other)), one))
    v128.store(dst, f32x4.pmin(one, f32x4.div(over, f32x4.pmax(tiny, g))))
    own += 16
    other += 16
    dst += 16
  }
}

/** dst = by how much of itself a part covers a pixel that others cover already by `other`, so that both together cover the sum. */
export function besideMask(own: usize, other: usize, dst: usize, count: i32): void {
  const zero = f32x4.splat(0), one = f32x4.splat(1), tiny = f32x4.splat(1e-6)
  for (let i = 0; i < count; i += 4) {
    const g = v128.load(own), m = v128.load(other)
    const over = f32x4.pmax(zero, f32x4.sub(f32x4.add(g, m), one))
    const free = f32x4.sub(one, f32x4.pmin(one, f32x4.div(over, f32x4.pmax(tiny, g))))
    const beside = f32x4.mul(f32x4.pmin(m, f32x4.sub(one, g)), free)
    v128.store(dst, f32x4.pmin(one, f32x4.div(g, f32x4.pmax(tiny, f32x4.sub(one, beside)))))
    own += 16
    other += 16
    dst += 16
  }
}

/** dst = |a − b|. */
export function difference(a: usize, b: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.abs(f32x4.sub(v128.load(a), v128.load(b))))
    a += 16
    b += 16
    dst += 16
  }
}

/** dst = table(src): src is cut to 0..1; the table has `steps` + 1 values and is linear in between. */
export function mapTable(src: usize, dst: usize, count: i32, table: usize, steps: i32): void {
  const last = <f32>steps
  // Most of a plane lies at one of the two ends: clear or whole.
  const clear = f32x4.splat(load<f32>(table))
  const below = load<f32>(table + (<usize>(steps - 1) << 2))
  const whole = f32x4.splat(below + (load<f32>(table + (<usize>steps << 2)) - below))
  for (let i = 0; i < count; i += 4) {
    const v = v128.load(src)
    const isWhole = i32x4.all_true(f32x4.ge(v, f32x4.splat(1)))
    if (isWhole || i32x4.all_true(f32x4.le(v, f32x4.splat(0)))) {
      v128.store(dst, isWhole ? whole : clear)
      src += 16
      dst += 16
      continue
    }
    const p = f32x4.pmin(f32x4.splat(last), f32x4.pmax(f32x4.splat(0), f32x4.mul(v, f32x4.splat(last))))
    const cell = i32x4.min_s(i32x4.trunc_sat_f32x4_s(p), i32x4.splat(steps - 1))
    const f = f32x4.sub(p, f32x4.convert_i32x4_s(cell))
    const t0 = table + (<usize>i32x4.extract_lane(cell, 0) << 2), t1 = table + (<usize>i32x4.extract_lane(cell, 1) << 2)
    const t2 = table + (<usize>i32x4.extract_lane(cell, 2) << 2), t3 = table + (<usize>i32x4.extract_lane(cell, 3) << 2)
    const a = f32x4(load<f32>(t0), load<f32>(t1), load<f32>(t2), load<f32>(t3))
    const b = f32x4(load<f32>(t0, 4), load<f32>(t1, 4), load<f32>(t2, 4), load<f32>(t3, 4))
    v128.store(dst, f32x4.add(a, f32x4.mul(f, f32x4.sub(b, a))))
    src += 16
    dst += 16
  }
}

/** Noise 0..1 of a place on the card: integer hash with two multiply-xorshift rounds. */
@inline
export function noiseAt(x: i32, y: i32, seed: u32): f32 {
  let v: u32 = <u32>x * 0x9e3779b1 ^ (<u32>y * 0x85ebca77 + seed)
  v ^= v >> 16
  v *= 0x7feb352d
  v ^= v >> 15
  v *= 0x846ca68b
  v ^= v >> 16
  return (<f32>(v >> 8) + <f32>0.5) * <f32>(1.0 / 16777216.0)
}

/** The noise of four places in a row. */
@inline
export function noiseOfFour(x: i32, y: i32, seed: u32): v128 {
  const across = i32x4.mul(i32x4.add(i32x4.splat(x), i32x4(0, 1, 2, 3)), i32x4.splat(0x9e3779b1))
  let v = v128.xor(across, i32x4.splat(<u32>y * 0x85ebca77 + seed))
  v = v128.xor(v, i32x4.shr_u(v, 16))
  v = i32x4.mul(v, i32x4.splat(0x7feb352d))
  v = v128.xor(v, i32x4.shr_u(v, 15))
  v = i32x4.mul(v, i32x4.splat(0x846ca68b))
  v = v128.xor(v, i32x4.shr_u(v, 16))
  return f32x4.mul(f32x4.add(f32x4.convert_i32x4_s(i32x4.shr_u(v, 8)), f32x4.splat(0.5)), f32x4.splat(1.0 / 16777216.0))
}

/**
 * Grain: each pixel is drawn towards whole or clear, by chance in proportion to its cover, so that the mean stays.
 * (x0, y0) is the plane's place on the card in render pixels: the grain does not depend on where a box begins.
 */
export function grainMask(src: usize, dst: usize, w: i32, h: i32, x0: i32, y0: i32, amount: f32, seed: u32): void {
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const v = load<f32>(src)
      const hit: f32 = noiseAt(x + x0, y + y0, seed) < v ? 1 : 0
      store<f32>(dst, v + (hit - v) * amount)
      src += 4
      dst += 4
    }
  }
}

/** Copies the part of a plane that a window at (x, y) shows; beyond the plane stands `outside`. */
export function cropPlane(
  src: usize, sw: i32, sh: i32, dst: usize, w: i32, h: i32, x: i32, y: i32, outside: f32,
): void {
  const from = max(0, x), to = min(sw, x + w)
  for (let j = 0; j < h; j++) {
    const row = dst + (<usize>(j * w) << 2)
    const sy = y + j
    if (sy < 0 || sy >= sh || to <= from) {
      for (let i = 0; i < w; i++) store<f32>(row + (<usize>i << 2), outside)
      continue
    }
    for (let i = x; i < from; i++) store<f32>(row + (<usize>(i - x) << 2), outside)
    memory.copy(row + (<usize>(from - x) << 2), src + (<usize>(sy * sw + from) << 2), <usize>(to - from) << 2)
    for (let i = to; i < x + w; i++) store<f32>(row + (<usize>(i - x) << 2), outside)
  }
}

@inline
function bilinear(r0: usize, r1: usize, x: i32, w: i32, a: f32, b: f32, c: f32, d: f32): f32 {
  let v: f32 = 0
  if (x >= 0 && x < w) {
    const at: usize = <usize>x << 2
    if (r0) v += a * load<f32>(r0 + at)
    if (r1) v += c * load<f32>(r1 + at)
  }
  if (x > 0 && x <= w) {
    const at: usize = <usize>(x - 1) << 2
    if (r0) v += b * load<f32>(r0 + at)
    if (r1) v += d * load<f32>(r1 + at)
  }
  return v
}

/** A plane moved by (ix + fx, iy + fy) px, 0 ≤ f < 1, bilinear; beyond its border stands 0. */
export function shiftPlane(src: usize, dst: usize, w: i32, h: i32, ix: i32, iy: i32, fx: f32, fy: f32): void {
  const a: f32 = (<f32>1 - fx) * (<f32>1 - fy), b: f32 = fx * (<f32>1 - fy), c: f32 = (<f32>1 - fx) * fy, d: f32 = fx * fy
  const va = f32x4.splat(a), vb = f32x4.splat(b), vc = f32x4.splat(c), vd = f32x4.splat(d)
  for (let y = 0; y < h; y++, dst += <usize>w << 2) {
    const y0 = y - iy, y1 = y0 - 1
    const r0: usize = y0 >= 0 && y0 < h ? src + (<usize>(y0 * w) << 2) : 0
    const r1: usize = y1 >= 0 && y1 < h ? src + (<usize>(y1 * w) << 2) : 0
    if (!r0 && !r1) {
      memory.fill(dst, 0, <usize>w << 2)
      continue
    }
    for (let x = 0; x < w; x += 4) {
      const from = x - ix
      const out = dst + (<usize>x << 2)
      if (r0 && r1 && from >= 1 && from + 4 <= w) {
        const p = r0 + (<usize>from << 2), q = r1 + (<usize>from << 2)
        v128.store(out, f32x4.add(
          f32x4.add(f32x4.mul(va, v128.load(p)), f32x4.mul(vc, v128.load(q))),
          f32x4.add(f32x4.mul(vb, v128.load(p - 4)), f32x4.mul(vd, v128.load(q - 4)))))
      } else {
        for (let k = 0; k < 4; k++) store<f32>(out + (<usize>k << 2), bilinear(r0, r1, from + k, w, a, b, c, d))
      }
    }
  }
}

/**
 * A plane of alpha smeared along (dx, dy) in `steps` steps, its far end scaled by `taper` about (cx, cy): `cover`
 * takes the most of all steps, `depth` the step (0..1) at which a pixel was first more than half covered.
 */
export function smearPlane(
  src: usize, cover: usize, depth: usize, w: i32, h: i32, dx: f32, dy: f32, taper: f32, cx: f32, cy: f32, steps: i32,
): void {
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let most: f32 = 0, first: f32 = 1
      for (let k = 0; k <= steps; k++) {
        const t: f32 = <f32>k / <f32>max(1, steps)
        const scale: f32 = <f32>1 + (taper - <f32>1) * t
        if (scale <= 0) break
        const u: f32 = (<f32>x - cx - dx * t) / scale + cx, v: f32 = (<f32>y - cy - dy * t) / scale + cy
        const fu = floor<f32>(u), fv = floor<f32>(v)
        const iu = <i32>fu, iv = <i32>fv
        if (iu < 0 || iv < 0 || iu + 1 >= w || iv + 1 >= h) continue
        const p = src + (<usize>(iv * w + iu) << 2), q = p + (<usize>w << 2)
        const ku: f32 = u - fu, kv: f32 = v - fv
        const top: f32 = load<f32>(p) + (load<f32>(p, 4) - load<f32>(p)) * ku
        const low: f32 = load<f32>(q) + (load<f32>(q, 4) - load<f32>(q)) * ku
        const a: f32 = top + (low - top) * kv
        if (a > <f32>0.5 && most <= <f32>0.5) first = t
        if (a > most) most = a
        if (most >= 1) break
      }
      store<f32>(cover, most)
      store<f32>(depth, first)
      cover += 4
      depth += 4
    }
  }
}
