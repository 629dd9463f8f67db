import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Degrees } from '../units'

/** x′ = a·x + b·y, y′ = c·x + d·y. */
export interface Linear {
  a: number
  b: number
  c: number
  d: number
}

export const IDENTITY: Linear = { a: 1, b: 0, c: 0, d: 1 }

/** First `inner`, then `outer`. */
export const multiplied = (outer: Linear, inner: Linear): Linear => ({
  a: outer.a * inner.a + outer.b * inner.c,
  b: outer.a * inner.b + outer.b * inner.d,
  c: outer.c * inner.a + outer.d * inner.c,
  d: outer.c * inner.b + outer.d * inner.d,
})

export const determinant = ({ a, b, c, d }: Linear): number => a * d - b * c

/** The inverse; its determinant is not 0. */
export function inverted(map: Linear): Linear {
  const { a, b, c, d } = map
  const whole = determinant(map)
  return { a: d / whole, b: -b / whole, c: -c / whole, d: a / whole }
}

/** A turn, anticlockwise on screen with y down. */
export function turnBy(angle: Degrees): Linear {
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)]
  return { a: c, b: s, c: -s, d: c }
}

/** Stretched by shares, then leaning to the right by an angle; null for a piece as it is. */
export function stretchBy(x: number, y: number, skew: Degrees): Linear | null {
  if (x === 1 && y === 1 && skew === 0) return null
  return { a: x, b: (-sinDegrees(skew) / cosDegrees(skew)) * y, c: 0, d: y }
}

/** A map as a turn after a stretch and a skew: what `turnBy` and `stretchBy` make of them is the map. */
export function parted(map: Linear): { turn: Degrees; x: number; y: number; skew: Degrees } {
  const x = Math.sqrt(map.a * map.a + map.c * map.c)
  const angle = acosDegrees(map.a / x)
  const turn = map.c <= 0 ? angle : -angle
  const rest = multiplied(turnBy(-turn), map)
  const lean = -rest.b / rest.d
  const leans = acosDegrees(1 / Math.sqrt(1 + lean * lean))
  return { turn, x, y: rest.d, skew: lean >= 0 ? leans : -leans }
}

/** How much longer a map makes a length at most, at least 1. */
export const growthOf = (map: Linear | undefined): number =>
  map ? Math.max(1, Math.sqrt(map.a ** 2 + map.c ** 2), Math.sqrt(map.b ** 2 + map.d ** 2)) : 1

/** A stretch as it stands in names of what was made with it. */
export const stretchKey = (map: Linear | undefined): string => (map ? ` ${map.a} ${map.b} ${map.c} ${map.d}` : '')
