// Point operations on rows of premultiplied RGBA, in place: what each pixel becomes depends on it alone, and on its place.
// (x0, y0) is the rows' place on the card in render pixels. Clear pixels stay clear, alpha stays as it is unless said.
import { blueAlpha, firstOf, lumas, redGreen, secondOf } from './four-pixels'
import { noiseOfFour } from './mask'
import { whole } from './whole-numbers'

@inline
function keepAlpha(v: v128, alpha: f32): v128 {
  return f32x4.replace_lane(f32x4.pmin(f32x4.splat(alpha), f32x4.pmax(f32x4.splat(0), v)), 3, alpha)
}

/** BT.709 luma of a pixel (ITU-R BT.709-6, item 3.2), of its premultiplied values. */
@inline
function luma(v: v128): f32 {
  const k = f32x4.mul(v, f32x4(0.2126, 0.7152, 0.0722, 0))
  return f32x4.extract_lane(k, 0) + f32x4.extract_lane(k, 1) + f32x4.extract_lane(k, 2)
}

/**
 * Straight colours through three tables of `steps` + 1 values, linear in between, over 0–1; with `root` over √v, where the
 * function is steep near black.
 */
export function tableRows(
  at: usize, stride: usize, w: i32, h: i32, red: usize, green: usize, blue: usize, steps: i32, root: bool,
): void {
  const last = f32x4.splat(<f32>steps), top = i32x4.splat(steps - 1), half = f32x4.splat(0.5)
  const zero = f32x4.splat(0), one = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      const isWhole = alpha == 1
      let s = isWhole ? v : f32x4.div(v, f32x4.splat(alpha))
      s = f32x4.pmin(one, f32x4.pmax(zero, s))
      const place = f32x4.mul(last, root ? f32x4.sqrt(s) : s)
      const cell = i32x4.min_s(whole(f32x4.sub(place, half)), top)
      const f = f32x4.sub(place, f32x4.convert_i32x4_s(cell))
      const r = v128.load64_zero(red + (<usize>i32x4.extract_lane(cell, 0) << 2))
      const g = v128.load64_zero(green + (<usize>i32x4.extract_lane(cell, 1) << 2))
      const b = v128.load64_zero(blue + (<usize>i32x4.extract_lane(cell, 2) << 2))
      const rg = v128.shuffle<f32>(r, g, 0, 4, 1, 5)
      const from = v128.shuffle<f32>(rg, b, 0, 1, 4, 4), to = v128.shuffle<f32>(rg, b, 2, 3, 5, 5)
      let out = f32x4.add(from, f32x4.mul(f, f32x4.sub(to, from)))
      if (!isWhole) out = f32x4.mul(f32x4.splat(alpha), out)
      v128.store(p, f32x4.replace_lane(out, 3, alpha))
    }
  }
}

/** Straight colours through a matrix: rows of four, the last a constant; cut to 0–1. */
export function matrixRows(at: usize, stride: usize, w: i32, h: i32, matrix: usize): void {
  const c0 = v128.load(matrix), c1 = v128.load(matrix, 16), c2 = v128.load(matrix, 32), c3 = v128.load(matrix, 48)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      const rg = f32x4.add(
        f32x4.mul(c0, v128.shuffle<f32>(v, v, 0, 0, 0, 0)), f32x4.mul(c1, v128.shuffle<f32>(v, v, 1, 1, 1, 1)))
      const ba = f32x4.add(f32x4.mul(c2, v128.shuffle<f32>(v, v, 2, 2, 2, 2)), f32x4.mul(c3, f32x4.splat(alpha)))
      v128.store(p, keepAlpha(f32x4.add(rg, ba), alpha))
    }
  }
}

/** The cube root of four numbers from 0 to a few: a guess by the exponent, then Halley's steps to float rounding. */
@inline
function cubeRoot(v: v128): v128 {
  const tiny = f32x4.splat(1e-18)
  const x = f32x4.pmax(v, tiny)
  // A third of the exponent: the bits of a float are about its logarithm (W. Kahan's note on cube roots, 1991).
  let y = i32x4.add(i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.convert_i32x4_s(x), f32x4.splat(1.0 / 3.0))), i32x4.splat(709921077))
  for (let k = 0; k < 3; k++) {
    const cubed = f32x4.mul(f32x4.mul(y, y), y)
    y = f32x4.div(f32x4.mul(y, f32x4.add(cubed, f32x4.add(x, x))), f32x4.add(f32x4.add(cubed, cubed), x))
  }
  return v128.and(y, f32x4.gt(v, tiny))
}

