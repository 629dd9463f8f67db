import { definePiece } from './definition'

export const group = definePiece({
  kind: 'group',
  label: 'Group',
  help: 'Pieces together, with coats around them all',
  parameters: {},
  own: ({ pieces }) => ({ pieces }),
  starts: { pieces: [] },
  coatsFrom: 'alpha',
  holds: 'pieces',
})
