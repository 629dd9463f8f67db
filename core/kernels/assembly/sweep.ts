// The sides of a body: an outline swept from its near end to its far end. Each edge sweeps a quadrilateral; a pixel
// shows the quadrilateral that is nearest to the viewer there. Sampled SAMPLES times in both directions, so that the
// ridges between sides are smooth; the body's own silhouette is exact coverage and not made here.

/** Sample points along each side of a pixel. */
const SAMPLES: i32 = 3

/**
 * Draws one quadrilateral into sample planes of (w · 3) × (h · 3) floats: `depth` holds the nearest depth so far
 * (0 near, 1 far; preset to 2), `shade` the brightness of that side. Corners: near a, near b, far b, far a.
 */
@inline
function drawSide(
  ax: f32, ay: f32, bx: f32, by: f32, cx: f32, cy: f32, dx: f32, dy: f32,
  depth: usize, shade: usize, sw: i32, sh: i32, light: f32,
): void {
  const top = max(0, <i32>ceil<f32>(min(min(ay, by), min(cy, dy)) - <f32>1)), bottom = min(sh, <i32>ceil<f32>(max(max(ay, by), max(cy, dy)) + <f32>1))
  for (let y = top; y < bottom; y++) {
    const py: f32 = <f32>y + <f32>0.5
    // The row's stretch: where it crosses the four edges. A little wider, so that no sample falls between sides.
    let lo: f32 = 1e9, hi: f32 = -1e9
    for (let e = 0; e < 4; e++) {
      const x0 = e == 0 ? ax : e == 1 ? bx : e == 2 ? cx : dx, y0 = e == 0 ? ay : e == 1 ? by : e == 2 ? cy : dy
      const x1 = e == 0 ? bx : e == 1 ? cx : e == 2 ? dx : ax, y1 = e == 0 ? by : e == 1 ? cy : e == 2 ? dy : ay
      const ya = min(y0, y1) - <f32>0.75, yb = max(y0, y1) + <f32>0.75
      if (py < ya || py > yb) continue
      const t: f32 = y1 == y0 ? 0 : min<f32>(1, max<f32>(0, (py - y0) / (y1 - y0)))
      const x = x0 + (x1 - x0) * t
      lo = min(lo, y1 == y0 ? min(x0, x1) : x)
      hi = max(hi, y1 == y0 ? max(x0, x1) : x)
    }
    if (lo > hi) continue
    const from = max(0, <i32>floor<f32>(lo - <f32>0.75)), to = min(sw, <i32>ceil<f32>(hi + <f32>0.75))
    for (let x = from; x < to; x++) {
      const t = depthAt(<f32>x + <f32>0.5, py, ax, ay, bx, by, cx, cy, dx, dy)
      const at: usize = <usize>(y * sw + x) << 2
      if (t < load<f32>(depth + at)) {
        store<f32>(depth + at, t)
        store<f32>(shade + at, light)
      }
    }
  }
}

/** Depth 0..1 of a point between the near edge a–b and the far edge d–c: where its ray across the side meets it. */
@inline
function depthAt(
  px: f32, py: f32, ax: f32, ay: f32, bx: f32, by: f32, cx: f32, cy: f32, dx: f32, dy: f32,
): f32 {
  // Signed distances from the near and the far edge; for parallel edges their share is exact.
  const ex: f32 = bx - ax, ey: f32 = by - ay, fx: f32 = cx - dx, fy: f32 = cy - dy
  const le = sqrt<f32>(ex * ex + ey * ey), lf = sqrt<f32>(fx * fx + fy * fy)
  if (le < <f32>1e-6) return 1
  const near: f32 = abs<f32>(ex * (py - ay) - ey * (px - ax)) / le
  const far: f32 = lf < <f32>1e-6
    ? abs<f32>(ex * (dy - py) - ey * (dx - px)) / le
    : abs<f32>(fx * (py - dy) - fy * (px - dx)) / lf
  const sum: f32 = near + far
  return sum < <f32>1e-6 ? 1 : near / sum
}

/**
 * All sides. `near` and `far` are segment lists in step (f32 quadruples, box pixels), `lights` the brightness of each
 * side, below 0 for sides that face away and are not drawn. Result: the mean depth and shade of each pixel's samples
 * that lie on a side; where none does, 0 and 1.
 */
export function sweepSides(
  near: usize, far: usize, lights: usize, count: i32,
  depth: usize, shade: usize, depths: usize, shades: usize, w: i32, h: i32,
): void {
  const sw = w * SAMPLES, sh = h * SAMPLES
  const k = <f32>SAMPLES
  for (let i = 0; i < sw * sh; i++) store<f32>(depth + (<usize>i << 2), 2)
  memory.fill(shade, 0, <usize>(sw * sh) << 2)
  for (let i = 0; i < count; i++, near += 16, far += 16) {
    const light = load<f32>(lights + (<usize>i << 2))
    if (light < 0) continue
    drawSide(
      load<f32>(near) * k, load<f32>(near, 4) * k, load<f32>(near, 8) * k, load<f32>(near, 12) * k,
      load<f32>(far, 8) * k, load<f32>(far, 12) * k, load<f32>(far) * k, load<f32>(far, 4) * k,
      depth, shade, sw, sh, light,
    )
  }
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let d: f32 = 0, s: f32 = 0, n: f32 = 0
      for (let j = 0; j < SAMPLES; j++) {
        for (let i = 0; i < SAMPLES; i++) {
          const at: usize = <usize>((y * SAMPLES + j) * sw + x * SAMPLES + i) << 2
          const t = load<f32>(depth + at)
          if (t > 1) continue
          d += t
          s += load<f32>(shade + at)
          n += 1
        }
      }
      const at: usize = <usize>(y * w + x) << 2
      store<f32>(depths + at, n > 0 ? d / n : 0)
      store<f32>(shades + at, n > 0 ? s / n : 1)
    }
  }
}
