import { choice, number, pieces, toggle } from '../values/parameter-kinds'

// A shape that fits others: its size and place follow their bounds.

const fitted = { parameter: 'fitTo', filled: true } as const

const padding = (label: string, side: string) =>
  number({
    label,
    help: `Room ${side} of what it fits, in px`,
    ...({ default: 0, min: -5000, max: 5000, step: 1, unit: 'px', slider: [-20, 120] } as const),
    when: fitted,
  })

export const FIT_PARAMETERS = {
  fitTo: pieces({
    label: 'Fits',
    help: 'Pieces whose bounds its size and place follow; of several all that they span',
    use: 'bounds',
  }),
  fitBy: {
    ...choice({
      label: 'Measured',
      help: 'Words by their ink, or from side to side of their lines and from cap height to baseline, the same for all letters',
      default: 'lines',
      options: [
        { value: 'lines', label: 'By lines' },
        { value: 'ink', label: 'By ink' },
      ],
    }),
    when: fitted,
  },
  fitWidth: {
    ...toggle({ label: 'Width follows', help: 'Whether its width follows theirs', default: true }),
    when: fitted,
  },
  fitHeight: {
    ...toggle({ label: 'Height follows', help: 'Whether its height follows theirs', default: true }),
    when: fitted,
  },
  fitX: {
    ...choice({
      label: 'Stands at',
      help: 'Which of their sides its own side follows, or that it stays where it is',
      default: 'middle',
      options: [
        { value: 'left', label: 'Left' },
        { value: 'middle', label: 'Middle' },
        { value: 'right', label: 'Right' },
        { value: 'free', label: 'Free' },
      ],
    }),
    when: fitted,
  },
  fitY: {
    ...choice({
      label: 'and at',
      help: 'Which of their upper or lower sides its own side follows, or that it stays where it is',
      default: 'middle',
      options: [
        { value: 'top', label: 'Top' },
        { value: 'middle', label: 'Middle' },
        { value: 'foot', label: 'Foot' },
        { value: 'free', label: 'Free' },
      ],
    }),
    when: fitted,
  },
  padLeft: padding('Left of it', 'to the left'),
  padRight: padding('Right of it', 'to the right'),
  padTop: padding('Above it', 'above'),
  padFoot: padding('Below it', 'below'),
} as const
