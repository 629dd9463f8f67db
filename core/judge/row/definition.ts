import type { Card } from '../../card/schema'
import type { Fault } from '../../errors'
import { WaxError } from '../../errors'
import type { Frames } from '../../units'
import type { Room } from './rooms'

// What can be wrong with a row of a roster.

export const ROW_CHECKS = [
  {
    id: 'overflow',
    label: 'Overflow',
    how: 'Ink outside its box, its bar, its mask or the safe area, on any frame of the hold',
  },
  { id: 'glyphs', label: 'Missing glyphs', how: 'Characters that none of its fonts has' },
  {
    id: 'legibility',
    label: 'Legibility',
    how: 'Capitals too small, contrast too low, or too many words for the hold',
  },
  { id: 'render', label: 'Not to be rendered', how: 'What the engine refuses' },
] as const
export type RowCheck = (typeof ROW_CHECKS)[number]['id']

export interface RowFlag {
  check: RowCheck
  /** The words that it is about; null for the whole row. */
  piece: string | null
  frame: Frames | null
  message: string
  remedy: string
  /** Whether it helps to fit the words to the width. */
  fits: boolean
}

export interface RowLook {
  /** The card filled by the row. */
  card: Card
  /** What the design gives: see rooms.ts. */
  rooms: readonly Room[]
  /** How often the hold is played. */
  holds: number
}

/** Why a row is not to be rendered. */
export const refusal = ({ message, remedy }: Fault): RowFlag => ({
  ...{ check: 'render', piece: null, frame: null, message, remedy, fits: false },
})

/** What the engine refuses is a flag of its row: all others go on. Throws again what is no refusal. */
export function refusedRow(error: unknown): RowFlag {
  if (!(error instanceof WaxError)) throw error
  return refusal(error.fault)
}

/** Each once, at the first frame where it was found. */
export function onceOf(flags: readonly RowFlag[]): RowFlag[] {
  const known = new Set<string>()
  return flags.filter(({ check, piece, message }) => {
    const key = `${check} ${piece} ${check === 'overflow' ? '' : message}`
    return known.has(key) ? false : Boolean(known.add(key))
  })
}
