import { number } from '../values/parameter-kinds'
import { percent, placeX, placeY } from './common-parameters'
import { defineFinish } from './definition'
import { placeIn } from './places'

const WHITE = [1, 1, 1, 1] as const

export const vignette = defineFinish({
  kind: 'vignette',
  label: 'Vignette',
  help: 'Darkens, or brightens, the picture towards its edges',
  parameters: {
    amount: number({
      label: 'Amount',
      help: 'How dark the edges become, in %; negative: how bright',
      ...({ default: 50, min: -100, max: 100, step: 1, unit: '%' } as const),
    }),
    radius: number({
      label: 'Radius',
      help: 'Where it ends, in % of the way from the middle to the edges',
      ...({ default: 120, min: 0, max: 400, step: 1, unit: '%', slider: [0, 200] } as const),
    }),
    softness: number({
      label: 'Softness',
      help: 'Over how much of that way it grows, in %',
      ...({ default: 80, min: 0, max: 400, step: 1, unit: '%', slider: [0, 200] } as const),
    }),
    roundness: percent('Roundness', 'From a rectangle with sharp corners to an ellipse, in %', 100),
    x: placeX(),
    y: placeY(),
  },
  headline: 'amount',
  hands: { place: ['x', 'y'] },
  reads: 'pixel',
  idle: ({ amount }) => amount === 0,
  rows({ amount, radius, softness, roundness, x, y }, { kernels, area }) {
    const middle = placeIn(area, x, y)
    const [halfWidth, halfHeight] = [(area.right - area.left) / 2, (area.bottom - area.top) / 2].map((v) =>
      Math.max(1, v),
    )
    const soft = Math.max(0.002, softness / 100)
    return (rows) => {
      const mark = kernels.mark()
      const away = kernels.placeRounded(rows.box, middle.x, middle.y, halfWidth!, halfHeight!, roundness / 100)
      // 0 at the foot of the softness, 1 at the radius.
      const grown = kernels.ramped(away, radius / 100 - 1 - soft, 1 / soft)
      const plane = kernels.smoothStepped(grown)
      if (amount > 0) kernels.fade(rows, plane, amount / 100)
      else kernels.drawTo(rows, plane, WHITE, -amount / 100)
      kernels.release(mark)
    }
  },
})
