import type { Card } from '#core/card/schema'
import type { RowFlag } from '#core/judge/row/definition'
import type { CellFault } from '#core/rosters/fill'
import type { TimeFault } from '#core/rosters/programme'

/** What the page knows of a row. */
export interface RowAbout {
  id: string
  title: string
  on: boolean
  /** Nothing was written into it yet: it is not rendered. */
  blank: boolean
  /** The card that it fills. */
  card: Card
  holds: number
  /** Cells that cannot be read, and times that do not go: the row is not rendered. */
  faults: readonly (CellFault | TimeFault)[]
  /** What the engine found; null while it is not looked at yet. */
  readonly flags: readonly RowFlag[] | null
  /** What is to be said of a cell; `bad` where the row is not rendered for it. Null for nothing. */
  saidAt(column: string): { text: string; bad: boolean } | null
}
