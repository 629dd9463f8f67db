import { z } from 'zod'
import { definePiece } from './definition'

export const wash = definePiece({
  kind: 'wash',
  label: 'Wash',
  help: 'A piece without a shape: its finishes treat everything behind it, for the frames of its span',
  parameters: {},
  own: ({ withoutKinds }) => ({
    coats: z.strictObject({ face: withoutKinds, behind: withoutKinds }).default({ face: [], behind: [] }),
  }),
  coatsFrom: 'nothing',
})
