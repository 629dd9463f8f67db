import { finishOf } from '../finishes/table'
import type { Card, Finish, Piece } from './schema'
import { allPieces, piecesIn } from './tree'

// Finishes that look at another piece of the card: which one, and whether it can be looked at.

/** The piece that a finish looks at; null for none. */
export const lookedAt = (finish: Finish): string | null => finishOf(finish.kind).looksAt?.(finish) ?? null

/** Why a piece cannot be looked at from another one. */
export type MapFault = 'missing' | 'shapeless' | 'circle'

const known = new WeakMap<Card['pieces'], Map<string, MapFault | null>>()

/** Whether the finishes of a piece can look at another: null where they can. */
export function mapFault({ pieces }: Pick<Card, 'pieces'>, from: string, map: string): MapFault | null {
  const faults = known.get(pieces) ?? new Map<string, MapFault | null>()
  known.set(pieces, faults)
  const key = `${from} ${map}`
  let fault = faults.get(key)
  if (fault === undefined) {
    fault = findFault(pieces, from, map)
    faults.set(key, fault)
  }
  return fault
}

function findFault(pieces: readonly Piece[], from: string, map: string): MapFault | null {
  const byId = new Map(allPieces(pieces).map((piece) => [piece.id, piece]))
  const target = byId.get(map)
  if (!target) return 'missing'
  if (target.kind === 'wash') return 'shapeless'
  // All that is drawn for the map: what it holds, and what their finishes look at in turn.
  const seen = new Set<string>()
  const open: Piece[] = [target]
  for (let piece = open.pop(); piece; piece = open.pop()) {
    if (piece.id === from) return 'circle'
    if (seen.has(piece.id)) continue
    seen.add(piece.id)
    const maps = piece.finishes.map(lookedAt).flatMap((id) => (id ? (byId.get(id) ?? []) : []))
    open.push(...piecesIn(piece), ...maps)
  }
  return null
}
