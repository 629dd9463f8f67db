// Gaussian blur by a pyramid: halve with [1 3 3 1]/8 until the remaining sigma is small, convolve with a
// short sampled Gaussian, double with [1 3 3 1]/4. The variances of all steps add up to the one asked for.
// Everything outside a plane is zero. Widths are multiples of 4; rows beyond an odd end read as zero.

/** (w × h) → (lowW × lowH), lowW ≥ w/2 and a multiple of 4, lowH = ceil(h/2). row: 2·lowW + 16 floats. */
export function halve(src: usize, dst: usize, w: i32, h: i32, lowW: i32, lowH: i32, row: usize): void {
  const stride: usize = <usize>w << 2
  const rowBytes: usize = <usize>(2 * lowW + 16) << 2
  memory.fill(row, 0, rowBytes)
  const t = row + 16
  const zero = f32x4.splat(0), three = f32x4.splat(3), scale = f32x4.splat(1.0 / 64.0)
  for (let v = 0; v < lowH; v++) {
    const y = v << 1
    const p = src + <usize>y * stride
    for (let x: usize = 0; x < stride; x += 16) {
      const up = y > 0 ? v128.load(p + x - stride) : zero
      const below = y + 1 < h ? v128.load(p + x + stride) : zero
      const down = y + 2 < h ? v128.load(p + x + 2 * stride) : zero
      v128.store(t + x, f32x4.add(f32x4.add(up, down), f32x4.mul(three, f32x4.add(v128.load(p + x), below))))
    }
    for (let x = 0; x < lowW; x += 4) {
      const q = t + (<usize>x << 3)
      const a = v128.load(q), b = v128.load(q, 16)
      const middle = f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7))
      const before = v128.shuffle<f32>(v128.load(q - 4), v128.load(q, 12), 0, 2, 4, 6)
      const after = v128.shuffle<f32>(v128.load(q, 8), v128.load(q, 24), 0, 2, 4, 6)
      v128.store(dst, f32x4.mul(scale, f32x4.add(f32x4.add(before, after), f32x4.mul(three, middle))))
      dst += 16
    }
  }
}

/** (lowW × lowH) → (w × h), the inverse layout of `halve`. rows: 4·lowW + 32 floats. */
export function double(src: usize, dst: usize, lowW: i32, lowH: i32, w: i32, h: i32, rows: usize): void {
  const stride: usize = <usize>lowW << 2
  const upper = rows + 16, lower = upper + stride + 32
  memory.fill(rows, 0, (stride << 1) + 96)
  const c3 = f32x4.splat(0.75), c1 = f32x4.splat(0.25), zero = f32x4.splat(0)
  for (let v = 0; v < lowH; v++) {
    const p = src + <usize>v * stride
    for (let x: usize = 0; x < stride; x += 16) {
      const m = f32x4.mul(c3, v128.load(p + x))
      const up = v > 0 ? v128.load(p + x - stride) : zero
      const down = v + 1 < lowH ? v128.load(p + x + stride) : zero
      v128.store(upper + x, f32x4.add(m, f32x4.mul(c1, up)))
      v128.store(lower + x, f32x4.add(m, f32x4.mul(c1, down)))
    }
    for (let k = 0; k < 2; k++) {
      const y = 2 * v + k
      if (y >= h) break
      const t = k ? lower : upper
      let q = dst + (<usize>y * <usize>w << 2)
      for (let x = 0; x < w; x += 8) {
        const c = t + (<usize>x << 1)
        const m = f32x4.mul(c3, v128.load(c))
        const l = f32x4.add(m, f32x4.mul(c1, v128.load(c - 4)))
        const r = f32x4.add(m, f32x4.mul(c1, v128.load(c + 4)))
        v128.store(q, v128.shuffle<f32>(l, r, 0, 4, 1, 5))
        if (x + 4 < w) v128.store(q, v128.shuffle<f32>(l, r, 2, 6, 3, 7), 16)
        q += 32
      }
    }
  }
}

