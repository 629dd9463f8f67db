// Integers of picture files as premultiplied RGBA floats, and those halved. All in f64 from the table's f32 values, rounded once at the end.

@inline
function value(src: usize, i: usize, wide: bool): i32 {
  return wide ? <i32>load<u16>(src + (i << 1)) : <i32>load<u8>(src + i)
}

/** Straight values: table[v] · alpha. The table has one value for each step of the file. */
export function readyStraight(src: usize, wide: bool, dst: usize, count: i32, table: usize): void {
  const top: f64 = wide ? 65535 : 255
  for (let k: usize = 0, n = <usize>count << 2; k < n; k += 4, dst += 16) {
    const v = value(src, k + 3, wide)
    if (!v) {
      v128.store(dst, f32x4.splat(0))
      continue
    }
    const a = <f64>v / top
    for (let c: usize = 0; c < 3; c++) {
      store<f32>(dst + (c << 2), <f32>(<f64>load<f32>(table + (<usize>value(src, k + c, wide) << 2)) * a))
    }
    store<f32>(dst, <f32>a, 12)
  }
}

/** Values that were laid on a ground (0 black, 1 white): it is taken away. The table has `steps` + 1 values from 0 to 1. */
export function readyLaid(src: usize, wide: bool, dst: usize, count: i32, table: usize, steps: f64, ground: f64): void {
  const top: f64 = wide ? 65535 : 255
  for (let k: usize = 0, n = <usize>count << 2; k < n; k += 4, dst += 16) {
    const v = value(src, k + 3, wide)
    if (!v) {
      v128.store(dst, f32x4.splat(0))
      continue
    }
    const a = <f64>v / top
    const given = ground * (1 - a)
    for (let c: usize = 0; c < 3; c++) {
      const own = Math.min(a, Math.max(0, <f64>value(src, k + c, wide) / top - given))
      const step = <usize>Math.floor((own / a) * steps + 0.5)
      store<f32>(dst + (c << 2), <f32>(<f64>load<f32>(table + (step << 2)) * a))
    }
    store<f32>(dst, <f32>a, 12)
  }
}

/** Means of two by two pixels; an odd last row or column is left out. */
export function halfPicture(src: usize, w: i32, h: i32, dst: usize, hw: i32, hh: i32): void {
  for (let y = 0; y < hh; y++) {
    const above = src + ((<usize>min(2 * y, h - 1) * w) << 4), below = src + ((<usize>min(2 * y + 1, h - 1) * w) << 4)
    for (let x = 0; x < hw; x++, dst += 16) {
      const left = <usize>min(2 * x, w - 1) << 4, right = <usize>min(2 * x + 1, w - 1) << 4
      for (let c: usize = 0; c < 16; c += 4) {
        const sum = <f64>load<f32>(above + left + c) + <f64>load<f32>(above + right + c)
          + <f64>load<f32>(below + left + c) + <f64>load<f32>(below + right + c)
        store<f32>(dst + c, <f32>(sum / 4))
      }
    }
  }
}

/** dst = dst · keep + src · share, pixel by pixel. */
export function mixInto(src: usize, dst: usize, count: i32, keep: f32, share: f32): void {
  const k = f32x4.splat(keep), s = f32x4.splat(share)
  for (let i = 0; i < count; i++, src += 16, dst += 16) {
    v128.store(dst, f32x4.add(f32x4.mul(v128.load(dst), k), f32x4.mul(v128.load(src), s)))
  }
}
