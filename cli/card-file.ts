import { readFile, stat } from 'node:fs/promises'
import type { CardReading } from '../core/card/read'
import { LARGEST_CARD_BYTES, readCardText } from '../core/card/read'
import type { Card } from '../core/card/schema'
import { WaxError } from '../core/errors'

/** Reads and checks a card file; a file that cannot be read is a fault like any other. */
export async function readCardFile(path: string | undefined): Promise<CardReading> {
  if (!path) throw new WaxError('no-card', 'CARD', 'No card file was named.', 'Give the path of a .card.json file.')
  try {
    const { size } = await stat(path)
    // Not read into memory: the fault is the same for a file of any length.
    if (size > LARGEST_CARD_BYTES) return readCardText(' '.repeat(LARGEST_CARD_BYTES + 1))
    return readCardText(await readFile(path, 'utf8'))
  } catch {
    throw new WaxError('no-file', path, 'The file cannot be read.', 'Check the path.')
  }
}

/** As readCardFile, but throws the first fault. */
export async function expectCardFile(path: string | undefined): Promise<Card> {
  const { card, faults } = await readCardFile(path)
  if (card) return card
  const { code, place, message, remedy } = faults[0]!
  throw new WaxError(code, `${path}: ${place}`, message, remedy)
}
