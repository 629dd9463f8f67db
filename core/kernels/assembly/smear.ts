// The mean along lines in one direction, by running sums. A line goes through whole columns (`smearAcross`) or whole rows
// (`smearDown`); what lies between two pixels is mixed of both, on the way in and on the way out. Lines are named by where
// they cross the card's axis: across = c + slope · along, c a whole number, |slope| ≤ 1. `inner` whole pixels on each side
// count fully, the next one `end` of it; they are divided by `total`, so that what is whole stays whole. Sums are whole numbers,
// `unit` for 1, so that they are the same wherever a window begins.
import { whole } from './whole-numbers'

/** (1 − f) · a + f · b; rounding may go over whole by a last bit. */
@inline
function between(a: v128, b: v128, f: v128): v128 {
  return f32x4.pmin(f32x4.splat(1), f32x4.add(a, f32x4.mul(f, f32x4.sub(b, a))))
}

/** What a line reads where one or both of its rows lie beyond the window. */
@inline
export function readBetween(src: usize, row: usize, j: i32, m: i32, f: v128): v128 {
  const zero = f32x4.splat(0)
  if (j < -1 || j >= m) return zero
  const a = j >= 0 ? v128.load(src + <usize>j * row) : zero
  const b = j + 1 < m ? v128.load(src + <usize>(j + 1) * row) : zero
  return f32x4.add(a, f32x4.mul(f, f32x4.sub(b, a)))
}

/**
 * Along rows. (x0, y0) is the window's place on the card. work: 8 · w bytes for where the lines are, then (2 · w + 2 · inner + 2)
 * pixels for a line and the means of the line before it.
 */
export function smearAcross(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, x0: i32,
  slope: f64, inner: i32, end: f32, total: f32, unit: f32, work: usize,
): void {
  // Of each column: how many rows below c its pixel lies, and how far on the way to the next.
  const downs = work, parts = work + (<usize>w << 2)
  const line = parts + (<usize>w << 2)
  const middle = line + (<usize>(inner + 1) << 4)
  const before = middle + (<usize>(w + inner + 1) << 4)
  let least = i32.MAX_VALUE, most = i32.MIN_VALUE
  for (let x = 0; x < w; x++) {
    const at = slope * <f64>(x + x0)
    const down = floor(at)
    store<i32>(downs + (<usize>x << 2), <i32>down)
    store<f32>(parts + (<usize>x << 2), <f32>(at - down))
    least = min(least, <i32>down)
    most = max(most, <i32>down)
  }
  memory.fill(line, 0, <usize>(w + 2 * inner + 2) << 4)
  memory.fill(before, 0, <usize>w << 4)
  const scale = f32x4.splat(unit), ends = f32x4.splat(end), all = f32x4.splat(total), zero = f32x4.splat(0)
  let wasAny = false
  for (let c = -most - 1; c < h - least; c++) {
    let any = zero
    for (let x = 0; x < w; x++) {
      const j = c + load<i32>(downs + (<usize>x << 2))
      const f = v128.load32_splat(parts + (<usize>x << 2))
      const p = src + (<usize>x << 4)
      let v: v128
      if (j >= 0 && j + 1 < h) {
        const q = p + <usize>j * srcStride
        const a = v128.load(q)
        v = f32x4.add(a, f32x4.mul(f, f32x4.sub(v128.load(q + srcStride), a)))
      } else v = readBetween(p, srcStride, j, h, f)
      any = v128.or(any, v)
      v128.store(middle + (<usize>x << 4), whole(f32x4.mul(v, scale)))
    }
    const isAny = v128.any_true(any)
    if (isAny || wasAny) {
      let sum = i32x4.splat(0)
      let p = line + 16
      for (let i = 0; i < 2 * inner; i++, p += 16) sum = i32x4.add(sum, v128.load(p))
      // p stands at the newest pixel that counts fully, `old` at the oldest.
      let old = line + 16, mean = before, q = dst
      for (let x = 0; x < w; x++) {
        sum = i32x4.add(sum, v128.load(p))
        const beside = i32x4.add(v128.load(old - 16), v128.load(p, 16))
        const counted = f32x4.add(f32x4.convert_i32x4_s(sum), f32x4.mul(ends, f32x4.convert_i32x4_s(beside)))
        sum = i32x4.sub(sum, v128.load(old))
        const v = f32x4.div(counted, all)
        const j = c + load<i32>(downs + (<usize>x << 2))
        // Each pixel lies on this line, or between it and the one before.
        if (<u32>j < <u32>h) {
          v128.store(q + <usize>j * dstStride, between(v, v128.load(mean), v128.load32_splat(parts + (<usize>x << 2))))
        }
        v128.store(mean, v)
        p += 16
        old += 16
        mean += 16
        q += 16
      }
    } else {
      for (let x = 0; x < w; x++) {
        const j = c + load<i32>(downs + (<usize>x << 2))
        if (<u32>j < <u32>h) v128.store(dst + <usize>j * dstStride + (<usize>x << 4), zero)
      }
    }
    wasAny = isAny
  }
}

