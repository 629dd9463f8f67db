// Dabs of a brush. Their places are those of the render grid, in f64: wherever a plane begins, the same bits come out.

@inline
function over(at: usize, m: f32): void {
  const c = load<f32>(at)
  // A whole dab leaves nothing open: what it erases is gone to the last bit.
  store<f32>(at, m >= 1 ? 1 : c + m * (1 - c))
}

/** The columns or rows of a plane that something of a radius around c can touch, from the plane's own first one. */
@inline
function low(c: f64, radius: f64, from: i32): i32 {
  return max(0, <i32>floor(c - radius - 1) - from)
}
@inline
function high(c: f64, radius: f64, from: i32, size: i32): i32 {
  return min(size, <i32>ceil(c + radius + 1) - from)
}

/**
 * Lines by which the part of a pixel below a disc's rim is counted: within 0.7 of 255 from the true area for radii from 1 px on,
 * within 5.2 for smaller ones (measured, down to 0.25 px).
 */
const LINES = 8

/**
 * How much of a pixel a disc covers, its middle (dx, dy) from the disc's. Lengths of lines through the pixel that run across the
 * rim are exact, so that only between them something is left out.
 */
function ofPixel(dx: f64, dy: f64, radius: f64): f64 {
  const steep = abs<f64>(dx) > abs<f64>(dy)
  const along = steep ? dy : dx, across = steep ? dx : dy
  let sum: f64 = 0
  for (let k = 0; k < LINES; k++) {
    const at = along + (<f64>k + 0.5) / <f64>LINES - 0.5
    const half = radius * radius - at * at
    if (half <= 0) continue
    const w = sqrt<f64>(half)
    sum += max<f64>(0, min<f64>(across + 0.5, w) - max<f64>(across - 0.5, -w))
  }
  return sum / <f64>LINES
}

/**
 * Lays a disc on what a plane covers: whole out to `hard` px of its radius, then fading; where that is no more than a px, as a
 * disc with a sharp edge half-way.
 */
export function addDisc(
  plane: usize, w: i32, h: i32, x0: i32, y0: i32, cx: f64, cy: f64, radius: f64, hard: f64, flow: f32,
): void {
  const band = radius - hard
  const edge = (radius + hard) / 2
  const left = low(cx, radius, x0), right = high(cx, radius, x0, w)
  for (let y = low(cy, radius, y0); y < high(cy, radius, y0, h); y++) {
    const dy = <f64>(y0 + y) + 0.5 - cy
    for (let x = left; x < right; x++) {
      const dx = <f64>(x0 + x) + 0.5 - cx
      const d = sqrt<f64>(dx * dx + dy * dy)
      let m: f64
      if (band > 1) {
        const t = max<f64>(0, min<f64>(1, (radius - d) / band))
        m = t * t * (3 - 2 * t)
      } else {
        // A pixel reaches less than 0.71 px from its middle.
        m = d <= edge - 0.71 ? 1 : d >= edge + 0.71 ? 0 : ofPixel(dx, dy, edge)
      }
      if (m > 0) over(plane + (<usize>(y * w + x) << 2), <f32>m * flow)
    }
  }
}

/** Lays a tip of `side` × `side` px on what a plane covers, `radius` px from its middle to its sides, turned by an angle (c, s). */
export function addTip(
  plane: usize, w: i32, h: i32, x0: i32, y0: i32, cx: f64, cy: f64, radius: f64, c: f64, s: f64, tip: usize, side: i32, flow: f32,
): void {
  const reach = radius * (abs<f64>(c) + abs<f64>(s))
  const k = <f64>side / (2 * radius), half = <f64>side / 2 - 0.5
  const left = low(cx, reach, x0), right = high(cx, reach, x0, w)
  for (let y = low(cy, reach, y0); y < high(cy, reach, y0, h); y++) {
    const dy = <f64>(y0 + y) + 0.5 - cy
    for (let x = left; x < right; x++) {
      const dx = <f64>(x0 + x) + 0.5 - cx
      // Angles are anticlockwise on paper: y is down.
      const u = (dx * c - dy * s) * k + half, v = (dx * s + dy * c) * k + half
      if (u < 0 || v < 0 || u >= <f64>(side - 1) || v >= <f64>(side - 1)) continue
      const i = <i32>u, j = <i32>v
      const fu = <f32>(u - <f64>i), fv = <f32>(v - <f64>j)
      const p = tip + (<usize>(j * side + i) << 2), q = p + (<usize>side << 2)
      const a = load<f32>(p), b = load<f32>(p, 4), e = load<f32>(q), f = load<f32>(q, 4)
      const upper = a + (b - a) * fu, lower = e + (f - e) * fu
      over(plane + (<usize>(y * w + x) << 2), (upper + (lower - upper) * fv) * flow)
    }
  }
}
