import type { Edges } from '../kernels/kernels'
import { detail, edges, evolution, seed, smooth, span } from './common-parameters'
import { defineFinish, EVERYWHERE } from './definition'
import { edgeArea, isZero, keepWithin } from './places'
import { rowsOf } from './strips'

export const turbulence = defineFinish({
  kind: 'turbulence',
  label: 'Turbulence',
  help: 'Bends the picture by flowing noise, as heat or water does',
  parameters: {
    amount: span(
      'Amount',
      'How far a pixel may be moved on each axis by chance, mostly less than half of it',
      20,
      [0, 120],
    ),
    size: span('Size', 'Size of the largest waves', 120, [4, 500]),
    detail: detail(2),
    evolution,
    seed,
    edges,
    smooth,
  },
  headline: 'amount',
  reads: 'neighbours',
  idle: ({ amount, size }) => isZero(amount) || isZero(size),
  reach: ({ amount, edges }, { px }) => (edges === 'open' || edges === 'clear' ? px(amount) + 3 : EVERYWHERE),
  far: ({ amount }, { px }) => px(amount) + 3,
  work({ amount, size, detail, evolution, seed, edges, smooth }, bench, src, dst) {
    const { kernels, px, area: ink, wash } = bench
    const area = edgeArea(bench, edges as Edges)
    const cell = 1 / Math.max(1, px(size))
    // The waves of a piece travel with it.
    const [left, top] = wash ? [0, 0] : [ink.left, ink.top]
    const map = { a: cell, b: 0, c: 0, d: cell, e: -left * cell, f: -top * cell }
    const throwOf = bench.seed(0, Math.round(seed))
    for (const rows of rowsOf(kernels, dst)) {
      const mark = kernels.mark()
      const planeOf = (own: number) =>
        kernels.placeScaled(kernels.flowNoise(rows.box, map, detail, evolution, own), 0, px(amount))
      kernels.displaceInto(src, rows, planeOf(throwOf), planeOf(throwOf ^ 0x5bd1e995), area, smooth)
      kernels.release(mark)
    }
    keepWithin(bench, area, dst)
  },
})
