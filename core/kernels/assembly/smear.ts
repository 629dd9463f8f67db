// A box along lines, by running sums: along a direction, or towards a point. A line goes through whole columns (or rows: then
// the two axes are told the other way round); what lies between pixels is mixed of the two beside it, on the way in and on
// the way out. Sums are whole numbers, so that they are the same wherever a window begins.
// The window has n pixels along the lines, `step` bytes apart, and m across them, `row` bytes apart; it begins at (along0,
// across0) on the card.

@inline
function mixed(a: usize, b: usize, x: usize, f: v128, rest: v128): v128 {
  const near = a ? f32x4.mul(rest, v128.load(a + x)) : f32x4.splat(0)
  return b ? f32x4.add(near, f32x4.mul(f, v128.load(b + x))) : near
}

@inline
function added(p: usize, v: v128): void {
  // Rounding may go over whole by a last bit.
  v128.store(p, f32x4.pmin(f32x4.splat(1), f32x4.add(v128.load(p), v)))
}

/**
 * Along slanted lines across = c + slope · along, c a whole number, |slope| ≤ 1. `inner` whole pixels on each side count
 * fully, the next one `end` of it. `unit` is what 1 counts in the sums. line: n + 2·(inner + 1) pixels; dst is clear.
 */
export function smearLines(
  src: usize, step: usize, row: usize, dst: usize, toStep: usize, toRow: usize, n: i32, m: i32, along0: i32, across0: i32,
  slope: f64, inner: i32, end: f32, unit: f32, line: usize,
): void {
  const margin = inner + 1
  const middle = line + (<usize>margin << 4)
  const scale = f32x4.splat(unit), ends = f32x4.splat(end)
  // Divided, not multiplied, so that what is whole stays whole.
  const total = f32x4.splat(unit * (<f32>(inner + inner + 1) + end + end))
  const atStart = slope * <f64>along0, atEnd = slope * <f64>(along0 + n - 1)
  const first = <i32>floor(<f64>across0 - max(atStart, atEnd)) - 1
  const last = <i32>floor(<f64>(across0 + m) - min(atStart, atEnd)) + 1
  for (let c = first; c <= last; c++) {
    memory.fill(line, 0, <usize>(n + 2 * margin) << 4)
    let any = false
    for (let i = 0; i < n; i++) {
      const at = <f64>c + slope * <f64>(i + along0) - <f64>across0
      const down = floor(at)
      const j = <i32>down
      if (j < -1 || j >= m) continue
      const part = <f32>(at - down)
      const a: usize = j >= 0 ? src + <usize>j * row : 0
      const b: usize = part > 0 && j + 1 < m ? src + <usize>(j + 1) * row : 0
      const v = mixed(a, b, <usize>i * step, f32x4.splat(part), f32x4.splat(<f32>1 - part))
      if (!v128.any_true(v)) continue
      any = true
      v128.store(middle + (<usize>i << 4), i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(v, scale))))
    }
    if (!any) continue
    let sum = i32x4.splat(0)
    let p = line + 16
    for (let i = 0; i < 2 * inner; i++, p += 16) sum = i32x4.add(sum, v128.load(p))
    // p stands at the newest pixel that counts fully, `old` at the oldest.
    let old = line + 16
    for (let i = 0; i < n; i++) {
      sum = i32x4.add(sum, v128.load(p))
      const beside = i32x4.add(v128.load(old - 16), v128.load(p, 16))
      const all = f32x4.add(f32x4.convert_i32x4_s(sum), f32x4.mul(ends, f32x4.convert_i32x4_s(beside)))
      sum = i32x4.sub(sum, v128.load(old))
      p += 16
      old += 16
      if (!v128.any_true(all)) continue
      const at = <f64>c + slope * <f64>(i + along0) - <f64>across0
      const down = floor(at)
      const j = <i32>down
      if (j < -1 || j >= m) continue
      const part = <f32>(at - down)
      const v = f32x4.div(all, total)
      const q = dst + <usize>i * toStep
      if (j >= 0) added(q + <usize>j * toRow, f32x4.mul(v, f32x4.splat(<f32>1 - part)))
      if (part > 0 && j + 1 < m) added(q + <usize>(j + 1) * toRow, f32x4.mul(v, f32x4.splat(part)))
    }
  }
}