/** Where a line that goes through the middle of row y has its pixels: so many columns beside c. */
@inline
function besideAt(slope: f64, y: i32): i32 {
  return <i32>floor(slope * <f64>y)
}

/**
 * Along columns. Whole rows go into sums of all lines at once. A row of whole numbers has w + 1 pixels, and `inner` + 3 clear
 * ones on each side; work: 2 · inner + 3 such rows, then the sums of all lines: w + h · |slope| + 4 pixels.
 */
export function smearDown(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, y0: i32,
  slope: f64, inner: i32, end: f32, total: f32, unit: f32, work: usize,
): void {
  const margin = inner + 3, kept = 2 * inner + 3
  const rowBytes: usize = <usize>(w + 1 + 2 * margin) << 4
  const rows = work + (<usize>margin << 4), sums = work + <usize>kept * rowBytes
  const atTop = besideAt(slope, y0), atFoot = besideAt(slope, y0 + h - 1)
  // Lines by the pixel left of the window that they cross: c = x0 − 1 − beside.
  const first = -max(atTop, atFoot)
  const lines = w + 1 + abs(atTop - atFoot)
  memory.fill(work, 0, <usize>kept * rowBytes)
  memory.fill(sums, 0, <usize>lines << 4)
  const scale = f32x4.splat(unit), ends = f32x4.splat(end), all = f32x4.splat(total)
  const across: usize = <usize>(w + 1) << 4
  // Rows enter `inner` + 1 before they are looked at, and leave as far behind.
  for (let y = -inner - 1; y < h; y++) {
    const coming = y + inner + 1
    const full = coming - 1
    // The row that came last counts fully from now on.
    if (full >= 0 && full < h) {
      const p = rows + <usize>(full % kept) * rowBytes
      const s = sums + (<usize>(-besideAt(slope, y0 + full) - first) << 4)
      for (let x: usize = 0; x < across; x += 16) v128.store(s + x, i32x4.add(v128.load(s + x), v128.load(p + x)))
    }
    const gone = y - inner - 1
    if (gone >= 0) {
      const p = rows + <usize>(gone % kept) * rowBytes
      const s = sums + (<usize>(-besideAt(slope, y0 + gone) - first) << 4)
      for (let x: usize = 0; x < across; x += 16) v128.store(s + x, i32x4.sub(v128.load(s + x), v128.load(p + x)))
    }
    const into = rows + <usize>(coming % kept) * rowBytes
    if (coming < h) {
      const at = slope * <f64>(y0 + coming)
      const f = f32x4.splat(<f32>(at - floor(at)))
      const p = src + <usize>coming * srcStride
      let a = f32x4.splat(0)
      for (let x: usize = 0; x < across - 16; x += 16) {
        const b = v128.load(p + x)
        v128.store(into + x, whole(f32x4.mul(f32x4.add(a, f32x4.mul(f, f32x4.sub(b, a))), scale)))
        a = b
      }
      v128.store(into + across - 16, whole(f32x4.mul(f32x4.sub(a, f32x4.mul(f, a)), scale)))
    } else memory.fill(into, 0, across)
    if (y < 0) continue
    const at = slope * <f64>(y0 + y)
    const f = f32x4.splat(<f32>(at - floor(at)))
    const here = <i32>floor(at)
    const s = sums + (<usize>(-here - first) << 4)
    const older = besideRow(rows, rowBytes, kept, y - inner - 1, slope, y0, here)
    const newer = besideRow(rows, rowBytes, kept, coming, slope, y0, here)
    const q = dst + <usize>y * dstStride
    let a = f32x4.splat(0)
    for (let x: usize = 0; x < across; x += 16) {
      const beside = i32x4.add(v128.load(older + x), v128.load(newer + x))
      const counted = f32x4.add(f32x4.convert_i32x4_s(v128.load(s + x)), f32x4.mul(ends, f32x4.convert_i32x4_s(beside)))
      const b = f32x4.div(counted, all)
      if (x) v128.store(q + x - 16, between(b, a, f))
      a = b
    }
  }
}

/** The pixels of a kept row on the lines of the row at `here`. */
@inline
function besideRow(rows: usize, rowBytes: usize, kept: i32, y: i32, slope: f64, y0: i32, here: i32): usize {
  const beside = besideAt(slope, y0 + y)
  return rows + <usize>((y + kept) % kept) * rowBytes + ((beside - here) << 4)
}
