import { blurReach } from '../kernels/gauss'
import type { Picture } from '../kernels/kernels'
import { pixelColour } from '../paint/ramp'
import { choice, colour, number } from '../values/parameter-kinds'
import { percent, span } from './common-parameters'
import { defineFinish } from './definition'
import { inLinear, TO_LINEAR } from './light'
import { rowsFrom, rowsOf } from './strips'

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
    const bright = { ...kernels.layers(src.w, src.h, false), box: src.box }
    for (const rows of rowsOf(kernels, bright)) {
      const from = rowsFrom(kernels, src, rows.box.y, rows.h)
      if (other) {
        kernels.copy(from, rows)
        kernels.throughTables(rows, TO_LINEAR())
      }
      kernels.bright(other ? rows : from, rows, threshold / 100, knee / 200, pixelColour(tint, linear || other))
    }
    const spread = { ...kernels.layers(src.w, src.h, false), box: src.box }
    kernels.softenInto(bright, spread, px(radius) / 2)
    const lightOf = (rows: Picture) => rowsFrom(kernels, spread, rows.box.y, rows.h)
    const plainly = (rows: Picture) => kernels.plus(lightOf(rows), rows, amount / 100)
    const add = other ? inLinear(bench, plainly) : plainly
    for (const rows of rowsOf(kernels, dst)) {
      const before = rowsFrom(kernels, src, rows.box.y, rows.h)
      kernels.copy(before, rows)
      add(rows)
      // Where no light falls nothing changes, to the bit.
      if (other) kernels.keepWhereClear(lightOf(rows), before, rows)
    }
    kernels.release(mark)
  },
})
