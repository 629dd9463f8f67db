import { partsOf, valuesOf } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { PIECE_KINDS } from '../pieces/table'
import type { StoredValue } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import { counts } from '../values/parameter-kinds'

/** Whether the value at an address changes nothing just now: beside the others of its table, or on a piece without words or outline. */
export function idleValues(card: Card): (address: string) => boolean {
  const idle = new Set(allPieces(card.pieces).flatMap(idleOf))
  return (address) => {
    for (let end = address.length; end > 0; end = address.lastIndexOf('/', end - 1)) {
      if (idle.has(address.slice(0, end))) return true
    }
    return false
  }
}

function idleOf(piece: Piece): string[] {
  const { coatsFrom, parameters } = PIECE_KINDS[piece.kind]
  const ofTable = (table: Parameters, values: Readonly<Record<string, StoredValue>>, address: string) =>
    Object.entries(table).flatMap(([name, parameter]) =>
      counts(parameter, values, coatsFrom) ? [] : [`${address}/${name}`],
    )
  return [
    ...ofTable(parameters, valuesOf(piece), piece.id),
    ...partsOf(piece).flatMap(({ list, entry }) =>
      ofTable(list.parameters(entry), valuesOf(entry), `${piece.id}/${entry.id}`),
    ),
  ]
}
