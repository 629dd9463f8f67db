// Between linear light and display-encoded sRGB, where a frame is given out in the other than the card blends in.

/**
 * Premultiplied RGBA in place, straight colours through a table. It holds the function over v in `steps` + 1 values, linear in
 * between; by `roots` over √v: near black, where encoding is steep, the steps are fine.
 */
export function transferRows(at: usize, stride: usize, w: i32, h: i32, table: usize, steps: i32, roots: bool): void {
  const last = f32x4.splat(<f32>steps), one = f32x4.splat(1), zero = f32x4.splat(0)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      const straight = f32x4.pmin(one, f32x4.pmax(zero, f32x4.div(v, f32x4.splat(alpha))))
      const place = f32x4.mul(last, roots ? f32x4.sqrt(straight) : straight)
      let out = v
      for (let c = 0; c < 3; c++) {
        const t: f32 = c == 0 ? f32x4.extract_lane(place, 0) : c == 1 ? f32x4.extract_lane(place, 1) : f32x4.extract_lane(place, 2)
        const i = min(<i32>t, steps - 1)
        const q = table + (<usize>i << 2)
        const a = load<f32>(q)
        const e: f32 = (a + (load<f32>(q, 4) - a) * (t - <f32>i)) * alpha
        out = c == 0 ? f32x4.replace_lane(out, 0, e) : c == 1 ? f32x4.replace_lane(out, 1, e) : f32x4.replace_lane(out, 2, e)
      }
      v128.store(p, out)
    }
  }
}

/** Alpha of RGBA as a plane of w floats a row. */
export function alphaPlane(src: usize, stride: usize, dst: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let p = src + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16, dst += 4) store<f32>(dst, load<f32>(p, 12))
  }
}

/** Premultiplied RGBA made whole: colours divided by their alpha, alpha 1 wherever there is any. */
export function wholeColours(at: usize, stride: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha > 0) v128.store(p, f32x4.replace_lane(f32x4.div(v, f32x4.splat(alpha)), 3, 1))
    }
  }
}
