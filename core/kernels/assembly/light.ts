// Diffuse light on a height field: Filter Effects Module Level 1, §9.2 (feDiffuseLighting with feDistantLight).
// The surface normal is measured with the Sobel operator of that section; at the border the border itself repeats.

/**
 * dst = max(0, N·L). `height` in px, times `surfaceScale`; (lx, ly, lz) points to the light, y down. w is a multiple of
 * 4. The operator of the specification measures twice the slope of a plane.
 */
export function diffuse(
  height: usize, dst: usize, w: i32, h: i32, lx: f32, ly: f32, lz: f32, surfaceScale: f32,
): void {
  const stride: usize = <usize>w << 2
  const quarter = f32x4.splat(<f32>0.25 * surfaceScale), two = f32x4.splat(2), one = f32x4.splat(1), zero = f32x4.splat(0)
  const vx = f32x4.splat(lx), vy = f32x4.splat(ly), vz = f32x4.splat(lz)
  for (let y = 0; y < h; y++) {
    const middle = height + <usize>y * stride
    const above = y > 0 ? middle - stride : middle, below = y + 1 < h ? middle + stride : middle
    const out = dst + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      const at: usize = <usize>x << 2
      const a = v128.load(above + at), m = v128.load(middle + at), b = v128.load(below + at)
      const columns = f32x4.add(f32x4.add(a, b), f32x4.mul(two, m)), rows = f32x4.sub(b, a)
      // The neighbours of four pixels: shifted by one, with the column before and after.
      let cl: f32 = f32x4.extract_lane(columns, 0), rl: f32 = f32x4.extract_lane(rows, 0)
      let cr: f32 = f32x4.extract_lane(columns, 3), rr: f32 = f32x4.extract_lane(rows, 3)
      if (x > 0) {
        cl = load<f32>(above + at - 4) + load<f32>(below + at - 4) + <f32>2 * load<f32>(middle + at - 4)
        rl = load<f32>(below + at - 4) - load<f32>(above + at - 4)
      }
      if (x + 4 < w) {
        cr = load<f32>(above + at + 16) + load<f32>(below + at + 16) + <f32>2 * load<f32>(middle + at + 16)
        rr = load<f32>(below + at + 16) - load<f32>(above + at + 16)
      }
      const cBefore = f32x4.replace_lane(v128.shuffle<f32>(columns, columns, 0, 0, 1, 2), 0, cl)
      const cAfter = f32x4.replace_lane(v128.shuffle<f32>(columns, columns, 1, 2, 3, 3), 3, cr)
      const rBefore = f32x4.replace_lane(v128.shuffle<f32>(rows, rows, 0, 0, 1, 2), 0, rl)
      const rAfter = f32x4.replace_lane(v128.shuffle<f32>(rows, rows, 1, 2, 3, 3), 3, rr)
      const nx = f32x4.mul(quarter, f32x4.sub(cBefore, cAfter))
      const ny = f32x4.neg(f32x4.mul(quarter, f32x4.add(f32x4.add(rBefore, rAfter), f32x4.mul(two, rows))))
      const length = f32x4.sqrt(f32x4.add(one, f32x4.add(f32x4.mul(nx, nx), f32x4.mul(ny, ny))))
      const dot = f32x4.add(vz, f32x4.add(f32x4.mul(nx, vx), f32x4.mul(ny, vy)))
      v128.store(out + at, f32x4.pmax(zero, f32x4.div(dot, length)))
    }
  }
}
