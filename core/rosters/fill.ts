import type { CardField } from '../card/fields'
import type { Card } from '../card/schema'
import type { Fault } from '../errors'
import { WaxError } from '../errors'
import type { Brought, Filled, KnownPicture } from './kinds/definition'
import { expectThere } from './kinds/definition'
import { fieldKind } from './kinds/table'

/** Cells by the ids of the fields that they fill. A field without one keeps what the card has. */
export type FieldCells = Readonly<Record<string, string>>

/** What is wrong with a cell. */
export interface CellFault extends Fault {
  /** Id of the field. */
  field: string
}

export interface RowFilled extends Filled {
  /** None where every cell was taken; where there is one, that field keeps what the card has. */
  faults: CellFault[]
}

/** Pictures that are there by their file names or ids; none. */
export const NOTHING_BROUGHT: Brought = { picture: () => null }

/** Pictures by their names, as they are written or in small letters. */
export const broughtBy = (pictures: Readonly<Record<string, KnownPicture>>): Brought => ({
  picture: (name) => pictures[name] ?? pictures[name.toLowerCase()] ?? null,
})

/** The card with its fields filled, cell by cell: what cannot be filled is told, all else is. */
export function fillCard(card: Card, cells: FieldCells, brought: Brought = NOTHING_BROUGHT): RowFilled {
  const start: RowFilled = { card, holds: 1, faults: [] }
  return card.fields.reduce<RowFilled>((before, field) => {
    const cell = cells[field.id]
    if (cell === undefined) return before
    try {
      return { ...before, ...fillField(before, field, cell, brought) }
    } catch (error) {
      if (!(error instanceof WaxError)) throw error
      return { ...before, faults: [...before.faults, { ...error.fault, field: field.id }] }
    }
  }, start)
}

/** One field filled. Throws a WaxError whose place is the field's label. */
export function fillField(filled: Filled, field: CardField, cell: string, brought: Brought): Filled {
  const definition = fieldKind(field.kind)
  expectThere(definition, filled.card, field)
  if (definition.empty === 'kept' && cell.trim() === '') return filled
  return definition.fill(filled, field, cell, brought)
}
