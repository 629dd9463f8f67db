import type { Ring } from '../outline/contour'

/** Points of two doubles each, with their marks. */
export const bytesOf = (rings: readonly Ring[]) => rings.reduce((sum, { points }) => sum + points.length * 9, 64)

export const movedRing = ({ points, smooth }: Ring, x: number, y: number): Ring => ({
  points: points.map((v, i) => v + (i % 2 ? y : x)),
  smooth,
})