/** The sum of a line's samples between two places: prefix sums of whole numbers, and the samples at both ends in part. */
@inline
function sumBetween(sums: usize, n: i32, from: f64, to: f64): v128 {
  const start = max<f64>(0, min<f64>(from, <f64>n)), end = max<f64>(0, min<f64>(to, <f64>n))
  const i = min(<i32>floor(start), n - 1), j = min(<i32>floor(end), n - 1)
  const p = sums + (<usize>i << 4), q = sums + (<usize>j << 4)
  const a = v128.load(p), b = v128.load(q)
  const whole = f32x4.convert_i32x4_s(i32x4.sub(b, a))
  const before = f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(v128.load(p, 16), a)), f32x4.splat(<f32>(start - <f64>i)))
  const after = f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(v128.load(q, 16), b)), f32x4.splat(<f32>(end - <f64>j)))
  return f32x4.add(f32x4.sub(whole, before), after)
}

/**
 * Towards a point, for the pixels that lie more along than across from it: lines through (alongC, acrossC), one pixel apart
 * `far` px from it. Each pixel becomes the mean of the line from `less` to `more` times its distance. line: n pixels,
 * sums: n + 1 pixels.
 */
export function zoomLines(
  src: usize, step: usize, row: usize, dst: usize, toStep: usize, toRow: usize, n: i32, m: i32, along0: i32, across0: i32,
  alongC: f64, acrossC: f64, far: f64, less: f64, more: f64, inclusive: bool, unit: f32, line: usize, sums: usize,
): void {
  const scale = f32x4.splat(unit)
  const reach = <i32>ceil(far) + 1
  // The centres of pixels, as seen from the point.
  const a0 = <f64>along0 + 0.5 - alongC, b0 = <f64>across0 + 0.5 - acrossC
  for (let half = 0; half < 2; half++) {
    // Pixels on this side of the point: i from..to.
    const zero = <i32>ceil(-a0)
    const from = half ? max(0, zero) : 0, to = half ? n : min(n, zero)
    if (from >= to) continue
    const side: f64 = half ? 1 : -1
    for (let k = -reach; k <= reach; k++) {
      const slope = <f64>k / far * side
      memory.fill(line, 0, <usize>n << 4)
      let any = false
      for (let i = from; i < to; i++) {
        const at = slope * (a0 + <f64>i) - b0
        const down = floor(at)
        const j = <i32>down
        if (j < -1 || j >= m) continue
        const part = <f32>(at - down)
        const p: usize = j >= 0 ? src + <usize>j * row : 0
        const q: usize = part > 0 && j + 1 < m ? src + <usize>(j + 1) * row : 0
        const v = mixed(p, q, <usize>i * step, f32x4.splat(part), f32x4.splat(<f32>1 - part))
        if (!v128.any_true(v)) continue
        any = true
        v128.store(line + (<usize>i << 4), i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(v, scale))))
      }
      if (!any) continue
      let sum = i32x4.splat(0)
      for (let i = 0; i < n; i++) {
        v128.store(sums + (<usize>i << 4), sum)
        sum = i32x4.add(sum, v128.load(line + (<usize>i << 4)))
      }
      v128.store(sums + (<usize>n << 4), sum)
      for (let i = from; i < to; i++) {
        const away = a0 + <f64>i
        // Pixels whose own line is this one or lies beside it: across = away · slope, within away / far.
        const at = slope * away - b0
        const spread = abs(away) / far
        let j = max(0, <i32>ceil(at - spread))
        const end = min(m - 1, <i32>floor(at + spread))
        if (j > end) continue
        const s0 = less * away - a0 + 0.5, s1 = more * away - a0 + 0.5
        const low = min(s0, s1), high = max(s0, s1)
        // A mean over less than a pixel is that of a pixel.
        const width = max(1, high - low), start = 0.5 * (low + high) - 0.5 * width
        const v = f32x4.div(sumBetween(sums, n, start, start + width), f32x4.splat(<f32>width * unit))
        for (; j <= end; j++) {
          const across = <f64>j + b0
          const steep = abs(across) - abs(away)
          // Each pixel belongs to one of the two sets of lines; on the diagonal to the first.
          if (steep > 0 || (steep == 0 && !inclusive)) continue
          const share = spread > 0 ? 1 - abs(<f64>j - at) / spread : 1
          if (share <= 0) continue
          added(dst + <usize>i * toStep + <usize>j * toRow, f32x4.mul(v, f32x4.splat(<f32>share)))
        }
      }
    }
  }
}
