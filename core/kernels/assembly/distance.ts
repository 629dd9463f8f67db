// Euclidean distance from pixel centres to the outline's own segments (not to pixels), in a band of
// `reach` around them. Each segment touches only the pixels whose nearest point it can hold: those beside it, and
// beyond its ends as far as the wedge between its own normal and its neighbour's opens.

/** Slack for rounding, px. */
const SLACK: f32 = 0.05
const WIDE: f32 = 0.02
/** Sine of the angle to a row, or a column, below which a side of a rectangle is taken to lie along it. */
const LEVEL: f32 = 0.02

/**
 * How far beyond an end of a segment of direction (dx, dy) its pixels may lie, px: reach times the sine of the turn to
 * its neighbour; all of the reach where the turn is sharp or the neighbour is not the next segment in the list.
 */
@inline
function beyond(dx: f32, dy: f32, other: usize, joined: bool, reach: f32): f32 {
  if (!joined) return reach + SLACK
  const ox: f32 = load<f32>(other, 8) - load<f32>(other), oy: f32 = load<f32>(other, 12) - load<f32>(other, 4)
  const lengths = sqrt<f32>((dx * dx + dy * dy) * (ox * ox + oy * oy))
  if (lengths == 0 || dx * ox + dy * oy <= 0) return reach + SLACK
  return reach * abs<f32>(dx * oy - dy * ox) / lengths + SLACK
}

@inline
function measure(
  segments: usize, count: i32, squared: usize, ids: usize, cuts: usize, w: i32, h: i32, reach: f32, named: bool, cut: bool,
): void {
  const stride: usize = <usize>w << 2
  const zero = f32x4.splat(0), one = f32x4.splat(1), four = f32x4.splat(4)
  for (let k = 0; k < count; k++, segments += 16) {
    const x0 = load<f32>(segments), y0 = load<f32>(segments, 4)
    const x1 = load<f32>(segments, 8), y1 = load<f32>(segments, 12)
    const dx: f32 = x1 - x0, dy: f32 = y1 - y0
    const length2: f32 = dx * dx + dy * dy
    const inverse: f32 = length2 > 0 ? <f32>1 / length2 : 0
    const vdx = f32x4.splat(dx), vdy = f32x4.splat(dy), perX = f32x4.splat(dx * inverse)
    const perY: f32 = dy * inverse
    const before = segments - 16, after = segments + 16
    const meetsBefore = k > 0 && load<f32>(before, 8) == x0 && load<f32>(before, 12) == y0
    const meetsAfter = k + 1 < count && load<f32>(after) == x1 && load<f32>(after, 4) == y1
    const inverseLength = sqrt<f32>(inverse)
    // In shares of the segment; one without length is left to its neighbours, unless it stands alone.
    const lowest: f32 = length2 > 0 ? -beyond(dx, dy, before, meetsBefore, reach) * inverseLength : <f32>-1e30
    const highest: f32 = length2 > 0 ? <f32>1 + beyond(dx, dy, after, meetsAfter, reach) * inverseLength : <f32>1e30
    // What it can be nearest to lies in a strip along it and in one across it: a rectangle, at most as far as the reach.
    const unitX: f32 = dx * inverseLength, unitY: f32 = dy * inverseLength, wide: f32 = reach + WIDE
    const yLow: f32 = min(y0 + max<f32>(lowest, -1e6) * dy, y0 + min<f32>(highest, 1e6) * dy)
    const yHigh: f32 = max(y0 + max<f32>(lowest, -1e6) * dy, y0 + min<f32>(highest, 1e6) * dy)
    const slack: f32 = length2 > 0 ? wide * abs<f32>(unitX) + WIDE : wide
    const ya = max(0, <i32>floor<f32>(max(min(y0, y1) - wide, yLow - slack)))
    const yb = min(h, <i32>ceil<f32>(min(max(y0, y1) + wide, yHigh + slack)))
    // Their sides along a row move evenly from row to row; one that is almost level bounds the rows alone.
    const leftMost: f32 = min(x0, x1) - wide, rightMost: f32 = max(x0, x1) + wide
    const leans = abs<f32>(unitX) > LEVEL, stands = abs<f32>(unitY) > LEVEL
    const alongStep: f32 = leans ? -dy / dx : 0, acrossStep: f32 = stands ? dx / dy : 0
    const end0: f32 = lowest / (dx * inverse), end1: f32 = highest / (dx * inverse)
    const half: f32 = abs<f32>(wide / unitY)
    const alongLeft: f32 = leans ? x0 + min(end0, end1) : leftMost, alongRight: f32 = leans ? x0 + max(end0, end1) : rightMost
    const acrossLeft: f32 = stands ? x0 - half : leftMost, acrossRight: f32 = stands ? x0 + half : rightMost
    const id = i32x4.splat(k)
    // Beyond an end that is a corner a cut segment does not count: its corner does.
    const ends = cut ? load<u8>(cuts + <usize>k) : 0
    const lo = f32x4.splat(ends & 1 ? <f32>0 : <f32>-1e30), hi = f32x4.splat(ends & 2 ? <f32>1 : <f32>1e30)
    const far = f32x4.splat(1e12)
    for (let y = ya; y < yb; y++) {
      const py: f32 = <f32>y + 0.5
      const ey0: f32 = py - y0
      const alongFoot: f32 = ey0 * alongStep, acrossFoot: f32 = ey0 * acrossStep
      const left = max(leftMost, max(alongLeft + alongFoot, acrossLeft + acrossFoot))
      const right = min(rightMost, min(alongRight + alongFoot, acrossRight + acrossFoot))
      if (right < 0 || left >= <f32>w || left > right) continue
      // Pixels whose centres lie between; four at once, from wherever they begin, but never into the next row.
      const to = min(w, <i32>floor<f32>(right + 0.5))
      let from = max(0, <i32>ceil<f32>(left - 0.5))
      if (to > w - 4) from &= ~3
      const vey = f32x4.splat(ey0), tRow = f32x4.splat(ey0 * perY)
      let vx = f32x4.add(f32x4.splat(<f32>from + <f32>0.5 - x0), f32x4(0, 1, 2, 3))
      const offset: usize = <usize>y * stride + (<usize>from << 2)
      let p = squared + offset, q = ids + offset
      for (let x = from; x < to; x += 4) {
        const place = f32x4.add(f32x4.mul(vx, perX), tRow)
        const t = f32x4.pmin(one, f32x4.pmax(zero, place))
        const ex = f32x4.sub(vx, f32x4.mul(t, vdx)), ey = f32x4.sub(vey, f32x4.mul(t, vdy))
        let d = f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey))
        if (cut) d = v128.bitselect(d, far, v128.and(f32x4.ge(place, lo), f32x4.le(place, hi)))
        const known = v128.load(p)
        v128.store(p, f32x4.pmin(known, d))
        if (named) {
          v128.store(q, v128.bitselect(id, v128.load(q), f32x4.lt(d, known)))
          q += 16
        }
        vx = f32x4.add(vx, four)
        p += 16
      }
    }
  }
}

