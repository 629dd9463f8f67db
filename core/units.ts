// Documented aliases: the compiler does not tell them apart, the reader does.

/** Card pixels; origin top left, y down. */
export type Px = number
/** Frames of the card's rate, counted from 0. */
export type Frames = number
/** Degrees, anticlockwise from the x axis (3 o'clock). */
export type Degrees = number
/** 0–100. */
export type Percent = number
/** Red, green, blue, alpha: display-encoded sRGB, 0–1, not premultiplied. */
export type Rgba = readonly [number, number, number, number]

export interface Point {
  x: Px
  y: Px
}

/** Half-open rectangle [left, right) × [top, bottom). */
export interface Rect {
  left: Px
  top: Px
  right: Px
  bottom: Px
}
