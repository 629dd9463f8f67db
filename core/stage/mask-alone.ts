import { createCoat, createPiece } from '../card/create'
import type { Card, Mask, Piece } from '../card/schema'
import { allPieces, holdersOf, piecesIn } from '../card/tree'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Px } from '../units'

/** A side that is larger than any frame, wherever a piece stands. */
const WIDE = 20_000

const BARE = { coats: { face: [], behind: [] }, finishes: [], masks: [], opacity: 100, blend: 'normal', weave: null }

/**
 * The card that shows what a mask of a piece covers, white on nothing; null where there is no such mask. `reference`: the px of the piece
 * that 100 % of a length stands for.
 */
export function maskAlone(card: Card, pieceId: string, maskId: string, reference: Px): Card | null {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  const mask = piece?.masks.find(({ id }) => id === maskId)
  if (!piece || !mask) return null
  const holders = new Set(holdersOf(card.pieces, pieceId).map(({ id }) => id))
  const shown = (one: Piece): Piece => {
    if (one.id === pieceId) return sheetOf(card, one, mask, reference)
    if (holders.has(one.id)) return { ...one, ...BARE, pieces: piecesIn(one).map(shown) } as Piece
    // It may be what the piece is seen within.
    return { ...one, on: false }
  }
  return { ...card, background: null, shutter: null, blending: 'display', pieces: card.pieces.map(shown) }
}

/** A white sheet in the place of a piece, under one of its masks. */
function sheetOf(card: Card, piece: Piece, mask: Mask, reference: Px): Piece {
  const names = Object.keys(PLACE_PARAMETERS) as (keyof Piece)[]
  // A wash stands nowhere: its masks count in the frame.
  const place = piece.kind === 'wash' ? { x: 0, y: 0 } : Object.fromEntries(names.map((name) => [name, piece[name]]))
  const fill = { ...createCoat('fill', 'mask-alone'), paint: { type: 'solid', colour: '#FFFFFF' } }
  const lengths = Object.fromEntries(
    Object.entries(mask).map(([name, value]) => [name, isShare(value) ? (value.value / 100) * reference : value]),
  )
  return {
    ...{ ...createPiece('box', card), ...place, ...BARE },
    ...{ id: piece.id, name: piece.name, steps: piece.steps, blurred: false, width: WIDE, height: WIDE },
    coats: { face: [fill], behind: [] },
    masks: [{ ...lengths, on: true, mode: 'keep', stage: 'after' }],
  } as unknown as Piece
}

const isShare = (value: unknown): value is { value: number; unit: '%' } =>
  typeof value === 'object' && value !== null && 'unit' in value && value.unit === '%'
