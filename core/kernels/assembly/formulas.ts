// Blend modes over premultiplied RGBA (f32, one pixel a vector). Source of the formulas: W3C Compositing
// and Blending Level 1, sections 9 and 10, rewritten for premultiplied colour:
//   co = cs·αs·(1 − αb) + cb·αb·(1 − αs) + αs·αb·B(cb, cs).
// S and D are premultiplied source and backdrop; sa and da their alphas in all four lanes.

export const NORMAL = 0, MULTIPLY = 1, SCREEN = 2, OVERLAY = 3, DARKEN = 4, LIGHTEN = 5, DODGE = 6, BURN = 7
export const HARD_LIGHT = 8, SOFT_LIGHT = 9, DIFFERENCE = 10, EXCLUSION = 11
export const HUE = 12, SATURATION = 13, COLOUR = 14, LUMINOSITY = 15, PLUS_LIGHTER = 16

@inline
function alphaOf(v: v128): v128 {
  return v128.shuffle<f32>(v, v, 3, 3, 3, 3)
}

@inline
function hardLight(S: v128, D: v128, sa: v128, da: v128): v128 {
  const two = f32x4.splat(2)
  const dark = f32x4.mul(two, f32x4.mul(S, D))
  const light = f32x4.sub(f32x4.mul(sa, da), f32x4.mul(two, f32x4.mul(f32x4.sub(da, D), f32x4.sub(sa, S))))
  return v128.bitselect(dark, light, f32x4.le(f32x4.mul(two, S), sa))
}

@inline
function colourDodge(S: v128, D: v128, sa: v128, da: v128): v128 {
  const zero = f32x4.splat(0), room = f32x4.sub(sa, S), tiny = f32x4.splat(1e-20)
  const spread = f32x4.mul(sa, f32x4.pmin(da, f32x4.div(f32x4.mul(D, sa), f32x4.pmax(room, tiny))))
  const full = v128.bitselect(f32x4.mul(sa, da), spread, f32x4.le(room, zero))
  return v128.bitselect(zero, full, f32x4.le(D, zero))
}

@inline
function colourBurn(S: v128, D: v128, sa: v128, da: v128): v128 {
  const zero = f32x4.splat(0), tiny = f32x4.splat(1e-20), room = f32x4.sub(da, D)
  const shrink = f32x4.mul(sa, f32x4.sub(da, f32x4.pmin(da, f32x4.div(f32x4.mul(room, sa), f32x4.pmax(S, tiny)))))
  const kept = v128.bitselect(zero, shrink, f32x4.le(S, zero))
  return v128.bitselect(f32x4.mul(sa, da), kept, f32x4.le(room, zero))
}

@inline
function softLight(S: v128, D: v128, sa: v128, da: v128): v128 {
  const one = f32x4.splat(1), zero = f32x4.splat(0), four = f32x4.splat(4)
  const cb = f32x4.div(D, f32x4.pmax(da, f32x4.splat(1e-12)))
  const twice = f32x4.sub(f32x4.add(S, S), sa)
  const poly = f32x4.mul(
    f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), cb), f32x4.splat(12)), cb), four), cb)
  const curve = v128.bitselect(poly, f32x4.sqrt(cb), f32x4.le(cb, f32x4.splat(0.25)))
  const m = v128.bitselect(f32x4.mul(cb, f32x4.sub(one, cb)), f32x4.sub(curve, cb), f32x4.le(twice, zero))
  return f32x4.mul(da, f32x4.add(f32x4.mul(sa, cb), f32x4.mul(twice, m)))
}

@inline
function luminance(r: f32, g: f32, b: f32): f32 {
  return <f32>0.3 * r + <f32>0.59 * g + <f32>0.11 * b
}

/** SetLum with ClipColor: (r, g, b) moved to the luminance `l`, pulled into range. Lane 3 is 0. */
function withLuminance(r: f32, g: f32, b: f32, l: f32): v128 {
  const d = l - luminance(r, g, b)
  r += d
  g += d
  b += d
  const n = min(r, min(g, b)), x = max(r, max(g, b))
  if (n < 0) {
    const k: f32 = l / (l - n)
    r = l + (r - l) * k
    g = l + (g - l) * k
    b = l + (b - l) * k
  }
  if (x > 1) {
    const k: f32 = (<f32>1 - l) / (x - l)
    r = l + (r - l) * k
    g = l + (g - l) * k
    b = l + (b - l) * k
  }
  return f32x4(r, g, b, 0)
}

