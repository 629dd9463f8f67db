import type { Rgba } from '../units'

/** `#RRGGBB` or `#RRGGBBAA`, as in CSS Color 4. */
export const HEX_COLOUR = /^#(?:[0-9a-fA-F]{6}|[0-9a-fA-F]{8})$/

/** Reads a hex colour; the schema has already made sure that it is one. */
export function readColour(hex: string): Rgba {
  const byte = (at: number) => parseInt(hex.slice(at, at + 2), 16) / 255
  return [byte(1), byte(3), byte(5), hex.length === 9 ? byte(7) : 1]
}

/** Writes the nearest hex colour; alpha only where it is not whole. */
export function writeColour([r, g, b, a]: Rgba): string {
  const byte = (v: number) =>
    Math.round(Math.min(1, Math.max(0, v)) * 255)
      .toString(16)
      .padStart(2, '0')
      .toUpperCase()
  return `#${byte(r)}${byte(g)}${byte(b)}${a >= 1 ? '' : byte(a)}`
}

/** Straight line between two colours, premultiplied as CSS Color 4 §12.3 asks, so that clear ends do not stain. */
export function mixColours(from: Rgba, to: Rgba, t: number): Rgba {
  const alpha = from[3] + (to[3] - from[3]) * t
  if (alpha <= 0) return [to[0], to[1], to[2], 0]
  const channel = (i: 0 | 1 | 2) => (from[i] * from[3] * (1 - t) + to[i] * to[3] * t) / alpha
  return [channel(0), channel(1), channel(2), alpha]
}
