import { pixelColour } from '../paint/ramp'
import type { Picture, PlaceWindow, Ramp } from '../kernels/kernels'
import type { Point, Px, Rect } from '../units'
import { colour, number } from '../values/parameter-kinds'
import { percent, placeX, placeY, span } from './common-parameters'
import { defineFinish } from './definition'
import { middleOf, placeIn } from './places'

/** Reflections in a lens lie on the line through the middle of the picture: so far along it, so large, so bright. */
const GHOSTS = [
  { along: 0.45, size: 0.16, share: 0.22 },
  { along: 1.35, size: 0.3, share: 0.16 },
  { along: 0.75, size: 0.08, share: 0.3 },
  { along: 1.75, size: 0.5, share: 0.1 },
  { along: 1.15, size: 0.06, share: 0.34 },
  { along: 2.1, size: 0.22, share: 0.14 },
  { along: -0.3, size: 0.2, share: 0.12 },
  { along: 0.25, size: 0.1, share: 0.2 },
] as const

/** What is left of the light from the middle to the rim: the spot falls off steeply, a ghost is a disc with a brighter rim. */
const SPOT = [1, 0.62, 0.4, 0.26, 0.17, 0.11, 0.066, 0.036, 0.016, 0.005, 0]
const GHOST = [0.55, 0.55, 0.56, 0.57, 0.6, 0.64, 0.7, 0.8, 0.95, 0.7, 0]

interface Disc {
  middle: Point
  radius: Px
  light: readonly number[]
  share: number
}

interface Values {
  x: number
  y: number
  size: number
  ghosts: number
  bend: number
}

export const flare = defineFinish({
  kind: 'flare',
  label: 'Flare',
  help: 'A light that shines into the lens, and its reflections',
  parameters: {
    x: placeX({}, 'Where the light stands from the left, in % of the width; it may lie beyond the edges', 20),
    y: placeY({}, 'Where the light stands from the top, in % of the height', 20),
    size: span('Size', 'How far the light spreads', 400, [0, 1600]),
    amount: percent('Brightness', 'How bright it is, in %', 80),
    colour: colour({ label: 'Colour', help: 'Colour of the light', default: '#FFE2B0' }),
    ghosts: number({
      label: 'Ghosts',
      help: 'How many reflections are seen across the picture',
      ...({ default: 4, min: 0, max: GHOSTS.length, step: 1, unit: '' } as const),
    }),
    bend: percent('Ghost size', 'How large the reflections are, in % of the light', 50),
  },
  headline: 'amount',
  hands: { place: ['x', 'y'] },
  reads: 'pixel',
  idle: ({ amount }) => amount === 0,
  paints({ x, y, size, ghosts, bend }, scale): Rect | null {
    const discs = discsOf({ x, y, size: scale.px(size), ghosts, bend }, scale.area)
    if (discs.every(({ radius }) => radius <= 0)) return null
    return {
      left: Math.min(...discs.map(({ middle, radius }) => middle.x - radius)),
      top: Math.min(...discs.map(({ middle, radius }) => middle.y - radius)),
      right: Math.max(...discs.map(({ middle, radius }) => middle.x + radius)),
      bottom: Math.max(...discs.map(({ middle, radius }) => middle.y + radius)),
    }
  },
  rows({ x, y, size, amount, colour, ghosts, bend }, { kernels, px, linear, area }) {
    const discs = discsOf({ x, y, size: px(size), ghosts, bend }, area).filter(({ radius }) => radius > 0)
    const [r, g, b, a] = pixelColour(colour, linear)
    const ramps = discs.map(({ light, share }): Ramp => {
      const colours = light.flatMap((v) => [r, g, b, 1].map((c) => c * a * v * share * (amount / 100)))
      return { at: kernels.numbers(colours), steps: light.length - 1, spread: 'pad' }
    })
    return (rows) => {
      discs.forEach(({ middle, radius }, i) => {
        const part = columnsOf(rows, middle, radius)
        if (!part) return
        const mark = kernels.mark()
        const k = 1 / radius
        const places = kernels.placeRadial(part, { a: k, b: 0, c: 0, d: k, e: -middle.x * k, f: -middle.y * k })
        const onto = kernels.window(rows, part.x - rows.box.x, 0, part.w, part.h)
        kernels.layRamp('plus-lighter', onto, { mask: null, gate: null }, places, ramps[i]!, 1)
        kernels.release(mark)
      })
    }
  },
})

/** The columns of some rows that a disc crosses there, in fours; null for none. */
function columnsOf({ box }: Picture, { x, y }: Point, radius: Px): PlaceWindow | null {
  const away = Math.max(0, box.y - y, y - box.y - box.h)
  if (away >= radius) return null
  const half = Math.sqrt(radius * radius - away * away)
  const from = Math.max(0, Math.floor((x - half - box.x) / 4) * 4)
  const to = Math.min(box.w, Math.ceil((x + half - box.x) / 4) * 4)
  return to > from ? { ...box, x: box.x + from, w: to - from } : null
}

function discsOf({ x, y, size, ghosts, bend }: Values, area: Rect): Disc[] {
  const source = placeIn(area, x, y)
  const middle = middleOf(area)
  const count = Math.round(ghosts)
  return [
    { middle: source, radius: size, light: SPOT, share: 1 },
    ...GHOSTS.slice(0, count).map(({ along, size: part, share }) => ({
      middle: { x: source.x + (middle.x - source.x) * along, y: source.y + (middle.y - source.y) * along },
      ...{ radius: size * part * (bend / 50), light: GHOST, share },
    })),
  ]
}
