import type { z } from 'zod'
import type { Ring } from '../outline/contour'
import type { OutlineWork } from '../pieces/definition'
import type { Grips } from '../steps/grips'
import { angle, percent, span, way } from '../steps/common-parameters'
import type { EvaluatedValues } from '../values/evaluated'
import type { Parameters } from '../values/parameter-kinds'
import { choice, number, toggle } from '../values/parameter-kinds'

/** A kind of mask: what holds or hides a part of a piece. Its cover comes from an area of its own, or from another piece. */
export interface MaskDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What it is, in one sentence. */
  help: string
  parameters: T
  /** What it has in the document beside its parameters; `id` is the schema of ids. */
  own?(id: z.ZodType): Record<string, z.ZodType>
  /** Values with which a new one begins, beside the defaults. */
  starts?: object
  /** Whether it stands somewhere; a matte stands where the other piece does. */
  stands?: true
  /** Values for its outline that are no parameters. */
  also?(mask: object): Record<string, unknown>
  /** What it covers, where that is not its area: what strokes painted in it. */
  cover?: 'strokes'
  /** Its area around its own place, in px; rings do not overlap. */
  outline?(values: EvaluatedValues<T>, work: OutlineWork): Ring[]
  /** What it takes of which other piece; null for none. */
  matte?(values: Readonly<Record<string, unknown>>): { source: string | null; by: MatteChannel }
  /** What it has on the stage to take hold of, beside its place. */
  grips?: Grips<T>
}

/** What of another piece a matte is: all that is opaque of it, its plain shape without its coats, or its light. */
export type MatteChannel = 'alpha' | 'face' | 'lightness'

/** Keeps the parameter types while registering. */
export const defineMask = <T extends Parameters>(definition: MaskDefinition<T>): MaskDefinition<T> => definition

const place = (label: string, help: string) =>
  number({ label, help, default: 0, min: -100_000, max: 100_000, step: 1, unit: 'px', slider: [-960, 960] })

/** What masks have whose area stands somewhere. */
export const AREA_PARAMETERS = {
  x: place('X', 'Place of its middle: px right of the place of the piece, or from the left of the card'),
  y: place('Y', 'Place of its middle: px below the place of the piece, or from the top of the card'),
  rotation: angle('Rotation', 'Turn about its place, in degrees anticlockwise', 0),
  space: choice({
    label: 'Moves with',
    help: 'Whether its place counts from the piece, with which it moves, or from the card',
    default: 'piece',
    options: [
      { value: 'piece', label: 'Piece' },
      { value: 'card', label: 'Card' },
    ],
  }),
} as const

/** What every mask has. */
export const COMMON_MASK_PARAMETERS = {
  feather: span('Feather', 'How far the edge fades, to each side of it', 0, [0, 200]),
  grow: way('Grow', 'Moves the edge outward, below 0 inward; corners become round', 0),
  opacity: percent('Opacity', 'How much it counts, in %', 100),
  inverted: toggle({ label: 'Inverted', help: 'What lies beyond its edge counts instead', default: false }),
  mode: choice({
    label: 'Does',
    help: 'Adds what lies in it to what is seen; takes that away; or keeps that alone (CSS Masking 1, mask-composite)',
    default: 'add',
    options: [
      { value: 'add', label: 'Add' },
      { value: 'take', label: 'Take' },
      { value: 'keep', label: 'Keep' },
    ],
  }),
  stage: choice({
    label: 'Finishes',
    help: 'Works before the finishes, so that they see the cut, or after them, so that it stays sharp',
    default: 'before',
    options: [
      { value: 'before', label: 'Before' },
      { value: 'after', label: 'After' },
    ],
  }),
  on: toggle({ label: 'Shown', help: 'Whether the mask works; it changes at a key', default: true }),
} as const

/** The parameters that not all masks have. */
export const ownOfMask = ({ parameters, stands }: MaskDefinition): Parameters => ({
  ...parameters,
  ...(stands ? AREA_PARAMETERS : {}),
})

/** All parameters of a kind of mask. */
export const parametersOfMask = (definition: MaskDefinition): Parameters => ({
  ...ownOfMask(definition),
  ...COMMON_MASK_PARAMETERS,
})
