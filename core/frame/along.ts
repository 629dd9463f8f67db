import { linkFault } from '../card/links'
import type { Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { Kept } from '../kept'
import type { Strand } from '../outline/strand'
import { place as onCard, unplace } from '../outline/outline'
import type { Moment } from '../values/moment'
import { parentOf, shown } from './holders'
import { namingPiece } from './naming'
import type { FormedPiece } from './outlines'
import type { Drawing } from './piece'
import { standingOf } from './piece'

type Found = { key: string; strand: Strand } | null

const MOST_KNOWN = 500

/** Finds the paths along which type pieces of a card stand at a moment, each once. */
export function pathFinder(drawing: () => Drawing): (id: string, at: Moment) => Found {
  const known = new Kept<string, Found>(MOST_KNOWN)
  return (id, at) => known.of(`${id} ${at.frame}`, () => pathAt(drawing(), id, at))
}

/** The other piece's outline at rest, where it stands on the card, in the space of the words. */
function pathAt({ card, outlines }: Drawing, id: string, at: Moment): Found {
  const all = allPieces(card.pieces)
  const piece = all.find((one) => one.id === id)
  if (piece?.kind !== 'type' || piece.along === null) return null
  const other = all.find((one) => one.id === piece.along)
  if (!other || linkFault(card, id, other.id, 'path') !== null) return null
  const stands = (one: Piece) => {
    const parent = parentOf(card, one.id, at)
    return parent && standingOf(shown(one), parent, at)
  }
  const [words, path] = [stands(piece), stands(other)]
  const found = path && namingPiece(other, other.id, () => outlines.strandOf(other as FormedPiece, path.at, other.id))
  if (!words || !found) return null
  const points = new Array<number>(found.points.length)
  for (let i = 0; i < points.length; i += 2) {
    const { x, y } = unplace(words.placement, onCard(path.placement, { x: found.points[i]!, y: found.points[i + 1]! }))
    points[i] = x
    points[i + 1] = y
  }
  const strand = { ...found, points }
  return { key: outlines.nameOf(JSON.stringify([points, strand.closed])), strand }
}
