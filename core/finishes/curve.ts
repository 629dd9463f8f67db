import { readCurve } from '../curves/curve'
import { curve as shape } from '../values/parameter-kinds'
import { channel } from './common-parameters'
import { defineFinish } from './definition'
import { byDisplay, onChannel } from './light'

export const curve = defineFinish({
  kind: 'curve',
  label: 'Curve',
  help: 'A drawn curve from each value to another: dark on the left, bright on the right',
  parameters: {
    curve: shape({ label: 'Curve', help: 'What comes in runs to the right, what comes out upward', default: 'linear' }),
    channel,
  },
  headline: 'curve',
  reads: 'pixel',
  idle: ({ curve }) => curve === 'linear',
  rows: ({ curve, channel }, bench) => byDisplay(bench, onChannel(channel, readCurve(curve))),
})
