// A box along circles: the picture on rings about a point, each ring smoothed by running sums, and back. Rings are a pixel
// apart, and so are the samples on each. Sums are whole numbers, so that they are the same wherever a window begins.

/** Samples of the ring of radius r: a multiple of 8, one a pixel. */
@inline
function samplesOf(ring: i32): i32 {
  return 8 * (<i32>ceil((<f64>ring + 0.5) * 0.7853981633974483) + 1)
}

/** Pixels that all rings up to `count` take. */
export function ringPixels(count: i32): f64 {
  let sum: f64 = 0
  for (let ring = 0; ring < count; ring++) sum += <f64>(samplesOf(ring) + 1)
  return sum
}

/** The turn of a direction from the x axis towards y, 0–1: a polynomial for the arc tangent, right to 2·10⁻⁶ of a turn
 *  (M. Abramowitz, I. Stegun, Handbook of Mathematical Functions, 4.4.49). */
@inline
function turnOf(x: f32, y: f32): f32 {
  const ax = abs<f32>(x), ay = abs<f32>(y)
  const most = max(ax, ay)
  if (most == 0) return 0
  const t: f32 = min(ax, ay) / most
  const q: f32 = t * t
  let a: f32 = <f32>1 + q * (<f32>-0.3333314528 + q * (<f32>0.1999355085 + q * (<f32>-0.1420889944 + q * (<f32>0.1065626393 +
    q * (<f32>-0.0752896400 + q * (<f32>0.0429096138 + q * (<f32>-0.0161657367 + q * <f32>0.0028662257)))))))
  a = a * t * <f32>0.15915494309189535
  if (ay > ax) a = <f32>0.25 - a
  if (x < 0) a = <f32>0.5 - a
  return y < 0 ? (a == 0 ? 0 : <f32>1 - a) : a
}

/**
 * Every pixel becomes the mean of the arc of `arc` turns around it, about (cx, cy). rings: the pixels of `ringPixels(count)`;
 * table: count · 2 i32; circle: cosine and sine (f32) of `steps` even directions and the first again. line: twice the samples
 * of the largest ring.
 */
export function spinRings(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32, y0: i32,
  cx: f64, cy: f64, arc: f64, count: i32, rings: usize, table: usize, circle: usize, steps: i32, line: usize,
): void {
  let at = rings
  for (let ring = 0; ring < count; ring++) {
    const samples = samplesOf(ring)
    store<usize>(table + (<usize>ring << 3), at)
    store<i32>(table + (<usize>ring << 3), samples, 4)
    const radius: f32 = <f32>ring + <f32>0.5
    const stretch: f32 = <f32>steps / <f32>samples
    let any = false
    for (let i = 0; i < samples; i++) {
      const place: f32 = <f32>i * stretch
      const k = <i32>place
      const f: f32 = place - <f32>k
      const q = circle + (<usize>k << 3)
      const cos: f32 = load<f32>(q) + f * (load<f32>(q, 8) - load<f32>(q)), sin: f32 = load<f32>(q, 4) + f * (load<f32>(q, 12) - load<f32>(q, 4))
      const u: f32 = <f32>(cx - 0.5 - <f64>x0) + radius * cos, v: f32 = <f32>(cy - 0.5 - <f64>y0) + radius * sin
      const fu = floor<f32>(u), fv = floor<f32>(v)
      const x = <i32>fu, y = <i32>fv
      let value = f32x4.splat(0)
      if (x >= -1 && y >= -1 && x < w && y < h) {
        const ku = f32x4.splat(u - fu), kv = f32x4.splat(v - fv)
        const p = src + <usize>y * srcStride + (<usize>x << 4)
        const left = x >= 0, right = x + 1 < w, up = y >= 0, down = y + 1 < h
        const zero = f32x4.splat(0)
        const a = left && up ? v128.load(p) : zero, b = right && up ? v128.load(p + 16) : zero
        const c = left && down ? v128.load(p + srcStride) : zero, d = right && down ? v128.load(p + srcStride + 16) : zero
        const top = f32x4.add(a, f32x4.mul(ku, f32x4.sub(b, a))), low = f32x4.add(c, f32x4.mul(ku, f32x4.sub(d, c)))
        value = f32x4.add(top, f32x4.mul(kv, f32x4.sub(low, top)))
        any = any || v128.any_true(value)
      }
      v128.store(at + (<usize>i << 4), value)
    }
    if (any) smoothRing(at, samples, arc, line)
    v128.store(at + (<usize>samples << 4), v128.load(at))
    at += <usize>(samples + 1) << 4
  }
  for (let y = 0; y < h; y++) {
    let q = dst + <usize>y * dstStride
    const dy = <f32>(<f64>(y + y0) + 0.5 - cy)
    for (let x = 0; x < w; x++, q += 16) {
      const dx = <f32>(<f64>(x + x0) + 0.5 - cx)
      const turn = turnOf(dx, dy)
      const ring: f32 = max<f32>(0, sqrt<f32>(dx * dx + dy * dy) - <f32>0.5)
      const j = min(<i32>ring, count - 2)
      const k = f32x4.splat(min<f32>(1, ring - <f32>j))
      const t = table + (<usize>j << 3)
      const a = onRing(load<u32>(t), load<i32>(t, 4), turn), b = onRing(load<u32>(t, 8), load<i32>(t, 12), turn)
      v128.store(q, f32x4.pmin(f32x4.splat(1), f32x4.add(a, f32x4.mul(k, f32x4.sub(b, a)))))
    }
  }
}

