// Where each pixel lies on a ramp of colours: planes of places for the kinds of gradient and generated texture.
// (x0, y0) is the window's place on the card in render pixels, so that a place does not depend on where a window
// begins. Rows have w floats, a multiple of 4. An affine map (a, b, c, d, e, f) takes a pixel's centre (x, y) to
// u = a·x + b·y + e, v = c·x + d·y + f.

export function placeLinear(dst: usize, w: i32, h: i32, x0: i32, y0: i32, t0: f32, tx: f32, ty: f32): void {
  const step = f32x4.splat(tx), lanes = f32x4(0.5, 1.5, 2.5, 3.5)
  for (let y = 0; y < h; y++) {
    const row = f32x4.splat(t0 + ty * (<f32>(y + y0) + <f32>0.5))
    for (let x = 0; x < w; x += 4) {
      v128.store(dst, f32x4.add(row, f32x4.mul(step, f32x4.add(f32x4.splat(<f32>(x + x0)), lanes))))
      dst += 16
    }
  }
}

/** √(u² + v²): 1 on the unit circle of the map. */
export function placeRadial(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, a: f32, b: f32, c: f32, d: f32, e: f32, f: f32,
): void {
  const lanes = f32x4(0.5, 1.5, 2.5, 3.5), va = f32x4.splat(a), vc = f32x4.splat(c)
  for (let y = 0; y < h; y++) {
    const py: f32 = <f32>(y + y0) + <f32>0.5
    const ru = f32x4.splat(b * py + e), rv = f32x4.splat(d * py + f)
    for (let x = 0; x < w; x += 4) {
      const px = f32x4.add(f32x4.splat(<f32>(x + x0)), lanes)
      const u = f32x4.add(ru, f32x4.mul(va, px)), v = f32x4.add(rv, f32x4.mul(vc, px))
      v128.store(dst, f32x4.sqrt(f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v))))
      dst += 16
    }
  }
}

/** The turn from the u axis towards v, 0..1 (CSS Images 4 §3.3). */
export function placeConic(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, a: f32, b: f32, c: f32, d: f32, e: f32, f: f32,
): void {
  const turn: f32 = 0.15915494309189535
  for (let y = 0; y < h; y++) {
    const py: f32 = <f32>(y + y0) + <f32>0.5
    for (let x = 0; x < w; x++) {
      const px: f32 = <f32>(x + x0) + <f32>0.5
      const t: f32 = NativeMathf.atan2(c * px + d * py + f, a * px + b * py + e) * turn
      store<f32>(dst, t < 0 ? t + 1 : t)
      dst += 4
    }
  }
}

/**
 * How far outside (negative: inside) a rounded rectangle about (cx, cy) each pixel lies, in halves of its sides (1 / kx, 1 / ky);
 * `round` 0 for a rectangle to 1 for an ellipse.
 */
export function placeRounded(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, cx: f32, cy: f32, kx: f32, ky: f32, round: f32,
): void {
  const lanes = f32x4(0.5, 1.5, 2.5, 3.5), zero = f32x4.splat(0), flat = f32x4.splat(<f32>1 - round), r = f32x4.splat(round)
  for (let y = 0; y < h; y++) {
    const v = f32x4.sub(f32x4.splat(abs<f32>(<f32>(y + y0) + <f32>0.5 - cy) * ky), flat)
    const vOut = f32x4.pmax(zero, v)
    for (let x = 0; x < w; x += 4) {
      const px = f32x4.sub(f32x4.add(f32x4.splat(<f32>(x + x0)), lanes), f32x4.splat(cx))
      const u = f32x4.sub(f32x4.mul(f32x4.abs(px), f32x4.splat(kx)), flat)
      const uOut = f32x4.pmax(zero, u)
      const away = f32x4.sqrt(f32x4.add(f32x4.mul(uOut, uOut), f32x4.mul(vOut, vOut)))
      v128.store(dst, f32x4.sub(f32x4.add(away, f32x4.pmin(zero, f32x4.pmax(u, v))), r))
      dst += 16
    }
  }
}

