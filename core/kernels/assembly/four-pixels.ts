// Four pixels of RGBA at once, channel by channel.

/** Red and green of two pixels: r r g g. */
@inline
export function redGreen(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 0, 4, 1, 5)
}

/** Blue and alpha of two pixels: b b a a. */
@inline
export function blueAlpha(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 2, 6, 3, 7)
}

/** The first channel of two such pairs: four reds, or blues. */
@inline
export function firstOf(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 0, 1, 4, 5)
}

/** The second channel of two such pairs: four greens, or alphas. */
@inline
export function secondOf(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 2, 3, 6, 7)
}

/** BT.709 luma (ITU-R BT.709-6, item 3.2) of four pixels by their channels. */
@inline
export function lumas(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(f32x4.splat(0.2126), r), f32x4.mul(f32x4.splat(0.7152), g)), f32x4.mul(f32x4.splat(0.0722), b))
}