@inline
function through(m: usize, v: v128): v128 {
  return f32x4.add(
    f32x4.add(
      f32x4.mul(v128.load(m), v128.shuffle<f32>(v, v, 0, 0, 0, 0)),
      f32x4.mul(v128.load(m, 16), v128.shuffle<f32>(v, v, 1, 1, 1, 1))),
    f32x4.mul(v128.load(m, 32), v128.shuffle<f32>(v, v, 2, 2, 2, 2)))
}

/**
 * Linear light turned and stretched in OKLab: `into` takes RGB to the cube of LMS, `change` the roots to changed roots,
 * `back` their cubes to RGB; each three columns of four.
 */
export function oklabRows(at: usize, stride: usize, w: i32, h: i32, into: usize, change: usize, back: usize, lift: usize): void {
  const constant = v128.load(lift)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      const straight = f32x4.div(v, f32x4.splat(alpha))
      const roots = f32x4.add(constant, through(change, cubeRoot(through(into, straight))))
      const cubes = f32x4.mul(f32x4.mul(roots, roots), roots)
      v128.store(p, keepAlpha(f32x4.mul(f32x4.splat(alpha), through(back, cubes)), alpha))
    }
  }
}

/** Colours by their luma from a ramp of premultiplied colours, laid over them; first turned round with `invert`. */
export function rampRows(at: usize, stride: usize, w: i32, h: i32, ramp: usize, steps: i32, invert: bool): void {
  const last = f32x4.splat(<f32>steps), top = i32x4.splat(steps - 1), half = f32x4.splat(0.5)
  const zero = f32x4.splat(0), one = f32x4.splat(1), tiny = f32x4.splat(1e-6)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x += 4, p += 64) {
      let v0 = v128.load(p), v1 = v128.load(p, 16), v2 = v128.load(p, 32), v3 = v128.load(p, 48)
      if (!v128.any_true(v128.or(v128.or(v0, v1), v128.or(v2, v3)))) continue
      if (invert) {
        v0 = inverted(v0)
        v1 = inverted(v1)
        v2 = inverted(v2)
        v3 = inverted(v3)
      }
      if (ramp) {
        const rg0 = redGreen(v0, v1), rg1 = redGreen(v2, v3)
        const ba0 = blueAlpha(v0, v1), ba1 = blueAlpha(v2, v3)
        const alpha = secondOf(ba0, ba1)
        const l = f32x4.div(
          lumas(firstOf(rg0, rg1), secondOf(rg0, rg1), firstOf(ba0, ba1)), f32x4.pmax(tiny, alpha))
        const place = f32x4.mul(last, f32x4.pmin(one, f32x4.pmax(zero, l)))
        const cell = i32x4.min_s(whole(f32x4.sub(place, half)), top)
        const f = f32x4.sub(place, f32x4.convert_i32x4_s(cell))
        v0 = rampOver(v0, ramp + (<usize>i32x4.extract_lane(cell, 0) << 4), v128.shuffle<f32>(f, f, 0, 0, 0, 0))
        v1 = rampOver(v1, ramp + (<usize>i32x4.extract_lane(cell, 1) << 4), v128.shuffle<f32>(f, f, 1, 1, 1, 1))
        v2 = rampOver(v2, ramp + (<usize>i32x4.extract_lane(cell, 2) << 4), v128.shuffle<f32>(f, f, 2, 2, 2, 2))
        v3 = rampOver(v3, ramp + (<usize>i32x4.extract_lane(cell, 3) << 4), v128.shuffle<f32>(f, f, 3, 3, 3, 3))
      }
      v128.store(p, v0)
      v128.store(p, v1, 16)
      v128.store(p, v2, 32)
      v128.store(p, v3, 48)
    }
  }
}

@inline
function inverted(v: v128): v128 {
  const alpha = f32x4.extract_lane(v, 3)
  return keepAlpha(f32x4.sub(f32x4.splat(alpha), v), alpha)
}

