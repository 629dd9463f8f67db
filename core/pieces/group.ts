import { clockOf, CLOCK_PARAMETERS } from './clock'
import { definePiece } from './definition'

export const group = definePiece({
  kind: 'group',
  label: 'Group',
  help: 'Pieces together, with coats around them all',
  parameters: CLOCK_PARAMETERS,
  own: ({ pieces }) => ({ pieces }),
  starts: { pieces: [] },
  coatsFrom: 'alpha',
  holds: 'pieces',
  clock: clockOf,
})
