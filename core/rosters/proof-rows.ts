import type { Card } from '../card/schema'
import type { ProofRow } from '../judge/proof/look'
import type { Brought } from './kinds/definition'
import type { Roster } from './roster'
import { isRendered } from './roster'
import { RowCards } from './rows'

/** The rows of a roster that are rendered, filled into a card to be proved with it. */
export function proofRows(card: Card, roster: Roster, brought: Brought): ProofRow[] {
  const cards = new RowCards(card, roster, brought)
  return roster.rows.filter(isRendered).map((row) => {
    const { title, card: filled, faults } = cards.of(row)
    return { id: row.id, title, card: filled, faults }
  })
}
