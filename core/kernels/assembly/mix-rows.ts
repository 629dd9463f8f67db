// Two pictures of premultiplied RGBA, row by row: what becomes of a pixel depends on the two that lie there.

/** dst = a + (dst − a) · share: how much of an operation is seen. */
export function mixRows(
  a: usize, aStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, share: f32,
): void {
  const k = f32x4.splat(share)
  for (let y = 0; y < h; y++) {
    let p = a + <usize>y * aStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++) {
      const v = v128.load(p)
      v128.store(q, f32x4.add(v, f32x4.mul(k, f32x4.sub(v128.load(q), v))))
      p += 16
      q += 16
    }
  }
}

/** dst = max(dst, src · share) in every channel. */
export function lighterRows(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, share: f32,
): void {
  const k = f32x4.splat(share)
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * srcStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++) {
      v128.store(q, f32x4.pmax(v128.load(q), f32x4.mul(k, v128.load(p))))
      p += 16
      q += 16
    }
  }
}

/** dst = dst + src · share, cut to 1 (W3C Compositing 1, plus-lighter). */
export function plusRows(
  src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, share: f32,
): void {
  const k = f32x4.splat(share), one = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * srcStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++) {
      v128.store(q, f32x4.pmin(one, f32x4.add(v128.load(q), f32x4.mul(k, v128.load(p)))))
      p += 16
      q += 16
    }
  }
}

/** sum = sum + src · share. */
export function addShareRows(
  src: usize, srcStride: usize, sum: usize, sumStride: usize, w: i32, h: i32, share: f32,
): void {
  const k = f32x4.splat(share)
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * srcStride, q = sum + <usize>y * sumStride
    for (let x = 0; x < w; x++) {
      v128.store(q, f32x4.add(v128.load(q), f32x4.mul(k, v128.load(p))))
      p += 16
      q += 16
    }
  }
}

/** dst = src where `test` is clear. */
export function keepRows(
  test: usize, testStride: usize, src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32,
): void {
  for (let y = 0; y < h; y++) {
    let t = test + <usize>y * testStride, p = src + <usize>y * srcStride, q = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++) {
      if (!v128.any_true(v128.load(t))) v128.store(q, v128.load(p))
      t += 16
      p += 16
      q += 16
    }
  }
}
