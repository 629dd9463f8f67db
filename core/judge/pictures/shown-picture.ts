import type { FramePicture } from '../../frame/engine'

// Pictures of what a check found: the card, faint, with what was found in strong colours over it. Solid pixels of 8 bits.

export type Rgb = readonly [red: number, green: number, blue: number]

/** What was found: to be looked at, or worse. */
export const FOUND: Record<'good' | 'look' | 'bad' | 'dark', Rgb> = {
  good: [72, 190, 172],
  look: [244, 178, 60],
  bad: [232, 74, 62],
  dark: [92, 132, 255],
}

/** The card as faint greys over a dark ground, for something to be drawn over. */
export function faint({ width, height, pixels }: FramePicture): FramePicture {
  const made = new Uint8Array(width * height * 4)
  for (let at = 0; at < made.length; at += 4) {
    const luma = 0.2126 * pixels[at]! + 0.7152 * pixels[at + 1]! + 0.0722 * pixels[at + 2]!
    const grey = Math.round(24 + (luma * 0.35 + 20) * (pixels[at + 3]! / 255))
    made.fill(grey, at, at + 3)
    made[at + 3] = 255
  }
  return { width, height, bits: 8, pixels: made }
}

/** A mark of so many px each way, which is still seen when the picture is shown small. */
export function mark({ width, height, pixels }: FramePicture, x: number, y: number, colour: Rgb, reach: number): void {
  for (let v = Math.max(0, y - reach); v <= Math.min(height - 1, y + reach); v++) {
    for (let u = Math.max(0, x - reach); u <= Math.min(width - 1, x + reach); u++) {
      pixels.set(colour, (v * width + u) * 4)
    }
  }
}

/** How far marks reach, so that they are seen at a third of the size. */
export const markReach = ({ height }: Pick<FramePicture, 'height'>): number => Math.max(1, Math.round(height / 540))
