import { WaxError } from '../errors'
import { picturedFor } from './links'
import type { Card, Piece } from './schema'
import { allPieces, pathTo, piecesIn } from './tree'

/** Pieces that one frame may show, those that twins, mattes and maps show again counted each time. */
export const MOST_SHOWN = 20_000

const known = new WeakMap<Card['pieces'], number>()

/** Throws a WaxError for a card whose twins of twins unfold to more pieces than a frame may show. */
export function checkUnfolded({ pieces }: Pick<Card, 'pieces'>): void {
  const all = known.get(pieces) ?? unfolded(pieces)
  known.set(pieces, all)
  if (all <= MOST_SHOWN) return
  const heaviest = [...allPieces(pieces)].find((piece) => picturedFor(piece).length > 0)!
  throw new WaxError(
    'too-many-pieces',
    `pieces[${pathTo(pieces, heaviest.id)!.join('].pieces[')}]`,
    `Twins, mattes and maps show more than ${MOST_SHOWN} pieces together.`,
    'Let fewer of them show others that show others in turn.',
  )
}

function unfolded(pieces: readonly Piece[]): number {
  const byId = new Map(allPieces(pieces).map((piece) => [piece.id, piece]))
  const counts = new Map<Piece, number>()
  const count = (piece: Piece): number => {
    const found = counts.get(piece)
    if (found !== undefined) return found
    // What leads back to itself shows nothing.
    counts.set(piece, 0)
    const shown = picturedFor(piece).flatMap((id) => byId.get(id) ?? [])
    const sum = [...piecesIn(piece), ...shown].reduce(
      (all, one) => Math.min(Number.MAX_SAFE_INTEGER, all + count(one)),
      1,
    )
    counts.set(piece, sum)
    return sum
  }
  return pieces.reduce((all, piece) => all + count(piece), 0)
}
