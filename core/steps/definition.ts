import type { Fineness, Mould, MouldPart } from '../outline/mould'
import type { Ring } from '../outline/contour'
import type { Px, Rect } from '../units'
import type { EvaluatedValues } from '../values/evaluated'
import type { Length } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import { choice, toggle } from '../values/parameter-kinds'
import type { Grips } from './grips'

/** What a step works with. Lengths are px of the piece, before its place and scale. */
export interface StepWork extends Fineness {
  px(length: Length): Px
  /** What the whole piece spans at rest. */
  whole: Rect
  /** What the step counts from on a part: the whole piece, or the letter alone. */
  around(part: MouldPart): Rect
  /** Whether each letter is for itself. */
  letters: boolean
  /** A whole number from 0 to 2³² − 1 of the card, the step and the throw of its seed at this frame. */
  chance: number
  /** How hard the path was drawn at even distances along it, 0–1; none where it was not. */
  pressure: readonly number[]
  /** A part as an area: a line gets its thickness. */
  rings(part: MouldPart): Ring[]
  united(rings: readonly Ring[]): Ring[]
  /** What lies in both. */
  common(a: readonly Ring[], b: readonly Ring[]): Ring[]
  /** Whether bands are told apart afterwards: letter motion moves some of them alone. */
  banded: boolean
}

/** How far points go at most between two states of a step, in px of the piece. */
export interface StepWay {
  px(length: Length): Px
  whole: Rect
  /** Thickness of the thickest line that the piece is or becomes. */
  thickness: Px
  /** Length of the longest line at rest, and of all together. */
  longest: Px
  together: Px
}

export interface StepDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What it does, in one sentence. */
  help: string
  parameters: T
  /** The value shown on the step's slab: the parameter that says most. */
  headline: keyof T & string
  /** What it works on: lines alone (an area stays as it is), areas (a line gets its thickness first), or both. */
  works: 'lines' | 'areas' | 'both'
  /** Whether nothing changes at these values. */
  idle?(values: EvaluatedValues<T>): boolean
  /** Frames for which a throw of its seed is held; none where chance does not change. */
  every?(values: EvaluatedValues<T>): number
  /** Another outline. What came in is shared and stays as it is. */
  apply(values: EvaluatedValues<T>, mould: Mould, work: StepWork): Mould
  /** What it has on the stage to take hold of. */
  grips?: Grips<T>
  /** How far points go at most from one state to another: motion blur is measured by it. */
  way(from: EvaluatedValues<T>, to: EvaluatedValues<T>, work: StepWay): Px
}

/** Keeps the parameter types while registering. */
export const defineStep = <T extends Parameters>(definition: StepDefinition<T>): StepDefinition<T> => definition

/** What every step has beside its own parameters. */
export const COMMON_STEP_PARAMETERS = {
  each: {
    ...choice({
      label: 'Works on',
      help: 'The whole wording as one, or letter by letter',
      default: 'whole',
      options: [
        { value: 'whole', label: 'The whole' },
        { value: 'letters', label: 'Each letter' },
      ],
    }),
    wordsOnly: true,
  },
  on: toggle({ label: 'Shown', help: 'Whether the step works; it changes at a key', default: true }),
} as const