/** Symmetric kernel down the columns: taps[0] is the centre, taps[radius] the last. */
export function convolveColumns(src: usize, dst: usize, w: i32, h: i32, taps: usize, radius: i32): void {
  const stride: usize = <usize>w << 2
  let x = 0
  for (; x + 16 <= w; x += 16) {
    for (let y = 0; y < h; y++) {
      const p = src + <usize>y * stride + (<usize>x << 2)
      let c = v128.load32_splat(taps)
      let a0 = f32x4.mul(c, v128.load(p)), a1 = f32x4.mul(c, v128.load(p, 16))
      let a2 = f32x4.mul(c, v128.load(p, 32)), a3 = f32x4.mul(c, v128.load(p, 48))
      const above = min(radius, y), below = min(radius, h - 1 - y), both = min(above, below)
      let u = p, d = p, tap = taps
      let i = 1
      for (; i <= both; i++) {
        u -= stride
        d += stride
        tap += 4
        c = v128.load32_splat(tap)
        a0 = f32x4.add(a0, f32x4.mul(c, f32x4.add(v128.load(u), v128.load(d))))
        a1 = f32x4.add(a1, f32x4.mul(c, f32x4.add(v128.load(u, 16), v128.load(d, 16))))
        a2 = f32x4.add(a2, f32x4.mul(c, f32x4.add(v128.load(u, 32), v128.load(d, 32))))
        a3 = f32x4.add(a3, f32x4.mul(c, f32x4.add(v128.load(u, 48), v128.load(d, 48))))
      }
      const most = max(above, below)
      const upward = above > below
      for (; i <= most; i++) {
        u -= stride
        d += stride
        tap += 4
        const o = upward ? u : d
        c = v128.load32_splat(tap)
        a0 = f32x4.add(a0, f32x4.mul(c, v128.load(o)))
        a1 = f32x4.add(a1, f32x4.mul(c, v128.load(o, 16)))
        a2 = f32x4.add(a2, f32x4.mul(c, v128.load(o, 32)))
        a3 = f32x4.add(a3, f32x4.mul(c, v128.load(o, 48)))
      }
      const q = dst + <usize>y * stride + (<usize>x << 2)
      v128.store(q, a0)
      v128.store(q, a1, 16)
      v128.store(q, a2, 32)
      v128.store(q, a3, 48)
    }
  }
  for (; x < w; x += 4) {
    for (let y = 0; y < h; y++) {
      const p = src + <usize>y * stride + (<usize>x << 2)
      let a = f32x4.mul(v128.load32_splat(taps), v128.load(p))
      for (let i = 1; i <= radius; i++) {
        const c = v128.load32_splat(taps + (<usize>i << 2))
        // One sum of both neighbours, as in the wide loop: the same rounding whatever the column.
        const up = y - i >= 0 ? v128.load(p - <usize>i * stride) : f32x4.splat(0)
        const down = y + i < h ? v128.load(p + <usize>i * stride) : f32x4.splat(0)
        a = f32x4.add(a, f32x4.mul(c, f32x4.add(up, down)))
      }
      v128.store(dst + <usize>y * stride + (<usize>x << 2), a)
    }
  }
}

/** The same along the rows. row: w + 2·(radius rounded up to 4) + 16 floats. src may equal dst. */
export function convolveRows(src: usize, dst: usize, w: i32, h: i32, taps: usize, radius: i32, row: usize): void {
  const stride: usize = <usize>w << 2
  const margin = (radius + 3) & ~3
  memory.fill(row, 0, <usize>(w + 2 * margin + 16) << 2)
  for (let y = 0; y < h; y++) {
    memory.copy(row + (<usize>margin << 2), src + <usize>y * stride, stride)
    const q = dst + <usize>y * stride
    let x = 0
    for (; x + 16 <= w; x += 16) {
      const p = row + (<usize>(x + margin) << 2)
      let c = v128.load32_splat(taps)
      let a0 = f32x4.mul(c, v128.load(p)), a1 = f32x4.mul(c, v128.load(p, 16))
      let a2 = f32x4.mul(c, v128.load(p, 32)), a3 = f32x4.mul(c, v128.load(p, 48))
      let u = p, d = p, tap = taps
      for (let i = 1; i <= radius; i++) {
        u -= 4
        d += 4
        tap += 4
        c = v128.load32_splat(tap)
        a0 = f32x4.add(a0, f32x4.mul(c, f32x4.add(v128.load(u), v128.load(d))))
        a1 = f32x4.add(a1, f32x4.mul(c, f32x4.add(v128.load(u, 16), v128.load(d, 16))))
        a2 = f32x4.add(a2, f32x4.mul(c, f32x4.add(v128.load(u, 32), v128.load(d, 32))))
        a3 = f32x4.add(a3, f32x4.mul(c, f32x4.add(v128.load(u, 48), v128.load(d, 48))))
      }
      const o = q + (<usize>x << 2)
      v128.store(o, a0)
      v128.store(o, a1, 16)
      v128.store(o, a2, 32)
      v128.store(o, a3, 48)
    }
    for (; x < w; x += 4) {
      const p = row + (<usize>(x + margin) << 2)
      let a = f32x4.mul(v128.load32_splat(taps), v128.load(p))
      for (let i = 1; i <= radius; i++) {
        const o: usize = <usize>i << 2
        a = f32x4.add(a, f32x4.mul(v128.load32_splat(taps + o), f32x4.add(v128.load(p - o), v128.load(p + o))))
      }
      v128.store(q + (<usize>x << 2), a)
    }
  }
}
