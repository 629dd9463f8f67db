// Paint laid through a mask into RGBA (f32, premultiplied, 4 floats a pixel). `mask` 0 means whole cover.

/** dst = colour · mask; the colour is premultiplied. */
export function paintSolid(mask: usize, dst: usize, count: i32, r: f32, g: f32, b: f32, a: f32): void {
  const c = f32x4(r, g, b, a)
  if (mask == 0) {
    for (let i = 0; i < count; i++) {
      v128.store(dst, c)
      dst += 16
    }
    return
  }
  for (let i = 0; i < count; i += 4) {
    const m = v128.load(mask)
    v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0)))
    v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), 16)
    v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), 32)
    v128.store(dst, f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), 48)
    mask += 16
    dst += 64
  }
}

/** dst = colour · mask over dst, in place: the commonest case without a source buffer. Skips empty pixels. */
export function overSolid(mask: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  const c = f32x4(r, g, b, a), one = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let d = dst + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      const m = v128.load(mask)
      if (v128.any_true(m)) {
        let s = f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0))
        v128.store(d, f32x4.add(s, f32x4.mul(v128.load(d), f32x4.sub(one, v128.shuffle<f32>(s, s, 3, 3, 3, 3)))))
        s = f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1))
        v128.store(d, f32x4.add(s, f32x4.mul(v128.load(d, 16), f32x4.sub(one, v128.shuffle<f32>(s, s, 3, 3, 3, 3)))), 16)
        s = f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2))
        v128.store(d, f32x4.add(s, f32x4.mul(v128.load(d, 32), f32x4.sub(one, v128.shuffle<f32>(s, s, 3, 3, 3, 3)))), 32)
        s = f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3))
        v128.store(d, f32x4.add(s, f32x4.mul(v128.load(d, 48), f32x4.sub(one, v128.shuffle<f32>(s, s, 3, 3, 3, 3)))), 48)
      }
      mask += 16
      d += 64
    }
  }
}

/**
 * dst = ramp(t) · mask · opacity with t = t0 + x·tx + y·ty at pixel centres, clamped to 0..1.
 * ramp: `steps` + 1 RGBA colours (premultiplied), linear in between.
 */
export function paintRamp(
  mask: usize, dst: usize, w: i32, h: i32,
  ramp: usize, steps: i32, t0: f32, tx: f32, ty: f32, opacity: f32,
): void {
  const last = <f32>steps
  for (let y = 0; y < h; y++) {
    const rowStart: f32 = t0 + ty * (<f32>y + <f32>0.5)
    for (let x = 0; x < w; x++) {
      const m: f32 = mask ? load<f32>(mask) * opacity : opacity
      if (m == 0) {
        v128.store(dst, f32x4.splat(0))
      } else {
        const t: f32 = min<f32>(last, max<f32>(0, (rowStart + tx * (<f32>x + <f32>0.5)) * last))
        const i = min(<i32>t, steps - 1)
        const f = f32x4.splat(t - <f32>i)
        const p = ramp + (<usize>i << 4)
        const a = v128.load(p)
        v128.store(dst, f32x4.mul(f32x4.splat(m), f32x4.add(a, f32x4.mul(f, f32x4.sub(v128.load(p, 16), a)))))
      }
      if (mask) mask += 4
      dst += 16
    }
  }
}
