import { toDisplay, toLinear } from '../values/oklab'
import { pow } from '../kernels/exact'
import { number } from '../values/parameter-kinds'
import { defineFinish } from './definition'
import { byDisplay } from './light'

export const exposure = defineFinish({
  kind: 'exposure',
  label: 'Exposure',
  help: 'More or less light, in stops: each is twice the light. A flash is keys on it, a flicker its jitter',
  parameters: {
    stops: number({
      label: 'Stops',
      help: 'How often the light is doubled; negative: halved',
      ...({ default: 0.33, min: -10, max: 10, step: 0.01, unit: '', slider: [-3, 3] } as const),
    }),
  },
  headline: 'stops',
  reads: 'pixel',
  idle: ({ stops }) => stops === 0,
  rows({ stops }, bench) {
    const gain = pow(2, stops)
    const curve = (v: number) => toDisplay(Math.min(1, toLinear(v) * gain))
    return byDisplay(bench, [curve, curve, curve])
  },
})
