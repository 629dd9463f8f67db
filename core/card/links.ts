import { finishOf } from '../finishes/table'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import type { LinkUse } from '../values/parameter-kinds'
import type { Card, Finish, Piece } from './schema'
import { allPieces, piecesIn } from './tree'

// Pieces that look at others: finishes with a map, boxes that fit words, lines woven through letters, type along a path. Which
// one it is, and whether it can be looked at.

/** The piece that a finish looks at; null for none. */
export const lookedAt = (finish: Finish): string | null => finishOf(finish.kind).looksAt?.(finish) ?? null

/** Ids of the pieces that a piece fits; none where it fits none. */
export const fittedTo = (piece: Piece): readonly string[] => ('fitTo' in piece ? piece.fitTo : [])

/** The path that type stands along; null for none. */
export const alongOf = (piece: Piece): string | null => (piece.kind === 'type' ? piece.along : null)

/** All pieces that one looks at by itself, those of its finishes' maps included. */
const linksOf = (piece: Piece): string[] =>
  [...piece.finishes.map(lookedAt), ...fittedTo(piece), piece.weave, alongOf(piece)].filter((id) => id !== null)

/** Why a piece cannot be looked at from another one. */
export type LinkFault = 'missing' | 'shapeless' | 'circle'

const known = new WeakMap<Card['pieces'], Map<string, LinkFault | null>>()

/** Whether a piece can look at another: null where it can. */
export function linkFault(
  { pieces }: Pick<Card, 'pieces'>,
  from: string,
  to: string,
  use: LinkUse = 'picture',
): LinkFault | null {
  const faults = known.get(pieces) ?? new Map<string, LinkFault | null>()
  known.set(pieces, faults)
  const key = `${from} ${to} ${use}`
  let fault = faults.get(key)
  if (fault === undefined) {
    fault = findFault(pieces, from, to, use)
    faults.set(key, fault)
  }
  return fault
}

/** Whether a piece has what is asked of it. */
const has: Record<LinkUse, (piece: Piece) => boolean> = {
  picture: ({ kind }) => kind !== 'wash',
  bounds: ({ kind }) => kind !== 'wash',
  letters: ({ kind }) => kind === 'type',
  path: ({ kind }) => kind !== 'type' && hasOutline(PIECE_KINDS[kind]),
}

function findFault(pieces: readonly Piece[], from: string, to: string, use: LinkUse): LinkFault | null {
  const byId = new Map(allPieces(pieces).map((piece) => [piece.id, piece]))
  const target = byId.get(to)
  if (!target) return 'missing'
  if (!has[use](target)) return 'shapeless'
  // All that is asked for then: what it holds, and what those look at in turn.
  const seen = new Set<string>()
  const open: Piece[] = [target]
  for (let piece = open.pop(); piece; piece = open.pop()) {
    if (piece.id === from) return 'circle'
    if (seen.has(piece.id)) continue
    seen.add(piece.id)
    open.push(...piecesIn(piece), ...linksOf(piece).flatMap((id) => byId.get(id) ?? []))
  }
  return null
}
