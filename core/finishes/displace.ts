import type { Edges, Layers, MapChannel } from '../kernels/kernels'
import type { Length } from '../values/moving'
import { choice, paint, piece, toggle } from '../values/parameter-kinds'
import { edges, smooth, way } from './common-parameters'
import type { FinishBench, FinishScale } from './definition'
import { defineFinish, EVERYWHERE } from './definition'
import { TO_DISPLAY } from './light'
import { edgeArea, isZero, keepWithin } from './places'
import { rowsFrom, rowsOf } from './strips'

const from = (is: string) => ({ when: { parameter: 'source', is: [is] } })

const channelOf = (axis: string, standard: MapChannel) =>
  choice({
    label: `${axis} by`,
    help: 'What of the map moves the picture on this axis',
    default: standard,
    options: [
      { value: 'lightness', label: 'Lightness' },
      { value: 'red', label: 'Red' },
      { value: 'green', label: 'Green' },
      { value: 'blue', label: 'Blue' },
      { value: 'alpha', label: 'Alpha' },
    ],
  })

/** Of eight bits two greys lie in the middle, 127 and 128: neither moves anything, and white and black go all the way. */
const SLACK = 0.5 / 255 + 1e-6
const FROM_SLACK = 1 / (0.5 - SLACK)

export const displace = defineFinish({
  kind: 'displace',
  label: 'Displace',
  help: 'Moves each pixel by the brightness of a map: mid-grey moves nothing',
  parameters: {
    source: choice({
      label: 'Map',
      help: 'A paint (noise, lines, a picture, a gradient), or another piece of the card, which may be hidden',
      default: 'paint',
      options: [
        { value: 'paint', label: 'Paint' },
        { value: 'piece', label: 'Piece' },
      ],
    }),
    map: paint({
      label: 'Paint',
      help: 'What the map is painted with; clear parts move nothing',
      default: '#808080',
      ...from('paint'),
    }),
    piece: piece({
      label: 'Piece',
      help: 'The piece that is the map, as it stands on the card',
      use: 'picture',
      ...from('piece'),
    }),
    x: way('Amount X', 'How far white moves the picture to the left, and black to the right', 20),
    y: way('Amount Y', 'How far white moves the picture up, and black down', 0),
    channelX: channelOf('X', 'lightness'),
    channelY: channelOf('Y', 'lightness'),
    bothWays: toggle({
      label: 'Both ways',
      help: 'Mid-grey moves nothing, black and white go opposite ways; off: black moves nothing, white goes all the way',
      default: true,
    }),
    edges,
    smooth,
  },
  headline: 'x',
  reads: 'piece',
  idle: ({ x, y, source, piece }) => (isZero(x) && isZero(y)) || (source === 'piece' && piece === null),
  looksAt: ({ source, piece }) => (source === 'piece' && typeof piece === 'string' ? piece : null),
  reach: ({ x, y, edges }, scale) => (edges === 'open' || edges === 'clear' ? reachOf({ x, y }, scale) : EVERYWHERE),
  far: ({ x, y }, scale) => reachOf({ x, y }, scale),
  work({ source, map, piece, x, y, channelX, channelY, bothWays, edges, smooth }, bench, src, dst) {
    const { kernels, px } = bench
    const whole = source === 'piece' ? bench.piece(piece!) : null
    if (source === 'piece' && !whole) return kernels.copy(src, dst)
    const area = edgeArea(bench, edges as Edges)
    const [neutral, slack, times] = bothWays ? [0.5, SLACK, FROM_SLACK] : [0, 0, 1]
    const mark = kernels.mark()
    const painted = whole ? null : bench.painter(map)
    for (const rows of rowsOf(kernels, dst)) {
      const inner = kernels.mark()
      const shown = displayed(bench, painted ? painted(rows.box) : rowsFrom(kernels, whole!, rows.box.y, rows.h))
      const by = (amount: Length, channel: MapChannel) =>
        isZero(amount) ? null : kernels.mapPlane(shown, channel, neutral, times * px(amount), slack)
      const [right, down] = [by(x, channelX), by(y, channelY)]
      kernels.displaceInto(src, rows, right, down, area, smooth)
      kernels.release(inner)
    }
    kernels.release(mark)
    keepWithin(bench, area, dst)
  },
})

/** What a map shows counts as it is displayed, whatever light the card is blended in. */
function displayed({ kernels, linear }: FinishBench, shown: Layers): Layers {
  if (!linear) return shown
  const out = kernels.layers(shown.w, shown.h, false)
  kernels.copy(shown, out)
  kernels.throughTables(out, TO_DISPLAY())
  return out
}

/** As far as the longer of both, and the pixels around the place. */
function reachOf({ x, y }: { x: Length; y: Length }, { px }: FinishScale) {
  return Math.max(Math.abs(px(x)), Math.abs(px(y))) + 3
}
