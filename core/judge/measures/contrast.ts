import { toLinear } from '../../values/oklab'

// WCAG 2.2, "relative luminance" and "contrast ratio".

/** 0–1, of display-encoded channels of 0–1. */
export const relativeLuminance = (red: number, green: number, blue: number): number =>
  0.2126 * toLinear(red) + 0.7152 * toLinear(green) + 0.0722 * toLinear(blue)

/** 1 for the same, 21 for black and white, whichever comes first. */
export function contrastRatio(one: number, other: number): number {
  const [light, dark] = one > other ? [one, other] : [other, one]
  return (light + 0.05) / (dark + 0.05)
}

/** Relative luminance of every step of 8 bits. */
export const LUMINANCES = Float64Array.from({ length: 256 }, (_, step) => toLinear(step / 255))