/** `squared` holds squared distances and was preset to a large number; w is a multiple of 4. */
export function nearestSegment(segments: usize, count: i32, squared: usize, w: i32, h: i32, reach: f32): void {
  measure(segments, count, squared, 0, 0, w, h, reach, false, false)
}

/** As nearestSegment; `ids` (i32) takes the index of the nearest segment. */
export function nearestSegmentNamed(
  segments: usize, count: i32, squared: usize, ids: usize, w: i32, h: i32, reach: f32,
): void {
  measure(segments, count, squared, ids, 0, w, h, reach, true, false)
}

/** As nearestSegmentNamed; `cuts` has a byte a segment: 1 its start is a corner, 2 its end is, with joins of their own. */
export function nearestSegmentCut(
  segments: usize, count: i32, squared: usize, ids: usize, cuts: usize, w: i32, h: i32, reach: f32,
): void {
  measure(segments, count, squared, ids, cuts, w, h, reach, true, true)
}

/** Adds each crossing's direction at the first pixel centre to its right (i32 plane, preset to 0). */
export function windAtCentres(segments: usize, count: i32, acc: usize, w: i32, h: i32): void {
  for (let k = 0; k < count; k++, segments += 16) {
    let x0 = load<f32>(segments), y0 = load<f32>(segments, 4)
    let x1 = load<f32>(segments, 8), y1 = load<f32>(segments, 12)
    if (y0 == y1) continue
    let dir = 1
    if (y0 > y1) {
      dir = -1
      let t = x0
      x0 = x1
      x1 = t
      t = y0
      y0 = y1
      y1 = t
    }
    const slope: f32 = (x1 - x0) / (y1 - y0)
    const ya = max(0, <i32>ceil<f32>(y0 - 0.5)), yb = min(h, <i32>ceil<f32>(y1 - 0.5))
    for (let y = ya; y < yb; y++) {
      const crossing: f32 = x0 + (<f32>y + <f32>0.5 - y0) * slope
      if (crossing >= <f32>w) continue
      const xi = max(0, <i32>ceil<f32>(crossing - 0.5))
      if (xi < w) {
        const p = acc + (<usize>(y * w + xi) << 2)
        store<i32>(p, load<i32>(p) + dir)
      }
    }
  }
}

/** Square roots with the sign of the winding: negative inside. */
export function signDistance(squared: usize, winding: usize, dst: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let s = 0
    for (let x = 0; x < w; x += 4) {
      const s0 = s + load<i32>(winding), s1 = s0 + load<i32>(winding, 4)
      const s2 = s1 + load<i32>(winding, 8), s3 = s2 + load<i32>(winding, 12)
      s = s3
      const d = f32x4.sqrt(v128.load(squared))
      let lanes = i32x4.splat(s0)
      lanes = i32x4.replace_lane(lanes, 1, s1)
      lanes = i32x4.replace_lane(lanes, 2, s2)
      lanes = i32x4.replace_lane(lanes, 3, s3)
      v128.store(dst, v128.bitselect(f32x4.neg(d), d, i32x4.ne(lanes, i32x4.splat(0))))
      squared += 16
      winding += 16
      dst += 16
    }
  }
}
