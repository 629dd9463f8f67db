// The Gaussian pyramid of blur.ts on whole pixels: four floats each, premultiplied RGBA. Every value is computed by the same
// steps as in a plane, so that a picture blurs to the bits of its four planes. Columns are convolved by blur.ts: a row of
// w pixels is one of 4 · w floats.

/**
 * (w × h) → (lowW × lowH), lowW ≥ w/2, lowH = ceil(h/2). row: 2·lowW + 4 pixels. `above`: the picture goes on over the first
 * row; below it goes on as far as h says.
 */
export function halveRgba(
  src: usize, stride: usize, dst: usize, w: i32, h: i32, lowW: i32, lowH: i32, row: usize, above: bool,
): void {
  const bytes: usize = <usize>w << 4
  memory.fill(row, 0, <usize>(2 * lowW + 4) << 4)
  const t = row + 16
  const zero = f32x4.splat(0), three = f32x4.splat(3), scale = f32x4.splat(1.0 / 64.0)
  for (let v = 0; v < lowH; v++) {
    const y = v << 1
    const p = src + <usize>y * stride
    const hasUp = y > 0 || above, hasBelow = y + 1 < h, hasDown = y + 2 < h
    for (let x: usize = 0; x < bytes; x += 16) {
      const up = hasUp ? v128.load(p + x - stride) : zero
      const below = hasBelow ? v128.load(p + x + stride) : zero
      const down = hasDown ? v128.load(p + x + 2 * stride) : zero
      v128.store(t + x, f32x4.add(f32x4.add(up, down), f32x4.mul(three, f32x4.add(v128.load(p + x), below))))
    }
    let q = t
    for (let x = 0; x < lowW; x++) {
      const middle = f32x4.add(v128.load(q), v128.load(q, 16))
      const sides = f32x4.add(v128.load(q - 16), v128.load(q, 32))
      v128.store(dst, f32x4.mul(scale, f32x4.add(sides, f32x4.mul(three, middle))))
      dst += 16
      q += 32
    }
  }
}

/**
 * (lowW × lowH) → (w × h), the inverse layout of `halveRgba`. rows: 2·lowW + 4 pixels. `above`, `below`: the low picture goes
 * on over its first row, and under its last.
 */
export function doubleRgba(
  src: usize, dst: usize, stride: usize, lowW: i32, lowH: i32, w: i32, h: i32, rows: usize, above: bool, below: bool,
): void {
  const bytes: usize = <usize>lowW << 4
  const upper = rows + 16, lower = upper + bytes + 32
  memory.fill(rows, 0, (bytes << 1) + 64)
  const c3 = f32x4.splat(0.75), c1 = f32x4.splat(0.25), zero = f32x4.splat(0)
  for (let v = 0; v < lowH; v++) {
    const p = src + <usize>v * bytes
    const hasUp = v > 0 || above, hasDown = v + 1 < lowH || below
    for (let x: usize = 0; x < bytes; x += 16) {
      const m = f32x4.mul(c3, v128.load(p + x))
      const up = hasUp ? v128.load(p + x - bytes) : zero
      const down = hasDown ? v128.load(p + x + bytes) : zero
      v128.store(upper + x, f32x4.add(m, f32x4.mul(c1, up)))
      v128.store(lower + x, f32x4.add(m, f32x4.mul(c1, down)))
    }
    for (let k = 0; k < 2; k++) {
      const y = 2 * v + k
      if (y >= h) break
      let c = k ? lower : upper
      let q = dst + <usize>y * stride
      for (let x = 0; x < w; x += 2) {
        const m = f32x4.mul(c3, v128.load(c))
        v128.store(q, f32x4.add(m, f32x4.mul(c1, v128.load(c - 16))))
        if (x + 1 < w) v128.store(q, f32x4.add(m, f32x4.mul(c1, v128.load(c, 16))), 16)
        c += 16
        q += 32
      }
    }
  }
}

/** Symmetric kernel along the rows: taps[0] is the centre. row: w + 2·radius pixels. src may equal dst; rows without gaps. */
export function convolveRowsRgba(src: usize, dst: usize, w: i32, h: i32, taps: usize, radius: i32, row: usize): void {
  const bytes: usize = <usize>w << 4
  memory.fill(row, 0, <usize>(w + 2 * radius) << 4)
  for (let y = 0; y < h; y++) {
    memory.copy(row + (<usize>radius << 4), src + <usize>y * bytes, bytes)
    let p = row + (<usize>radius << 4), q = dst + <usize>y * bytes
    for (let x = 0; x < w; x++) {
      let a = f32x4.mul(v128.load32_splat(taps), v128.load(p))
      let u = p, d = p, tap = taps
      for (let i = 1; i <= radius; i++) {
        u -= 16
        d += 16
        tap += 4
        a = f32x4.add(a, f32x4.mul(v128.load32_splat(tap), f32x4.add(v128.load(u), v128.load(d))))
      }
      v128.store(q, a)
      p += 16
      q += 16
    }
  }
}