/** dst = (src − from) · scale: a plane of places moved and stretched. */
export function placeScaled(src: usize, dst: usize, count: i32, from: f32, scale: f32): void {
  const a = f32x4.splat(from), k = f32x4.splat(scale)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.mul(k, f32x4.sub(v128.load(src), a)))
    src += 16
    dst += 16
  }
}

/** A tile of size × size floats (a power of two), repeated; bilinear between its pixels' centres. */
export function placeTile(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, tile: usize, size: i32,
  a: f32, b: f32, c: f32, d: f32, e: f32, f: f32,
): void {
  const wrap = size - 1
  for (let y = 0; y < h; y++) {
    const py: f32 = <f32>(y + y0) + <f32>0.5
    for (let x = 0; x < w; x++) {
      const px: f32 = <f32>(x + x0) + <f32>0.5
      const u: f32 = a * px + b * py + e - <f32>0.5, v: f32 = c * px + d * py + f - <f32>0.5
      const fu = floor<f32>(u), fv = floor<f32>(v)
      const iu = <i32>fu, iv = <i32>fv
      const r0 = tile + (<usize>((iv & wrap) * size) << 2), r1 = tile + (<usize>(((iv + 1) & wrap) * size) << 2)
      const c0: usize = <usize>(iu & wrap) << 2, c1: usize = <usize>((iu + 1) & wrap) << 2
      const ku: f32 = u - fu, kv: f32 = v - fv
      const top: f32 = load<f32>(r0 + c0) + (load<f32>(r0 + c1) - load<f32>(r0 + c0)) * ku
      const low: f32 = load<f32>(r1 + c0) + (load<f32>(r1 + c1) - load<f32>(r1 + c0)) * ku
      store<f32>(dst, top + (low - top) * kv)
      dst += 4
    }
  }
}

/** How much of a pixel lies on a line of `width` around the middle of each period; `pixels` to a period. */
@inline
function onLine(u: f32, width: f32, pixels: f32): f32 {
  const away: f32 = abs<f32>(u - floor<f32>(u) - <f32>0.5)
  return min<f32>(1, max<f32>(0, (width * <f32>0.5 - away) * pixels + <f32>0.5))
}

/** Lines along v, one a period of u; with `grid` also along u. 1 on a line, 0 between. */
export function placeLines(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, grid: i32, width: f32, pixels: f32,
  a: f32, b: f32, c: f32, d: f32, e: f32, f: f32,
): void {
  for (let y = 0; y < h; y++) {
    const py: f32 = <f32>(y + y0) + <f32>0.5
    for (let x = 0; x < w; x++) {
      const px: f32 = <f32>(x + x0) + <f32>0.5
      let t = onLine(a * px + b * py + e, width, pixels)
      if (grid) t = max(t, onLine(c * px + d * py + f, width, pixels))
      store<f32>(dst, t)
      dst += 4
    }
  }
}

/** The pixel of a row of `count` that a place beyond its ends stands for. */
@inline
function within(i: i32, count: i32, repeated: bool): i32 {
  if (!repeated) return min(count - 1, max(0, i))
  const rest = i % count
  return rest < 0 ? rest + count : rest
}

/** The part of a picture that begins at pixel (left, top) of it, and its last pixels beyond its border. */
function copyPicture(dst: usize, w: i32, h: i32, left: i32, top: i32, picture: usize, iw: i32, ih: i32): void {
  const from = min(w, max(0, -left)), to = max(from, min(w, iw - left))
  for (let y = 0; y < h; y++) {
    const row = picture + (<usize>(within(y + top, ih, false) * iw) << 4)
    const first = v128.load(row), last = v128.load(row + (<usize>(iw - 1) << 4))
    for (let x = 0; x < from; x++) v128.store(dst + (<usize>x << 4), first)
    memory.copy(dst + (<usize>from << 4), row + (<usize>(from + left) << 4), <usize>(to - from) << 4)
    for (let x = to; x < w; x++) v128.store(dst + (<usize>x << 4), last)
    dst += <usize>w << 4
  }
}

/**
 * A picture (premultiplied RGBA, iw × ih); bilinear between its pixels' centres. Beyond its border it is repeated, or
 * its last pixels go on.
 */
