// Paint laid through a mask into RGBA (f32, premultiplied, 4 floats a pixel). Mask 0 means whole cover.
// A gate is a plane that says where the result will be looked at: groups of four pixels in which it is
// zero are left as they are. Gate 0 means everywhere.

@inline
function closed(gate: usize): bool {
  return gate != 0 && !v128.any_true(v128.load(gate))
}

@inline
function over(s: v128, d: v128): v128 {
  return f32x4.add(s, f32x4.mul(d, f32x4.sub(f32x4.splat(1), v128.shuffle<f32>(s, s, 3, 3, 3, 3))))
}

/** dst = colour · mask; the colour is premultiplied. */
export function paintSolid(mask: usize, gate: usize, dst: usize, count: i32, r: f32, g: f32, b: f32, a: f32): void {
  const c = f32x4(r, g, b, a)
  let m = f32x4.splat(1)
  for (let i = 0; i < count; i += 4) {
    if (!closed(gate)) {
      if (mask) m = v128.load(mask)
      v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0)))
      v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), 16)
      v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), 32)
      v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), 48)
    }
    if (mask) mask += 16
    if (gate) gate += 16
    dst += 64
  }
}

/** Colour through a mask laid over dst, in place: the commonest case without a source buffer. */
export function overSolid(
  mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32,
): void {
  const c = f32x4(r, g, b, a)
  for (let y = 0; y < h; y++) {
    let d = dst + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      const m = v128.load(mask)
      if (v128.any_true(m) && !closed(gate)) {
        v128.store(d, over(f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0)), v128.load(d)))
        v128.store(d, over(f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), v128.load(d, 16)), 16)
        v128.store(d, over(f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), v128.load(d, 32)), 32)
        v128.store(d, over(f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), v128.load(d, 48)), 48)
      }
      mask += 16
      if (gate) gate += 16
      d += 64
    }
  }
}

@inline
function colourAt(ramp: usize, steps: i32, place: f32): v128 {
  const i = min(<i32>place, steps - 1)
  const p = ramp + (<usize>i << 4)
  const a = v128.load(p)
  return f32x4.add(a, f32x4.mul(f32x4.splat(place - <f32>i), f32x4.sub(v128.load(p, 16), a)))
}

/**
 * dst = ramp(t) · mask · opacity with t = t0 + x·tx + y·ty at pixel centres, clamped to 0..1.
 * ramp: `steps` + 1 RGBA colours (premultiplied), linear in between.
 */
export function paintRamp(
  mask: usize, gate: usize, dst: usize, w: i32, h: i32,
  ramp: usize, steps: i32, t0: f32, tx: f32, ty: f32, opacity: f32,
): void {
  const last = <f32>steps
  const top = f32x4.splat(last), zero = f32x4.splat(0), o = f32x4.splat(opacity)
  const step = f32x4.splat(tx * last), lanes = f32x4(0.5, 1.5, 2.5, 3.5)
  let m = o
  for (let y = 0; y < h; y++) {
    const rowStart = f32x4.splat((t0 + ty * (<f32>y + <f32>0.5)) * last)
    for (let x = 0; x < w; x += 4) {
      if (!closed(gate)) {
        if (mask) m = f32x4.mul(o, v128.load(mask))
        const t = f32x4.add(rowStart, f32x4.mul(step, f32x4.add(f32x4.splat(<f32>x), lanes)))
        const at = f32x4.pmin(top, f32x4.pmax(zero, t))
        v128.store(dst, f32x4.mul(v128.shuffle<f32>(m, m, 0, 0, 0, 0), colourAt(ramp, steps, f32x4.extract_lane(at, 0))))
        v128.store(dst, f32x4.mul(v128.shuffle<f32>(m, m, 1, 1, 1, 1), colourAt(ramp, steps, f32x4.extract_lane(at, 1))), 16)
        v128.store(dst, f32x4.mul(v128.shuffle<f32>(m, m, 2, 2, 2, 2), colourAt(ramp, steps, f32x4.extract_lane(at, 2))), 32)
        v128.store(dst, f32x4.mul(v128.shuffle<f32>(m, m, 3, 3, 3, 3), colourAt(ramp, steps, f32x4.extract_lane(at, 3))), 48)
      }
      if (mask) mask += 16
      if (gate) gate += 16
      dst += 64
    }
  }
}
