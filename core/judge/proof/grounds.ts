import type { Picture } from '../../paint/pictures'

/** What a card is held against. */
export interface Ground {
  label: string
  /** A grey, as a level of 8 bits; or a picture. */
  over: number | Picture
}

/** Backdrops that every card is held against. */
export const PLAIN_GROUNDS: readonly Ground[] = [
  { label: 'black', over: 0 },
  { label: 'mid grey', over: 128 },
  { label: 'white', over: 255 },
]

/** RGB, as levels of 8 bits, of what lies behind a pixel of a frame. */
export type LevelBehind = (x: number, y: number, channel: number) => number

/**
 * Of a picture that fills a frame of that size from its middle, whatever its shape; where it is clear there is black. The nearest
 * pixel is taken: what is asked for are means over many.
 */
export function behind({ over }: Ground, frame: { width: number; height: number }): LevelBehind {
  if (typeof over === 'number') return () => over
  const { width, height, pixels } = over
  const top = pixels instanceof Uint16Array ? 65_535 : 255
  const step = Math.min(width / frame.width, height / frame.height)
  const [left, upper] = [(width - frame.width * step) / 2, (height - frame.height * step) / 2]
  return (x, y, channel) => {
    const column = Math.min(width - 1, Math.floor(left + (x + 0.5) * step))
    const row = Math.min(height - 1, Math.floor(upper + (y + 0.5) * step))
    const at = (row * width + column) * 4
    return (((pixels[at + channel]! / top) * pixels[at + 3]!) / top) * 255
  }
}