export function samplePicture(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, picture: usize, iw: i32, ih: i32, repeated: bool,
  a: f32, b: f32, c: f32, d: f32, e: f32, f: f32,
): void {
  // Pixel by pixel where it lies: no value is other than by the way below, with parts of 0.
  if (!repeated && a == 1 && b == 0 && c == 0 && d == 1 && e == floor<f32>(e) && f == floor<f32>(f)) {
    copyPicture(dst, w, h, x0 + <i32>e, y0 + <i32>f, picture, iw, ih)
    return
  }
  for (let y = 0; y < h; y++) {
    const py: f32 = <f32>(y + y0) + <f32>0.5
    for (let x = 0; x < w; x++) {
      const px: f32 = <f32>(x + x0) + <f32>0.5
      const u: f32 = a * px + b * py + e - <f32>0.5, v: f32 = c * px + d * py + f - <f32>0.5
      const fu = floor<f32>(u), fv = floor<f32>(v)
      const iu = within(<i32>fu, iw, repeated), iv = within(<i32>fv, ih, repeated)
      const ju = within(<i32>fu + 1, iw, repeated), jv = within(<i32>fv + 1, ih, repeated)
      const r0 = picture + (<usize>(iv * iw) << 4), r1 = picture + (<usize>(jv * iw) << 4)
      const ku = f32x4.splat(u - fu), kv = f32x4.splat(v - fv)
      const p00 = v128.load(r0 + (<usize>iu << 4)), p01 = v128.load(r0 + (<usize>ju << 4))
      const p10 = v128.load(r1 + (<usize>iu << 4)), p11 = v128.load(r1 + (<usize>ju << 4))
      const top = f32x4.add(p00, f32x4.mul(ku, f32x4.sub(p01, p00)))
      const low = f32x4.add(p10, f32x4.mul(ku, f32x4.sub(p11, p10)))
      v128.store(dst, f32x4.add(top, f32x4.mul(kv, f32x4.sub(low, top))))
      dst += 16
    }
  }
}

@inline
function lattice(x: i32, y: i32, seed: u32): f32 {
  let v: u32 = <u32>x * 0x9e3779b1 ^ (<u32>y * 0x85ebca77 + seed * 0xc2b2ae3d)
  v ^= v >> 16
  v *= 0x7feb352d
  v ^= v >> 15
  v *= 0x846ca68b
  v ^= v >> 16
  return <f32>(v >> 8) * <f32>(1.0 / 16777216.0)
}

/**
 * Adds one octave of value noise to a tile: a lattice of nx × ny random values over the tile, which repeats,
 * joined by the smoothstep (3 − 2t)t² in both directions. (K. Perlin, An Image Synthesizer, 1985, for the method.)
 */
export function addNoise(tile: usize, size: i32, nx: i32, ny: i32, weight: f32, seed: u32): void {
  const sx: f32 = <f32>nx / <f32>size, sy: f32 = <f32>ny / <f32>size
  for (let y = 0; y < size; y++) {
    const v: f32 = (<f32>y + <f32>0.5) * sy, fv = floor<f32>(v)
    const r0 = <i32>fv % ny, r1 = (r0 + 1) % ny
    const tv: f32 = v - fv, kv: f32 = tv * tv * (<f32>3 - <f32>2 * tv)
    for (let x = 0; x < size; x++) {
      const u: f32 = (<f32>x + <f32>0.5) * sx, fu = floor<f32>(u)
      const c0 = <i32>fu % nx, c1 = (c0 + 1) % nx
      const tu: f32 = u - fu, ku: f32 = tu * tu * (<f32>3 - <f32>2 * tu)
      const a = lattice(c0, r0, seed), b = lattice(c1, r0, seed)
      const c = lattice(c0, r1, seed), d = lattice(c1, r1, seed)
      const top: f32 = a + (b - a) * ku, low: f32 = c + (d - c) * ku
      store<f32>(tile, load<f32>(tile) + weight * (top + (low - top) * kv))
      tile += 4
    }
  }
}