/** A colour of a ramp, between two of its steps, over a pixel. */
@inline
function rampOver(v: v128, q: usize, f: v128): v128 {
  const a = v128.load(q)
  const c = f32x4.add(a, f32x4.mul(f, f32x4.sub(v128.load(q, 16), a)))
  const alpha = v128.shuffle<f32>(v, v, 3, 3, 3, 3), cover = v128.shuffle<f32>(c, c, 3, 3, 3, 3)
  const out = f32x4.add(f32x4.mul(c, alpha), f32x4.mul(v, f32x4.sub(f32x4.splat(1), cover)))
  return keepAlpha(out, f32x4.extract_lane(v, 3))
}

/**
 * Levels of each channel, or (`grey`) of the luma, colours keeping their ratios. Without dither equal parts of the range become
 * one level each; dithered whole, a value is drawn to one of the two levels beside it, and its mean stays.
 */
export function stepRows(
  at: usize, stride: usize, w: i32, h: i32, x0: i32, y0: i32, levels: i32, grey: bool, dither: f32, seed: u32,
): void {
  const highest: f32 = <f32>(levels - 1), parts: f32 = <f32>levels - dither
  const top = f32x4.splat(highest), zero = f32x4.splat(0), many = f32x4.splat(parts), share = f32x4.splat(dither)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      const noise = dither > 0 ? f32x4.mul(noiseOfFour(x + x0, y + y0, seed), share) : zero
      for (let k = 0; k < 4; k++, p += 16) {
        const v = v128.load(p)
        const alpha = f32x4.extract_lane(v, 3)
        if (alpha <= 0) continue
        const n = k == 0 ? v128.shuffle<f32>(noise, noise, 0, 0, 0, 0) : k == 1 ? v128.shuffle<f32>(noise, noise, 1, 1, 1, 1)
          : k == 2 ? v128.shuffle<f32>(noise, noise, 2, 2, 2, 2) : v128.shuffle<f32>(noise, noise, 3, 3, 3, 3)
        if (grey) {
          const l: f32 = luma(v) / alpha
          const to: f32 = max<f32>(0, min<f32>(highest, floor<f32>(l * parts + f32x4.extract_lane(n, 0)))) / highest
          v128.store(p, keepAlpha(f32x4.mul(v, f32x4.splat(l > 0 ? to / l : 0)), alpha))
          continue
        }
        const s = alpha == 1 ? v : f32x4.div(v, f32x4.splat(alpha))
        const step = f32x4.floor(f32x4.add(f32x4.mul(s, many), n))
        const out = f32x4.div(f32x4.pmin(top, f32x4.pmax(zero, step)), top)
        if (alpha == 1) v128.store(p, f32x4.replace_lane(out, 3, 1))
        else v128.store(p, keepAlpha(f32x4.mul(out, f32x4.splat(alpha)), alpha))
      }
    }
  }
}

/** Colours, and with `alphaToo` the alpha, times 1 − plane · amount. */
export function fadeRows(
  at: usize, stride: usize, w: i32, h: i32, plane: usize, amount: f32, alphaToo: bool,
): void {
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16, plane += 4) {
      const k: f32 = load<f32>(plane) * amount
      if (k == 0) continue
      const v = v128.load(p)
      const out = f32x4.mul(v, f32x4.splat(<f32>1 - k))
      v128.store(p, alphaToo ? out : keepAlpha(out, f32x4.extract_lane(v, 3)))
    }
  }
}

/** Colours drawn to one colour by plane · amount. */
export function colourRows(
  at: usize, stride: usize, w: i32, h: i32, plane: usize, r: f32, g: f32, b: f32, amount: f32,
): void {
  const c = f32x4(r, g, b, 1)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16, plane += 4) {
      const k = f32x4.splat(load<f32>(plane) * amount)
      const v = v128.load(p)
      const to = f32x4.mul(c, v128.shuffle<f32>(v, v, 3, 3, 3, 3))
      v128.store(p, keepAlpha(f32x4.add(v, f32x4.mul(k, f32x4.sub(to, v))), f32x4.extract_lane(v, 3)))
    }
  }
}

