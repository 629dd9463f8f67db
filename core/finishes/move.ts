import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Edges } from '../kernels/kernels'
import { number } from '../values/parameter-kinds'
import { angle, edges, smooth, way } from './common-parameters'
import { defineFinish, EVERYWHERE } from './definition'
import { edgeArea, farthestFrom, isZero, keepWithin, middleOf } from './places'

export const move = defineFinish({
  kind: 'move',
  label: 'Move',
  help: 'Moves, turns and scales the finished picture. With jitter on its way it is a shake',
  parameters: {
    x: way('X', 'How far it is moved to the right', 0),
    y: way('Y', 'How far it is moved down', 0),
    turn: angle('Turn about the middle in degrees anticlockwise', 0, { label: 'Turn' }),
    scale: number({
      label: 'Scale',
      help: 'Size about the middle, in %',
      ...({ default: 100, min: 1, max: 10_000, step: 1, unit: '%', slider: [10, 300] } as const),
    }),
    edges,
    smooth,
  },
  headline: 'x',
  reads: 'neighbours',
  idle: ({ x, y, turn, scale }) => isZero(x) && isZero(y) && turn % 360 === 0 && scale === 100,
  reach({ x, y, turn, scale, edges }, { px }) {
    const plain = (edges === 'open' || edges === 'clear') && turn % 360 === 0 && scale === 100
    return plain ? Math.max(Math.abs(px(x)), Math.abs(px(y))) + 3 : EVERYWHERE
  },
  far({ x, y, turn, scale }, { px, area }, bounds) {
    const farthest = farthestFrom(middleOf(area), bounds)
    const grown = Math.abs(scale / 100 - 1) * farthest
    // The chord of the turn.
    const turned = Math.abs(2 * sinDegrees(turn / 2)) * farthest * Math.max(1, scale / 100)
    return Math.abs(px(x)) + Math.abs(px(y)) + grown + turned + 3
  },
  work({ x, y, turn, scale, edges, smooth }, bench, src, dst) {
    const { kernels, px } = bench
    const area = edgeArea(bench, edges as Edges)
    const middle = middleOf(bench.area)
    // From where a pixel stands to where it came from.
    const [cos, sin] = [cosDegrees(turn) / (scale / 100), sinDegrees(turn) / (scale / 100)]
    const [dx, dy] = [middle.x + px(x), middle.y + px(y)]
    const map = {
      ...{ a: cos, b: -sin, c: sin, d: cos },
      ...{ e: middle.x - cos * dx + sin * dy, f: middle.y - sin * dx - cos * dy },
    }
    kernels.moveInto(src, dst, map, area, smooth)
    keepWithin(bench, area, dst)
  },
})
