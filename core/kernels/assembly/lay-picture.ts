// A picture through a mask, blended with what is there: `src` is premultiplied RGBA, its rows `srcStride` bytes apart.
import {
  pixel, NORMAL, MULTIPLY, SCREEN, OVERLAY, DARKEN, LIGHTEN, DODGE, BURN, HARD_LIGHT, SOFT_LIGHT, DIFFERENCE,
  EXCLUSION, HUE, SATURATION, COLOUR, LUMINOSITY, PLUS_LIGHTER,
} from './formulas'
import { isClear } from './lay-solid'

@inline
function pictured(
  mode: i32, mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32,
  src: usize, srcStride: usize, opacity: f32,
): void {
  const o = f32x4.splat(opacity)
  let m = o
  for (let y = 0; y < h; y++) {
    let d = dst + <usize>y * stride, s = src + <usize>y * srcStride
    for (let x = 0; x < w; x += 4) {
      if (!(mask && isClear(mask)) && !(gate && isClear(gate))) {
        if (mask) m = f32x4.mul(o, v128.load(mask))
        v128.store(d, pixel(mode, f32x4.mul(v128.load(s), v128.shuffle<f32>(m, m, 0, 0, 0, 0)), v128.load(d)))
        v128.store(d, pixel(mode, f32x4.mul(v128.load(s, 16), v128.shuffle<f32>(m, m, 1, 1, 1, 1)), v128.load(d, 16)), 16)
        v128.store(d, pixel(mode, f32x4.mul(v128.load(s, 32), v128.shuffle<f32>(m, m, 2, 2, 2, 2)), v128.load(d, 32)), 32)
        v128.store(d, pixel(mode, f32x4.mul(v128.load(s, 48), v128.shuffle<f32>(m, m, 3, 3, 3, 3)), v128.load(d, 48)), 48)
      }
      if (mask) mask += 16
      if (gate) gate += 16
      s += 64
      d += 64
    }
  }
}

// o is the opacity. One function a mode.
export function picture_normal(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(NORMAL, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_multiply(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(MULTIPLY, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_screen(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(SCREEN, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_overlay(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(OVERLAY, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_darken(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(DARKEN, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_lighten(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(LIGHTEN, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_color_dodge(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(DODGE, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_color_burn(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(BURN, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_hard_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(HARD_LIGHT, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_soft_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(SOFT_LIGHT, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_difference(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(DIFFERENCE, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_exclusion(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(EXCLUSION, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_hue(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(HUE, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_saturation(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(SATURATION, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_color(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(COLOUR, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_luminosity(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(LUMINOSITY, mask, gate, dst, stride, w, h, src, srcStride, o)
}
export function picture_plus_lighter(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, src: usize, srcStride: usize, o: f32): void {
  pictured(PLUS_LIGHTER, mask, gate, dst, stride, w, h, src, srcStride, o)
}
