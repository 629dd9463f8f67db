import type { CardField } from '../card/fields'
import { headingOf } from '../card/fields'
import type { Card } from '../card/schema'
import type { FieldCells } from './fill'
import type { Roster, RosterColumn, RosterRow } from './roster'

/** A field of a card, and the column that fills it. */
export interface Match {
  field: CardField
  /** Null where the roster has none: the field keeps what the card has. */
  column: RosterColumn | null
}

/** Which column fills each field: the one with its label as heading, or that is called so too. */
export function matchFields({ fields }: Pick<Card, 'fields'>, { columns }: Pick<Roster, 'columns'>): Match[] {
  const find = (heading: string) =>
    columns.find(({ name }) => headingOf(name) === heading) ??
    columns.find(({ also }) => also.some((other) => headingOf(other) === heading)) ??
    null
  return fields.map((field) => ({ field, column: find(headingOf(field.label)) }))
}

/** What a row says for each field that a column fills. */
export const cellsFor = (matches: readonly Match[], row: RosterRow): FieldCells =>
  Object.fromEntries(matches.flatMap(({ field, column }) => (column ? [[field.id, row.cells[column.id] ?? '']] : [])))

/** Columns that fill nothing of a card. */
export function idleColumns(matches: readonly Match[], { columns }: Pick<Roster, 'columns'>): RosterColumn[] {
  const used = new Set(matches.map(({ column }) => column?.id))
  return columns.filter(({ id }) => !used.has(id))
}