/** B(cb, cs) of the four modes that mix the channels; colours are not premultiplied. */
function notSeparable(mode: i32, s: v128, b: v128): v128 {
  const sr = f32x4.extract_lane(s, 0), sg = f32x4.extract_lane(s, 1), sb = f32x4.extract_lane(s, 2)
  const br = f32x4.extract_lane(b, 0), bg = f32x4.extract_lane(b, 1), bb = f32x4.extract_lane(b, 2)
  if (mode == COLOUR) return withLuminance(sr, sg, sb, luminance(br, bg, bb))
  if (mode == LUMINOSITY) return withLuminance(br, bg, bb, luminance(sr, sg, sb))
  // SetSat(base, saturation of other): the base's smallest channel to 0, its largest to the saturation.
  let r = sr, g = sg, l = sb
  let saturation: f32 = max(br, max(bg, bb)) - min(br, min(bg, bb))
  if (mode == SATURATION) {
    r = br
    g = bg
    l = bb
    saturation = max(sr, max(sg, sb)) - min(sr, min(sg, sb))
  }
  const low = min(r, min(g, l)), span: f32 = max(r, max(g, l)) - low
  const k: f32 = span > 0 ? saturation / span : 0
  return withLuminance((r - low) * k, (g - low) * k, (l - low) * k, luminance(br, bg, bb))
}

/** One pixel blended: the mode is a constant where this is inlined, so no choice is left in the loop. */
@inline
export function pixel(mode: i32, S: v128, D: v128): v128 {
  const one = f32x4.splat(1), two = f32x4.splat(2)
  const sa = alphaOf(S)
  if (mode == NORMAL) return f32x4.add(S, f32x4.mul(D, f32x4.sub(one, sa)))
  if (mode == SCREEN) return f32x4.sub(f32x4.add(S, D), f32x4.mul(S, D))
  if (mode == PLUS_LIGHTER) return f32x4.pmin(one, f32x4.add(S, D))
  const da = alphaOf(D)
  const alpha = f32x4.add(S, f32x4.mul(D, f32x4.sub(one, sa)))
  const alphaLane = i32x4(0, 0, 0, -1)
  if (mode == DIFFERENCE) {
    const common = f32x4.pmin(f32x4.mul(S, da), f32x4.mul(D, sa))
    return v128.bitselect(alpha, f32x4.sub(f32x4.add(S, D), f32x4.mul(two, common)), alphaLane)
  }
  if (mode == EXCLUSION) {
    return v128.bitselect(alpha, f32x4.sub(f32x4.add(S, D), f32x4.mul(two, f32x4.mul(S, D))), alphaLane)
  }
  let mixed: v128
  if (mode == MULTIPLY) mixed = f32x4.mul(S, D)
  else if (mode == OVERLAY) mixed = hardLight(D, S, da, sa)
  else if (mode == DARKEN) mixed = f32x4.pmin(f32x4.mul(S, da), f32x4.mul(D, sa))
  else if (mode == LIGHTEN) mixed = f32x4.pmax(f32x4.mul(S, da), f32x4.mul(D, sa))
  else if (mode == DODGE) mixed = colourDodge(S, D, sa, da)
  else if (mode == BURN) mixed = colourBurn(S, D, sa, da)
  else if (mode == HARD_LIGHT) mixed = hardLight(S, D, sa, da)
  else if (mode == SOFT_LIGHT) mixed = softLight(S, D, sa, da)
  else {
    const tiny = f32x4.splat(1e-12)
    const b = notSeparable(mode, f32x4.div(S, f32x4.pmax(sa, tiny)), f32x4.div(D, f32x4.pmax(da, tiny)))
    mixed = f32x4.mul(f32x4.mul(sa, da), b)
  }
  const rest = f32x4.add(f32x4.mul(S, f32x4.sub(one, da)), f32x4.mul(D, f32x4.sub(one, sa)))
  return v128.bitselect(alpha, f32x4.add(mixed, rest), alphaLane)
}
