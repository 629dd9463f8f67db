// A ramp of colours through a mask, blended with what is there. `place` is a plane of places on the ramp (0 the
// first colour, 1 the last), w floats a row; beyond 0..1 the ramp is held, repeated or mirrored (SVG 2, spreadMethod).
import {
  pixel, NORMAL, MULTIPLY, SCREEN, OVERLAY, DARKEN, LIGHTEN, DODGE, BURN, HARD_LIGHT, SOFT_LIGHT, DIFFERENCE,
  EXCLUSION, HUE, SATURATION, COLOUR, LUMINOSITY, PLUS_LIGHTER,
} from './formulas'
import { isClear } from './lay-solid'

export const PAD = 0, REPEAT = 1, REFLECT = 2

@inline
function folded(t: v128, spread: i32): v128 {
  const one = f32x4.splat(1), zero = f32x4.splat(0)
  if (spread == REPEAT) return f32x4.sub(t, f32x4.floor(t))
  if (spread == REFLECT) {
    const turn = f32x4.sub(t, f32x4.mul(f32x4.splat(2), f32x4.floor(f32x4.mul(t, f32x4.splat(0.5)))))
    return f32x4.sub(one, f32x4.abs(f32x4.sub(turn, one)))
  }
  return f32x4.pmin(one, f32x4.pmax(zero, t))
}

@inline
function colourAt(ramp: usize, steps: i32, place: f32): v128 {
  const i = min(<i32>place, steps - 1)
  const p = ramp + (<usize>i << 4)
  const a = v128.load(p)
  return f32x4.add(a, f32x4.mul(f32x4.splat(place - <f32>i), f32x4.sub(v128.load(p, 16), a)))
}

@inline
function graded(
  mode: i32, mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32,
  place: usize, ramp: usize, steps: i32, spread: i32, opacity: f32,
): void {
  const last = f32x4.splat(<f32>steps), o = f32x4.splat(opacity)
  let m = o
  for (let y = 0; y < h; y++) {
    let d = dst + <usize>y * stride
    for (let x = 0; x < w; x += 4) {
      if (!(mask && isClear(mask)) && !(gate && isClear(gate))) {
        if (mask) m = f32x4.mul(o, v128.load(mask))
        const at = f32x4.mul(last, folded(v128.load(place), spread))
        const c0 = colourAt(ramp, steps, f32x4.extract_lane(at, 0)), c1 = colourAt(ramp, steps, f32x4.extract_lane(at, 1))
        const c2 = colourAt(ramp, steps, f32x4.extract_lane(at, 2)), c3 = colourAt(ramp, steps, f32x4.extract_lane(at, 3))
        v128.store(d, pixel(mode, f32x4.mul(c0, v128.shuffle<f32>(m, m, 0, 0, 0, 0)), v128.load(d)))
        v128.store(d, pixel(mode, f32x4.mul(c1, v128.shuffle<f32>(m, m, 1, 1, 1, 1)), v128.load(d, 16)), 16)
        v128.store(d, pixel(mode, f32x4.mul(c2, v128.shuffle<f32>(m, m, 2, 2, 2, 2)), v128.load(d, 32)), 32)
        v128.store(d, pixel(mode, f32x4.mul(c3, v128.shuffle<f32>(m, m, 3, 3, 3, 3)), v128.load(d, 48)), 48)
      }
      if (mask) mask += 16
      if (gate) gate += 16
      place += 16
      d += 64
    }
  }
}

// ramp: `steps` + 1 RGBA colours (premultiplied), linear in between; o is the opacity. One function a mode.
export function ramp_normal(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(NORMAL, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_multiply(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(MULTIPLY, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_screen(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(SCREEN, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_overlay(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(OVERLAY, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_darken(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(DARKEN, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_lighten(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(LIGHTEN, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_color_dodge(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(DODGE, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_color_burn(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(BURN, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_hard_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(HARD_LIGHT, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_soft_light(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(SOFT_LIGHT, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_difference(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(DIFFERENCE, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_exclusion(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(EXCLUSION, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_hue(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(HUE, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_saturation(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(SATURATION, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_color(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(COLOUR, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_luminosity(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(LUMINOSITY, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
export function ramp_plus_lighter(mask: usize, gate: usize, dst: usize, stride: usize, w: i32, h: i32, place: usize, ramp: usize, steps: i32, spread: i32, o: f32): void {
  graded(PLUS_LIGHTER, mask, gate, dst, stride, w, h, place, ramp, steps, spread, o)
}
