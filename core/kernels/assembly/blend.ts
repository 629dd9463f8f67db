// Whole RGBA windows on each other.
import {
  pixel, NORMAL, MULTIPLY, SCREEN, OVERLAY, DARKEN, LIGHTEN, DODGE, BURN, HARD_LIGHT, SOFT_LIGHT, DIFFERENCE,
  EXCLUSION, HUE, SATURATION, COLOUR, LUMINOSITY, PLUS_LIGHTER,
} from './formulas'

@inline
function rows(
  mode: i32, src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize,
): void {
  const o = f32x4.splat(opacity)
  for (let y = 0; y < h; y++) {
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    const end = s + (<usize>w << 4)
    while (s < end) {
      if (gate) {
        const open = v128.any_true(v128.load(gate))
        gate += 16
        if (!open) {
          s += 64
          d += 64
          continue
        }
      }
      const group = s + 64
      while (s < group) {
        const S = v128.load(s)
        if (v128.any_true(S)) v128.store(d, pixel(mode, f32x4.mul(S, o), v128.load(d)))
        s += 16
        d += 16
      }
    }
  }
}

// dst = blend(src · opacity, dst), row by row; strides in bytes, w a multiple of 4. Gate as in lay-solid.ts.
// One function a mode: small ones are optimised by the host as soon as they are used.
export function blend_normal(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(NORMAL, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_multiply(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(MULTIPLY, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_screen(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(SCREEN, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_overlay(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(OVERLAY, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_darken(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(DARKEN, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_lighten(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(LIGHTEN, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_color_dodge(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(DODGE, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_color_burn(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(BURN, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_hard_light(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(HARD_LIGHT, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_soft_light(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(SOFT_LIGHT, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_difference(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(DIFFERENCE, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_exclusion(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(EXCLUSION, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_hue(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(HUE, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_saturation(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(SATURATION, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_color(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(COLOUR, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_luminosity(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(LUMINOSITY, src, srcStride, dst, dstStride, w, h, opacity, gate)
}
export function blend_plus_lighter(src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32, opacity: f32, gate: usize): void {
  rows(PLUS_LIGHTER, src, srcStride, dst, dstStride, w, h, opacity, gate)
}

/**
 * dst = inside · c + dst · (1 − c), c = coverage, a plane of w floats a row. Each side of the edge keeps exactly its
 * share of the pixel's area. Where nothing is covered nothing is touched.
 */
export function mixByCoverage(
  coverage: usize, inside: usize, insideStride: usize, dst: usize, dstStride: usize, w: i32, h: i32,
): void {
  const one = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let i = inside + <usize>y * insideStride, d = dst + <usize>y * dstStride
    for (let x = 0; x < w; x += 4) {
      const m = v128.load(coverage)
      if (v128.any_true(m)) {
        if (i32x4.all_true(f32x4.ge(m, one))) {
          v128.store(d, v128.load(i))
          v128.store(d, v128.load(i, 16), 16)
          v128.store(d, v128.load(i, 32), 32)
          v128.store(d, v128.load(i, 48), 48)
        } else {
          for (let k = 0; k < 4; k++) {
            const c = v128.load32_splat(coverage + (<usize>k << 2))
            const at: usize = <usize>k << 4
            v128.store(d + at, f32x4.add(f32x4.mul(v128.load(i + at), c),
              f32x4.mul(v128.load(d + at), f32x4.sub(one, c))))
          }
        }
      }
      coverage += 16
      i += 64
      d += 64
    }
  }
}

/** dst = src (or clear where `src` is 0) in the groups of four pixels in which the gate is open. */
export function copyGated(
  gate: usize, src: usize, srcStride: usize, dst: usize, dstStride: usize, w: i32, h: i32,
): void {
  const zero = f32x4.splat(0)
  for (let y = 0; y < h; y++) {
    let s = src + <usize>y * srcStride, d = dst + <usize>y * dstStride
    for (let x = 0; x < w; x += 4) {
      if (v128.any_true(v128.load(gate))) {
        if (src) {
          v128.store(d, v128.load(s))
          v128.store(d, v128.load(s, 16), 16)
          v128.store(d, v128.load(s, 32), 32)
          v128.store(d, v128.load(s, 48), 48)
        } else {
          v128.store(d, zero)
          v128.store(d, zero, 16)
          v128.store(d, zero, 32)
          v128.store(d, zero, 48)
        }
      }
      gate += 16
      s += 64
      d += 64
    }
  }
}

/** Copies `bytes` of each of `h` rows. */
export function copyRows(src: usize, srcStride: usize, dst: usize, dstStride: usize, bytes: usize, h: i32): void {
  for (let y = 0; y < h; y++) {
    memory.copy(dst, src, bytes)
    src += srcStride
    dst += dstStride
  }
}

/** sum += src, of the same size. */
export function addRows(src: usize, srcStride: usize, sum: usize, sumStride: usize, w: i32, h: i32): void {
  for (let y = 0; y < h; y++) {
    let s = src + <usize>y * srcStride, d = sum + <usize>y * sumStride
    for (let x = 0; x < w; x++) {
      v128.store(d, f32x4.add(v128.load(d), v128.load(s)))
      s += 16
      d += 16
    }
  }
}

/** dst = sum / count. */
export function meanRows(sum: usize, sumStride: usize, count: f32, dst: usize, dstStride: usize, w: i32, h: i32): void {
  const by = f32x4.splat(count)
  for (let y = 0; y < h; y++) {
    let s = sum + <usize>y * sumStride, d = dst + <usize>y * dstStride
    for (let x = 0; x < w; x++) {
      v128.store(d, f32x4.div(v128.load(s), by))
      s += 16
      d += 16
    }
  }
}