@inline
function onRing(at: usize, samples: i32, turn: f32): v128 {
  const place: f32 = turn * <f32>samples
  const i = min(<i32>place, samples - 1)
  const p = at + (<usize>i << 4)
  const a = v128.load(p)
  return f32x4.add(a, f32x4.mul(f32x4.splat(place - <f32>i), f32x4.sub(v128.load(p, 16), a)))
}

/** The mean over an arc on both sides of each sample of a closed ring, in place. */
function smoothRing(at: usize, samples: i32, arc: f64, line: usize): void {
  const half = 0.5 * min(1, arc) * <f64>samples
  const inner = <i32>max(0, ceil(half - 0.5) - 1)
  const end = <f32>(half - 0.5 - <f64>inner)
  if (end <= 0 && inner == 0) return
  let bits = 30
  while (bits > 0 && (samples >> (30 - bits)) > 0) bits--
  const unit = <f32>(1 << bits)
  const scale = f32x4.splat(unit)
  for (let i = 0; i < samples; i++) {
    v128.store(line + (<usize>i << 4), i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(v128.load(at + (<usize>i << 4)), scale))))
  }
  // No sample counts twice: an arc of a whole turn is the mean of the ring.
  const whole = min(inner, (samples - 2) >> 1)
  const part = whole < inner ? <f32>0.5 : min<f32>(1, end)
  const ends = f32x4.splat(part), total = f32x4.splat(unit * (<f32>(whole + whole + 1) + part + part))
  let sum = i32x4.splat(0)
  for (let k = -whole; k < whole; k++) sum = i32x4.add(sum, v128.load(line + (<usize>(k < 0 ? k + samples : k) << 4)))
  let newest = whole, oldest = whole > 0 ? samples - whole : 0
  for (let i = 0; i < samples; i++) {
    sum = i32x4.add(sum, v128.load(line + (<usize>newest << 4)))
    const before = oldest == 0 ? samples - 1 : oldest - 1, after = newest == samples - 1 ? 0 : newest + 1
    const beside = i32x4.add(v128.load(line + (<usize>before << 4)), v128.load(line + (<usize>after << 4)))
    v128.store(at + (<usize>i << 4), f32x4.div(f32x4.add(f32x4.convert_i32x4_s(sum), f32x4.mul(ends, f32x4.convert_i32x4_s(beside))), total))
    sum = i32x4.sub(sum, v128.load(line + (<usize>oldest << 4)))
    newest = after
    oldest = oldest == samples - 1 ? 0 : oldest + 1
  }
}
