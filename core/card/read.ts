import { WaxError } from '../errors'
import type { Fault } from '../errors'
import { faultsOf } from './faults'
import type { DocumentKind, Reading } from '../documents/document'
import { readDocument, readDocumentText } from '../documents/document'
import type { Card } from './schema'
import { cardSchema } from './checks'
import { CARD_FORMAT, CARD_VERSION } from './schema'
import { CARD_UPGRADES } from './upgrades'

/** Card files larger than this are refused before they are read. */
export const LARGEST_CARD_BYTES = 16 * 1024 * 1024

const CARD: DocumentKind = {
  format: CARD_FORMAT,
  version: CARD_VERSION,
  upgrades: CARD_UPGRADES,
  noun: 'card',
  schema: cardSchema,
  faults: faultsOf,
  mostBytes: LARGEST_CARD_BYTES,
}

/** What reading a card gives: the card with all defaults filled in, or every fault that was found. */
export type CardReading = { card: Card; faults: null } | { card: null; faults: Fault[] }

const asCard = (reading: Reading<Card>): CardReading =>
  reading.faults ? { card: null, faults: reading.faults } : { card: reading.document, faults: null }

/** Reads the text of a `.card.json` file. */
export const readCardText = (text: string): CardReading => asCard(readDocumentText<Card>(CARD, text))

/** Checks a value against the card format; an older version becomes today's. */
export const readCard = (value: unknown): CardReading => asCard(readDocument<Card>(CARD, value))

/** As readCard, but throws the first fault. */
export function expectCard(value: unknown): Card {
  const { card, faults } = readCard(value)
  if (card) return card
  const [first] = faults
  throw new WaxError(first!.code, first!.place, first!.message, first!.remedy)
}
