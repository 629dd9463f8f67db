import type { CurveName } from '../curves/curve'

// A parameter's definition is the one source for its schema, its control, its help and its range.

interface Described {
  label: string
  /** What it does, with its unit; shown as tooltip and in the docs. */
  help: string
  /** The parameter counts only while another one of the same table has one of these values, or any. */
  when?: { parameter: string; is: readonly (string | boolean)[] } | { parameter: string; filled: true }
  /** The parameter counts only on pieces with an outline: what is computed from alpha has no corners to tell apart. */
  outlineOnly?: true
  /** The parameter counts only on words. */
  wordsOnly?: true
}

export interface NumberParameter extends Described {
  type: 'number'
  default: number
  min: number
  max: number
  step: number
  unit: '' | 'px' | '%' | '°' | '‰'
  /** Range of the slider where the full range would be too coarse. */
  slider?: readonly [number, number]
  /** The span after which it looks the same again, where that is not a whole turn of an angle. */
  turn?: number
}

/** A length in px, or in % of the piece (cap height for type, the smaller side for shapes). */
export interface LengthParameter extends Described {
  type: 'length'
  default: number
  min: number
  max: number
  step: number
  slider?: readonly [number, number]
}

export interface ColourParameter extends Described {
  type: 'colour'
  default: string
}

export interface ChoiceParameter<T extends string = string> extends Described {
  type: 'choice'
  default: T
  options: readonly { value: T; label: string }[]
}

export interface ToggleParameter extends Described {
  type: 'toggle'
  default: boolean
}

export interface PaintParameter extends Described {
  type: 'paint'
  default: string
  /** A new one is a gradient to this colour. */
  second?: string
  /** Only its colours count, laid along something that is no place: lightness. */
  coloursOnly?: true
}

/** A shape between an edge and its reach: falloff, profile, gloss. */
export interface CurveParameter extends Described {
  type: 'curve'
  default: CurveName
}

/** Words; they change at a key. */
export interface TextParameter extends Described {
  type: 'text'
  default: string
  longest: number
}

/** SVG path data; paths of the same commands move point by point. */
export interface PathParameter extends Described {
  type: 'path'
  default: string
}

/** What is asked of another piece: its picture, what it spans, its letters, or its outline as a path. */
export type LinkUse = 'picture' | 'bounds' | 'letters' | 'path'

/** Another piece of the card, by its id; null for none. */
export interface PieceParameter extends Described {
  type: 'piece'
  default: null
  use: LinkUse
}

/** Any number of other pieces of the card, by their ids. */
export interface PiecesParameter extends Described {
  type: 'pieces'
  default: readonly string[]
  use: LinkUse
}

export type Parameter =
  | NumberParameter
  | LengthParameter
  | ColourParameter
  | ChoiceParameter
  | ToggleParameter
  | PaintParameter
  | CurveParameter
  | TextParameter
  | PathParameter
  | PieceParameter
  | PiecesParameter

export type Parameters = Readonly<Record<string, Parameter>>

export const number = (p: Omit<NumberParameter, 'type'>): NumberParameter => ({ type: 'number', ...p })
export const length = (p: Omit<LengthParameter, 'type'>): LengthParameter => ({ type: 'length', ...p })
export const colour = (p: Omit<ColourParameter, 'type'>): ColourParameter => ({ type: 'colour', ...p })
export const toggle = (p: Omit<ToggleParameter, 'type'>): ToggleParameter => ({ type: 'toggle', ...p })
export const paint = (p: Omit<PaintParameter, 'type'>): PaintParameter => ({ type: 'paint', ...p })
export const text = (p: Omit<TextParameter, 'type'>): TextParameter => ({ type: 'text', ...p })
export const path = (p: Omit<PathParameter, 'type'>): PathParameter => ({ type: 'path', ...p })
export const curve = (p: Omit<CurveParameter, 'type'>): CurveParameter => ({ type: 'curve', ...p })
export const piece = (p: Omit<PieceParameter, 'type' | 'default'>): PieceParameter => ({
  type: 'piece',
  default: null,
  ...p,
})
export const pieces = (p: Omit<PiecesParameter, 'type' | 'default'>): PiecesParameter => ({
  type: 'pieces',
  default: [],
  ...p,
})
export const choice = <const T extends string>(p: Omit<ChoiceParameter<T>, 'type'>): ChoiceParameter<T> => ({
  type: 'choice',
  ...p,
})

/** Whether a parameter counts beside the values of its table, on a piece whose look comes from words, an outline or alpha. */
export function counts(
  parameter: Parameter,
  values: Readonly<Record<string, unknown>>,
  on: 'words' | 'outline' | 'alpha' | 'nothing' = 'words',
): boolean {
  const { when, outlineOnly, wordsOnly } = parameter
  if ((outlineOnly && on === 'alpha') || (wordsOnly && on !== 'words')) return false
  if (!when) return true
  const value = values[when.parameter]
  if ('is' in when) return when.is.includes(value as string)
  return Array.isArray(value) ? value.length > 0 : value !== null && value !== ''
}

/** The span after which a parameter looks the same again: a whole turn of an angle; null where there is none. */
export function turnOf(parameter: Parameter): number | null {
  if (parameter.type !== 'number') return null
  return parameter.turn ?? (parameter.unit === '°' && parameter.max - parameter.min >= 360 ? 360 : null)
}
