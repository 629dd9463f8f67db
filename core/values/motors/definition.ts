import type { ChoiceParameter, NumberParameter } from '../parameter-kinds'
import type { Frames } from '../../units'

// A motor's definition is the one source for its schema, its controls, its help and what it does. Of its own values those
// can have keys at which nothing but the present moment counts, such as how far it goes; how fast it goes cannot.

interface Described {
  label: string
  help: string
}

/** The address of another parameter of the card; empty for none. */
export interface SourceParameter extends Described {
  type: 'source'
  default: ''
}

export interface FormulaParameter extends Described {
  type: 'formula'
  default: string
}

/** A number in the unit of the parameter that the motor drives. */
export interface AmountParameter extends Described {
  type: 'amount'
  default: number
  min: number
  max: number
  step: number
  moves?: true
}

/** A number of its own; `moves`: it can have keys. */
export type MotorNumber = NumberParameter & { moves?: true }

export type MotorParameter = MotorNumber | ChoiceParameter | SourceParameter | FormulaParameter | AmountParameter
export type MotorParameters = Readonly<Record<string, MotorParameter>>

export type MotorValues<P extends MotorParameters> = {
  [K in keyof P]: P[K] extends { type: 'number' | 'amount' }
    ? number
    : P[K] extends ChoiceParameter<infer T>
      ? T
      : string
}

/** Where a motor works: what it drives. */
export interface MotorPlace {
  length: Frames
  /** Frames per second. */
  rate: number
  /** The value before this motor: keys, and the motors that stand before it. Any frame; the loop comes round. */
  before: (frame: Frames) => number
  /** Frames of the keys, rising; those beyond the loop left out. */
  keys: readonly Frames[]
  /** Whether the keys lie on the ring; otherwise the first and last value are held. */
  ring: boolean
  /** The span after which the parameter looks the same again (360 for an angle); null where there is none. */
  turn: number | null
  /** The value of another parameter at a frame; null where there is none. */
  lookup: (address: string, frame: Frames) => number | null
}

/** What closes a motor's loop: its values then, and in words what changes. */
export interface MotorMend {
  values: Record<string, unknown>
  says: string
}

export interface MotorDefinition<P extends MotorParameters = MotorParameters> {
  kind: string
  label: string
  /** What it does, for tooltip and docs. */
  help: string
  parameters: P
  /**
   * The value at a frame, 0 ≤ frame < length; fractions are sub-frames. What is not finite is passed over: the value
   * before the motor stays.
   */
  valueAt: (values: MotorValues<P>, place: MotorPlace, frame: Frames) => number
  /** Why its own movement does not close over the loop, in words; null where it does. */
  gap: (values: MotorValues<P>, place: MotorPlace) => string | null
  /** How it is made to close, where it can be. */
  mend?: (values: MotorValues<P>, place: MotorPlace) => MotorMend | null
}

/** Keeps the parameter types while registering; the table's motors get values of their own kind alone. */
export const defineMotor = <P extends MotorParameters>(motor: MotorDefinition<P>): MotorDefinition =>
  motor as unknown as MotorDefinition

export const PER = {
  type: 'choice',
  label: 'Per',
  help: 'Counted over the loop, or over a second',
  default: 'loop',
  options: [
    { value: 'loop', label: 'Loop' },
    { value: 'second', label: 'Second' },
  ],
} satisfies ChoiceParameter<'loop' | 'second'> as ChoiceParameter<'loop' | 'second'>

/** How often `per` fits into the loop. */
export const perLoop = (per: 'loop' | 'second', { length, rate }: Pick<MotorPlace, 'length' | 'rate'>): number =>
  per === 'loop' ? 1 : length / rate

/** Whether a number is whole, but for rounding. */
export const isWhole = (value: number): boolean => Math.abs(value - Math.round(value)) < 1e-9

export const amount = (
  p: Omit<AmountParameter, 'type' | 'min' | 'max' | 'step'> & { step?: number },
): AmountParameter => ({
  type: 'amount',
  min: -1_000_000,
  max: 1_000_000,
  step: 1,
  ...p,
})

/** A number in words: three digits after the point at most. */
export const tidy = (value: number): string => String(Math.round(value * 1000) / 1000)
