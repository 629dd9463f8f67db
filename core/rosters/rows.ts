import type { Card } from '../card/schema'
import type { CellFault, RowFilled } from './fill'
import { fillCard } from './fill'
import type { Brought } from './kinds/definition'
import type { Match } from './matching'
import { cellsFor, matchFields } from './matching'
import type { Roster, RosterRow } from './roster'
import { rowTitle } from './roster'

/** A row of a roster as a card of its own. */
export interface RowCard extends RowFilled {
  row: RosterRow
  /** What it is called; `row 7` where it says nothing. */
  title: string
}

/** Rows as cards, as they are asked for. */
export class RowCards {
  readonly matches: readonly Match[]
  private readonly numbers: ReadonlyMap<string, number>

  constructor(
    readonly card: Card,
    readonly roster: Roster,
    private readonly brought: Brought,
  ) {
    this.matches = matchFields(card, roster)
    this.numbers = new Map(roster.rows.map(({ id }, i) => [id, i + 1]))
  }

  of(row: RosterRow): RowCard {
    const title = rowTitle(this.roster, row) || `row ${this.numbers.get(row.id) ?? ''}`.trim()
    return { row, title, ...fillCard(this.card, cellsFor(this.matches, row), this.brought) }
  }
}

/** The heading of the column that fills a field: where a fault of a cell is shown. */
export const columnOf = (matches: readonly Match[], { field }: CellFault): string | null =>
  matches.find((match) => match.field.id === field)?.column?.id ?? null