/** Light of one colour added by the plane: on all, or as far as `lit` in proportion to what is there. */
export function lightRows(
  at: usize, stride: usize, w: i32, h: i32, plane: usize, r: f32, g: f32, b: f32, lit: bool,
): void {
  const c = f32x4(r, g, b, 0)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16, plane += 4) {
      const m: f32 = load<f32>(plane)
      if (m == 0) continue
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      v128.store(p, keepAlpha(f32x4.add(v, f32x4.mul(c, f32x4.splat(m * (lit ? luma(v) : alpha)))), alpha))
    }
  }
}

/**
 * What is brighter than the threshold, by the largest straight channel m: times (m − threshold)/m, over the knee by a
 * parabola. All of it is given, alpha too, coloured by (r, g, b).
 */
export function brightRows(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32,
  threshold: f32, knee: f32, r: f32, g: f32, b: f32,
): void {
  const c = f32x4(r, g, b, 1), zero = f32x4.splat(0), tiny = f32x4.splat(1e-6)
  const level = f32x4.splat(threshold), width = f32x4.splat(knee)
  const curve = f32x4.splat(knee > 0 ? <f32>1 / (<f32>4 * knee) : 0)
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * srcStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x += 4, p += 64, q += 64) {
      const v0 = v128.load(p), v1 = v128.load(p, 16), v2 = v128.load(p, 32), v3 = v128.load(p, 48)
      // The largest channel of each of four pixels, straight.
      const rg0 = redGreen(v0, v1), rg1 = redGreen(v2, v3)
      const ba0 = blueAlpha(v0, v1), ba1 = blueAlpha(v2, v3)
      const red = firstOf(rg0, rg1), green = secondOf(rg0, rg1)
      const blue = firstOf(ba0, ba1), alpha = secondOf(ba0, ba1)
      const m = f32x4.div(f32x4.pmax(red, f32x4.pmax(green, blue)), f32x4.pmax(tiny, alpha))
      const over = f32x4.sub(m, level)
      const soft = f32x4.pmax(zero, f32x4.add(over, width))
      if (!v128.any_true(f32x4.gt(soft, zero))) {
        v128.store(q, zero)
        v128.store(q, zero, 16)
        v128.store(q, zero, 32)
        v128.store(q, zero, 48)
        continue
      }
      const take = v128.bitselect(over, f32x4.mul(f32x4.mul(soft, soft), curve), f32x4.ge(over, width))
      const k = f32x4.div(f32x4.pmax(zero, take), f32x4.pmax(tiny, m))
      v128.store(q, f32x4.mul(c, f32x4.mul(v0, v128.shuffle<f32>(k, k, 0, 0, 0, 0))))
      v128.store(q, f32x4.mul(c, f32x4.mul(v1, v128.shuffle<f32>(k, k, 1, 1, 1, 1))), 16)
      v128.store(q, f32x4.mul(c, f32x4.mul(v2, v128.shuffle<f32>(k, k, 2, 2, 2, 2))), 32)
      v128.store(q, f32x4.mul(c, f32x4.mul(v3, v128.shuffle<f32>(k, k, 3, 3, 3, 3))), 48)
    }
  }
}

/** Colours of `src`, where it has none those of `soft`, with the alpha of a plane. */
export function alphaRows(
  src: usize, srcStride: usize, soft: usize, softStride: usize, plane: usize, dst: usize, dstStride: usize, w: i32, h: i32,
): void {
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * srcStride, s = soft + <usize>y * softStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++, p += 16, s += 16, q += 16, plane += 4) {
      const alpha: f32 = load<f32>(plane)
      let v = v128.load(p)
      let from = f32x4.extract_lane(v, 3)
      // Hardly anything is there: its colour is that of what is near.
      if (from < <f32>0.02) {
        v = v128.load(s)
        from = f32x4.extract_lane(v, 3)
      }
      if (alpha <= 0 || from <= 0) v128.store(q, f32x4.splat(0))
      else v128.store(q, keepAlpha(f32x4.mul(v, f32x4.splat(alpha / from)), alpha))
    }
  }
}

/** Alpha that misses whole by no more than rounding becomes whole; colours stay within alpha. */
export function settleRows(at: usize, stride: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      v128.store(p, keepAlpha(v, alpha > <f32>0.99999 ? 1 : max<f32>(0, alpha)))
    }
  }
}
