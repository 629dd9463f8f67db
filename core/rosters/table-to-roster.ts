import type { CardField } from '../card/fields'
import { headingOf } from '../card/fields'
import type { OwnColumn } from './edit'
import { addColumn, emptyRow, ownColumn, setCells } from './edit'
import { ownNamed } from './own-headings'
import type { Roster, RosterRow } from './roster'
import { createRoster } from './roster'
import type { Table } from './table-in'

// What becomes of the columns of a table: columns of the roster, or what every row has.

/** What a column of a table becomes: a heading, what every row has (`:in`), or nothing. */
export type ColumnUse = { to: 'column'; heading: string } | { to: 'own'; name: OwnColumn } | { to: 'nothing' }

/**
 * What the columns of a table most likely are. A heading that a field of the card has is that field's; where there are no headings,
 * the columns are the fields in their order.
 */
export function usesOf({ headings, form }: Table, fields: readonly Pick<CardField, 'label'>[] = []): ColumnUse[] {
  const labels = new Set(fields.map(({ label }) => headingOf(label)))
  const taken = new Set<OwnColumn>()
  return headings.map((heading, i): ColumnUse => {
    if (!form.header || heading === '')
      return { to: 'column', heading: (!form.header && fields[i]?.label) || `Column ${i + 1}` }
    const plain = headingOf(heading)
    const own = labels.has(plain) ? undefined : ownNamed(plain)
    if (!own || taken.has(own)) return { to: 'column', heading }
    taken.add(own)
    return { to: 'own', name: own }
  })
}

/** A roster of a table's rows. Columns of one heading get numbers, and are told. */
export function rosterFrom(
  name: string,
  table: Table,
  uses: readonly ColumnUse[],
): { roster: Roster; notes: string[] } {
  const notes: string[] = []
  let roster = createRoster(name.trim().slice(0, 200) || 'Roster')
  const targets = uses.map((use): string | null => {
    if (use.to === 'nothing') return null
    if (use.to === 'own') return ownColumn(use.name)
    const added = addColumn(roster, use.heading)
    const given = added.roster.columns.at(-1)!.name
    if (headingOf(given) !== headingOf(use.heading)) {
      notes.push(`Two columns are called “${use.heading}”: the later one is “${given}” now.`)
    }
    roster = added.roster
    return added.id
  })
  const rows = table.rows.map((cells, i) => {
    const row: Roster = { ...roster, rows: [emptyRow(`row-${i + 1}`)] }
    const changes = cells.flatMap((text, x) => {
      const column = targets[x]
      return column ? [{ row: `row-${i + 1}`, column, text }] : []
    })
    return setCells(row, changes).rows[0] as RosterRow
  })
  return { roster: { ...roster, rows }, notes }
}
