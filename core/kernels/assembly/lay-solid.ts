// Paint laid through a mask, blended with what is there, in one pass. Planes (mask, gate) have w floats a row
// without gaps; dst rows are `stride` bytes apart; w is a multiple of 4. Mask 0 means whole cover. A gate says
// where the result will be looked at: groups of four pixels in which it is zero are left as they are.
import {
  pixel, NORMAL, MULTIPLY, SCREEN, OVERLAY, DARKEN, LIGHTEN, DODGE, BURN, HARD_LIGHT, SOFT_LIGHT, DIFFERENCE,
  EXCLUSION, HUE, SATURATION, COLOUR, LUMINOSITY, PLUS_LIGHTER,
} from './formulas'

/** Four pixels that a mask or gate leaves out. */
@inline
export function isClear(plane: usize): bool {
  return !v128.any_true(v128.load(plane))
}

/** Four pixels at d: the colour at the strengths m. */
@inline
function four(mode: i32, m: v128, d: usize, c: v128): void {
  if (mode == NORMAL) {
    // S + D · (1 − αs), the four factors made at once.
    const rest = f32x4.sub(f32x4.splat(1), f32x4.mul(m, v128.shuffle<f32>(c, c, 3, 3, 3, 3)))
    v128.store(d, f32x4.add(f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0)), f32x4.mul(v128.load(d), v128.shuffle<f32>(rest, rest, 0, 0, 0, 0))))
    v128.store(d, f32x4.add(f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), f32x4.mul(v128.load(d, 16), v128.shuffle<f32>(rest, rest, 1, 1, 1, 1))), 16)
    v128.store(d, f32x4.add(f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), f32x4.mul(v128.load(d, 32), v128.shuffle<f32>(rest, rest, 2, 2, 2, 2))), 32)
    v128.store(d, f32x4.add(f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), f32x4.mul(v128.load(d, 48), v128.shuffle<f32>(rest, rest, 3, 3, 3, 3))), 48)
    return
  }
  v128.store(d, pixel(mode, f32x4.mul(c, v128.shuffle<f32>(m, m, 0, 0, 0, 0)), v128.load(d)))
  v128.store(d, pixel(mode, f32x4.mul(c, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), v128.load(d, 16)), 16)
  v128.store(d, pixel(mode, f32x4.mul(c, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), v128.load(d, 32)), 32)
  v128.store(d, pixel(mode, f32x4.mul(c, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), v128.load(d, 48)), 48)
}

@inline
function solid(
  mode: i32, mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, c: v128,
): void {
  if (mask && !gate) {
    // What lies outside a shape, the most frequent case, has a loop of its own.
    for (let y = 0; y < h; y++) {
      let d = dst + <usize>y * stride
      const end = mask + (<usize>w << 2)
      while (mask < end) {
        const m = v128.load(mask)
        if (v128.any_true(m)) four(mode, m, d, c)
        mask += 16
        d += 64
      }
    }
    return
  }
  let m = f32x4.splat(1)
  for (let y = 0; y < h; y++) {
    let d = dst + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      if (!(mask && isClear(mask)) && !(gate && isClear(gate))) {
        if (mask) m = v128.load(mask)
        four(mode, m, d, c)
      }
      if (mask) mask += 16
      if (gate) gate += 16
      d += 64
    }
  }
}

// A colour (premultiplied) through a mask; one function a mode.
export function solid_normal(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(NORMAL, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_multiply(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(MULTIPLY, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_screen(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(SCREEN, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_overlay(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(OVERLAY, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_darken(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(DARKEN, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_lighten(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(LIGHTEN, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_color_dodge(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(DODGE, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_color_burn(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(BURN, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_hard_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(HARD_LIGHT, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_soft_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(SOFT_LIGHT, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_difference(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(DIFFERENCE, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_exclusion(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(EXCLUSION, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_hue(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(HUE, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_saturation(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(SATURATION, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_color(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(COLOUR, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_luminosity(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(LUMINOSITY, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
export function solid_plus_lighter(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, r: f32, g: f32, b: f32, a: f32): void {
  solid(PLUS_LIGHTER, mask, gate, dst, stride, w, h, f32x4(r, g, b, a))
}
