import { finishOf } from '../finishes/table'
import { maskOf } from '../masks/table'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import type { LinkUse } from '../values/parameter-kinds'
import type { Card, Finish, Piece } from './schema'
import { allPieces, holdersOf, piecesIn } from './tree'

// Pieces that look at others: finishes with a map, mattes, twins, boxes that fit words, lines woven through letters, type along a path. Which
// one it is, and whether it can be looked at.

/** The piece that a finish looks at; null for none. */
export const lookedAt = (finish: Finish): string | null => finishOf(finish.kind).looksAt?.(finish) ?? null

/** Ids of the pieces that a piece fits; none where it fits none. */
export const fittedTo = (piece: Piece): readonly string[] => ('fitTo' in piece ? piece.fitTo : [])

/** The path that type stands along; null for none. */
export const alongOf = (piece: Piece): string | null => (piece.kind === 'type' ? piece.along : null)

/** The pieces that a piece is seen within, by its mattes. */
export const mattesOf = (piece: Piece): string[] =>
  piece.masks.flatMap((mask) => maskOf(mask.kind).matte?.(mask).source ?? [])

/** The pieces whose pictures a piece shows again, or is seen within. */
export const shownIn = (piece: Piece): string[] => [
  ...[PIECE_KINDS[piece.kind].shows?.(piece) ?? []].flat(),
  ...mattesOf(piece),
]

/** All pieces whose pictures are made for a piece, those of its finishes' maps included. */
export const picturedFor = (piece: Piece): string[] => [
  ...piece.finishes.flatMap((finish) => lookedAt(finish) ?? []),
  ...shownIn(piece),
]

/** All pieces that one looks at by itself. */
const linksOf = (piece: Piece): string[] =>
  [...picturedFor(piece), ...fittedTo(piece), piece.weave, alongOf(piece)].filter((id) => id !== null)

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

const NONE: readonly Piece[] = []
const shown = new WeakMap<Card['pieces'], WeakMap<Piece, readonly Piece[]>>()

/**
 * All pieces whose pictures a piece shows or is seen within, and so on from there: with what they hold, and those that hold them.
 */
export function shownFrom({ pieces }: Pick<Card, 'pieces'>, piece: Piece): readonly Piece[] {
  const first = allPieces([piece]).flatMap(shownIn)
  if (first.length === 0) return NONE
  const known = shown.get(pieces) ?? new WeakMap<Piece, readonly Piece[]>()
  shown.set(pieces, known)
  let found = known.get(piece)
  if (!found) {
    const byId = new Map(allPieces(pieces).map((one) => [one.id, one]))
    const all = new Set<Piece>()
    for (const open = first; open.length > 0;) {
      const source = byId.get(open.pop()!)
      if (!source || all.has(source)) continue
      const held = allPieces([source])
      for (const one of [...held, ...holdersOf(pieces, source.id)]) all.add(one)
      open.push(...held.flatMap(shownIn))
    }
    found = [...all]
    known.set(piece, found)
  }
  return found
}
