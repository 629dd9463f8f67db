import { parameterAt } from '../../card/addresses'
import type { CardField, FieldKind } from '../../card/fields'
import type { Card } from '../../card/schema'
import { allPieces } from '../../card/tree'
import { setStored, storedAt } from '../../edit/values'
import { WaxError } from '../../errors'
import type { Px } from '../../units'
import type { Moving } from '../../values/moving'
import { isMoving } from '../../values/moving'

/** A picture that is there to be shown. */
export interface KnownPicture {
  id: string
  width: Px
  height: Px
}

/** What a row may name beside plain values. */
export interface Brought {
  /** The picture of a file name or an id; null where there is none. */
  picture(name: string): KnownPicture | null
}

/** A card that was filled, and how often its hold is played. */
export interface Filled {
  card: Card
  holds: number
}

/** A kind of field: what it fills, and what a cell of it says. */
export interface FieldKindDefinition {
  kind: FieldKind
  label: string
  /** How a cell is written; shown as tooltip and in the docs. */
  help: string
  /** What a cell without anything does: it keeps what the card has, or is taken as it is. */
  empty: 'kept' | 'taken'
  /** Whether a value of the card can be filled so. */
  takes(card: Card, address: string): boolean
  /** What the card itself has there, as a cell would say it. */
  written(card: Card, field: CardField): string
  /** Throws a WaxError where the cell cannot be read, or where the card has no such value any more. */
  fill(filled: Filled, field: CardField, cell: string, brought: Brought): Filled
}

/** Throws for a cell that says something else than its field takes. `place` is the heading of its column. */
export const unreadable = (field: CardField, message: string, remedy: string): WaxError =>
  new WaxError('unreadable-cell', field.label, message, remedy)

const gone = (field: CardField): WaxError =>
  new WaxError(
    'field-gone',
    field.label,
    `What “${field.label}” fills is no longer on the card.`,
    'Make the field again beside another value, or remove it.',
  )

/** Throws where the card has no such value any more. */
export function expectThere(definition: FieldKindDefinition, card: Card, field: CardField): void {
  if (!field.at.every((address) => definition.takes(card, address))) throw gone(field)
}

/** The card with one value at all places of a field. */
export const filledAt = (
  { card, holds }: Filled,
  { at }: CardField,
  change: (card: Card, address: string) => Card,
): Filled => ({
  card: at.reduce(change, card),
  holds,
})

/** Whether a value has several keys: then it has no one value that a row could fill. One key is what motors play around. */
export function movesByKeys(card: Card, address: string): boolean {
  const value = parameterAt(card, address)?.value
  return isMoving(value) && value.keys.length > 1
}

/**
 * Puts a value where another stands still. One key beside motors is the value that they play around, so that is what is
 * filled; what moves by keys has no one value, and is refused.
 */
export function putValue(card: Card, field: CardField, address: string, value: unknown): Card {
  const stored = storedAt(card, address)
  if (!isMoving(stored)) return setStored(card, address, value)
  const [only, ...more] = stored.keys
  if (more.length > 0) {
    throw new WaxError(
      'field-moves',
      field.label,
      `What “${field.label}” fills moves by its keys, so it has no one value.`,
      'Take its keys away, or the field.',
    )
  }
  return setStored(card, address, { ...stored, keys: [{ ...only!, value }] } as Moving<unknown>)
}

/** The value that stands still at an address, or that its first key has. */
export function standing(card: Card, address: string): unknown {
  const stored = parameterAt(card, address)?.value
  return isMoving(stored) ? stored.keys[0]!.value : stored
}

/** The piece of an address. */
export const pieceOf = (card: Card, address: string) =>
  allPieces(card.pieces).find(({ id }) => id === address.split('/')[0])
