import type { Edges } from '../kernels/kernels'
import { hashed } from '../values/ring-noise'
import { choice } from '../values/parameter-kinds'
import type { Length } from '../values/moving'
import type { Px } from '../units'
import { edges, every, percent, seed, span } from './common-parameters'
import type { FinishScale } from './definition'
import { defineFinish, EVERYWHERE } from './definition'
import { edgeArea, isZero, keepWithin } from './places'

export const bands = defineFinish({
  kind: 'bands',
  label: 'Bands',
  help: 'Shifts lines or blocks of the picture by chance, as a torn tape does',
  parameters: {
    way: choice({
      label: 'Way',
      help: 'Lines that are shifted sideways, or columns that are shifted up and down',
      default: 'lines',
      options: [
        { value: 'lines', label: 'Sideways' },
        { value: 'columns', label: 'Up and down' },
      ],
    }),
    height: span('Height', 'Thickness of a band', 24, [1, 200]),
    block: span('Block', 'Length of a block; 0 shifts bands as a whole', 0, [0, 600]),
    amount: span('Amount', 'How far a band is shifted at most', 40, [0, 300]),
    share: percent('Share', 'How many of the bands are shifted, in %', 40),
    apart: span('Colours apart', 'How far red and blue are moved apart in shifted bands', 0, [0, 40]),
    every: every(3),
    seed,
    edges,
  },
  headline: 'amount',
  reads: 'neighbours',
  idle: ({ amount, apart, share }) => (isZero(amount) && isZero(apart)) || share === 0,
  restless: ({ every }) => every !== 0,
  reach: ({ amount, apart, edges }, scale) =>
    edges === 'open' || edges === 'clear' ? reachOf({ amount, apart }, scale) : EVERYWHERE,
  far: ({ amount, apart }, scale) => reachOf({ amount, apart }, scale),
  work({ way, height, block, amount, share, apart, every, seed, edges }, bench, src, dst) {
    const { kernels, px, area: ink, wash } = bench
    const area = edgeArea(bench, edges as Edges)
    const throwOf = bench.seed(every, Math.round(seed))
    const lines = way === 'lines'
    const { x, y, w, h } = dst.box
    // Bands of a piece travel with it.
    const [left, top] = wash ? [0, 0] : [Math.round(ink.left), Math.round(ink.top)]
    const across = cuts(lines ? y - top : x - left, lines ? h : w, px(height))
    const along = cuts(lines ? x - left : y - top, lines ? w : h, px(block))
    for (const band of across) {
      for (const part of along) {
        const box = lines
          ? { x: x + part.from, y: y + band.from, w: part.size, h: band.size }
          : { x: x + band.from, y: y + part.from, w: band.size, h: part.size }
        const into = { ...kernels.window(dst, box.x - x, box.y - y, box.w, box.h), box }
        const chance = (n: number) =>
          hashed(band.index * 3 + n, (throwOf ^ Math.imul(part.index + 1, 0x9e3779b1)) >>> 0)
        if (chance(0) >= share / 100) {
          kernels.copy(kernels.window(src, box.x - x, box.y - y, box.w, box.h), into)
          continue
        }
        const by = (2 * chance(1) - 1) * px(amount)
        const split = px(apart)
        const offset = (d: Px) => (lines ? { x: -d, y: 0 } : { x: 0, y: -d })
        kernels.partInto(src, into, [offset(by + split), offset(by), offset(by - split)], area)
      }
    }
    keepWithin(bench, area, dst)
  },
})

const reachOf = ({ amount, apart }: { amount: Length; apart: Length }, { px }: FinishScale) =>
  px(amount) + px(apart) + 3

interface Cut {
  index: number
  from: number
  size: number
}

/** Whole pixels from `start` on in pieces of a size, counted from 0; all in one where the size is 0. */
function cuts(start: number, count: number, size: Px): Cut[] {
  if (size <= 0) return [{ index: 0, from: 0, size: count }]
  const step = Math.max(1, size)
  const edge = (index: number) => Math.round(index * step)
  const found: Cut[] = []
  for (let index = Math.floor(start / step) - 1; edge(index) < start + count; index++) {
    const from = Math.max(edge(index), start)
    const to = Math.min(edge(index + 1), start + count)
    if (to > from) found.push({ index, from: from - start, size: to - from })
  }
  return found
}
