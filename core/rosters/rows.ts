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

/** Rows as cards, each made when it is asked for and kept as long as neither it nor what it fills changes. */
export class RowCards {
  readonly matches: readonly Match[]
  private readonly numbers: ReadonlyMap<string, number>
  private readonly made: WeakMap<RosterRow, RowCard>

  /** `before`: of the roster before it was edited. Rows that are still the same ones are taken over from it. */
  constructor(
    readonly card: Card,
    readonly roster: Roster,
    private readonly brought: Brought,
    before: RowCards | null = null,
  ) {
    const sameFields = before?.card === card && before.brought === brought && before.roster.columns === roster.columns
    this.matches = sameFields ? before.matches : matchFields(card, roster)
    this.made = sameFields ? before.made : new WeakMap()
    this.numbers = new Map(roster.rows.map(({ id }, i) => [id, i + 1]))
  }

  of(row: RosterRow): RowCard {
    const title = rowTitle(this.roster, row) || `row ${this.numbers.get(row.id) ?? ''}`.trim()
    const known = this.made.get(row)
    if (known?.title === title) return known
    const one = { row, title, ...fillCard(this.card, cellsFor(this.matches, row), this.brought) }
    this.made.set(row, one)
    return one
  }
}

/** The heading of the column that fills a field: where a fault of a cell is shown. */
export const columnOf = (matches: readonly Match[], { field }: CellFault): string | null =>
  matches.find((match) => match.field.id === field)?.column?.id ?? null
