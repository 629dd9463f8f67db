import { defineMotor, isWhole, tidy } from './definition'

/** Holds each value: on twos, on threes. */
export const step = defineMotor({
  kind: 'step',
  label: 'Step',
  help: 'Holds each value for some frames: on twos, on threes',
  parameters: {
    frames: {
      ...{ type: 'number', label: 'Frames', help: 'For how many frames each value is held', default: 2 },
      ...{ min: 1, max: 1000, step: 1, unit: '', slider: [1, 12] },
    },
  },
  valueAt: ({ frames }, { before }, frame) =>
    before(Math.floor(frame / Math.round(frames) + 1e-9) * Math.round(frames)),
  gap: ({ frames }, { length }) =>
    isWhole(length / Math.round(frames))
      ? null
      : `holds ${Math.round(frames)} frames, which go ${tidy(length / Math.round(frames))} times into the loop: the last hold is cut short`,
})
