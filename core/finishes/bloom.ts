import { blurReach } from '../kernels/gauss'
import type { Layers } from '../kernels/kernels'
import { pixelColour } from '../paint/ramp'
import { choice, colour, number } from '../values/parameter-kinds'
import { percent, span } from './common-parameters'
import { defineFinish } from './definition'
import { inLinear, TO_LINEAR } from './light'
import { rowsFrom } from './strips'

export const bloom = defineFinish({
  kind: 'bloom',
  label: 'Bloom',
  help: 'What is bright shines over what lies around it',
  parameters: {
    threshold: percent('Threshold', 'From which brightness on anything shines, in %', 60),
    knee: percent('Knee', 'How softly that begins: the range around the threshold, in %', 20),
    radius: span('Radius', 'How far the light spreads', 60, [0, 300]),
    amount: number({
      label: 'Brightness',
      help: 'How much of the light is added, in %',
      ...({ default: 80, min: 0, max: 1000, step: 1, unit: '%', slider: [0, 300] } as const),
    }),
    tint: colour({ label: 'Tint', help: 'Colour of the light', default: '#FFFFFF' }),
    light: choice({
      label: 'Counts in',
      help: 'Linear light spreads as light does, bright spots stay strong; display light is softer and more even',
      default: 'display',
      options: [
        { value: 'display', label: 'Display light' },
        { value: 'linear', label: 'Linear light' },
      ],
    }),
  },
  headline: 'radius',
  reads: 'neighbours',
  idle: ({ amount, tint }) => amount === 0 || tint[3] === 0,
  reach: ({ radius }, { px }) => blurReach(px(radius) / 2),
  work({ threshold, knee, radius, amount, tint, light }, bench, src, dst) {
    const { kernels, px, linear } = bench
    const mark = kernels.mark()
    // The card's own light, or linear light on the way there and back.
    const other = light === 'linear' && !linear
    const colour = pixelColour(tint, linear || other)
    const bright = (rows: Layers, y: number) => {
      const from = rowsFrom(kernels, src, src.box.y + y, rows.h)
      if (other) {
        kernels.copy(from, rows)
        kernels.throughTables(rows, TO_LINEAR())
      }
      kernels.bright(other ? rows : from, rows, threshold / 100, knee / 200, colour)
    }
    const add = (light: Layers, y: number) => {
      const before = rowsFrom(kernels, src, src.box.y + y, light.h)
      const rows = rowsFrom(kernels, dst, src.box.y + y, light.h)
      kernels.copy(before, rows)
      const plainly = () => kernels.plus(light, rows, amount / 100)
      if (!other) return plainly()
      inLinear(bench, plainly)(rows)
      // Where no light falls nothing changes, to the bit.
      kernels.keepWhereClear(light, before, rows)
    }
    kernels.softenRows(src.w, src.h, px(radius) / 2, bright, add)
    kernels.release(mark)
  },
})
