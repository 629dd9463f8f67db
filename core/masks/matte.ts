import { choice, piece } from '../values/parameter-kinds'
import type { MatteChannel } from './definition'
import { defineMask } from './definition'

export const matte = defineMask({
  kind: 'matte',
  label: 'Matte',
  help: 'Another piece, whether it is shown itself or not: this one is seen within it',
  parameters: {
    source: piece({ label: 'Within', help: 'The piece whose picture holds this one', use: 'picture' }),
    by: choice({
      label: 'By',
      help:
        'All that is opaque of the other piece, shadows and glows too; its face, the plain shape without coats and finishes; or how ' +
        'light it is (BT.709 luma), clear counting as black',
      default: 'face',
      options: [
        { value: 'face', label: 'Face' },
        { value: 'alpha', label: 'Alpha' },
        { value: 'lightness', label: 'Lightness' },
      ],
    }),
  },
  matte: ({ source, by }) => ({ source: source as string | null, by: by as MatteChannel }),
})
