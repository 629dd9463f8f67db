import { linkFault } from '../card/links'
import type { Card, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { maskOf } from '../masks/table'
import { PIECE_KINDS } from '../pieces/table'
import { LINK_FAULTS } from './form-faults'
import type { MotionFault } from './motion-faults'

/** Mattes, twins and clocks that do not do what they were meant to: they are passed over, the rest of the card goes on. */
export const holdFaults = (card: Card): MotionFault[] =>
  allPieces(card.pieces).flatMap((piece) => [
    ...matteFaults(card, piece),
    ...twinFaults(card, piece),
    ...clockFaults(piece),
  ])

type Place = Pick<MotionFault, 'address' | 'label'>

function matteFaults(card: Card, piece: Piece): MotionFault[] {
  return piece.masks.flatMap((mask): MotionFault[] => {
    const { matte, label } = maskOf(mask.kind)
    if (!matte || mask.on === false) return []
    const place = { address: `${piece.id}/${mask.id}`, label: `${piece.name} · ${mask.name || label.toLowerCase()}` }
    return sourceFault(card, piece, matte(mask).source, place, 'It is within nothing: the piece is seen as it is.')
  })
}

function twinFaults(card: Card, piece: Piece): MotionFault[] {
  const { shows } = PIECE_KINDS[piece.kind]
  if (!shows || piece.on === false) return []
  const place = { address: `${piece.id}/source`, label: `${piece.name} · shows` }
  return sourceFault(card, piece, shows(piece), place, 'It shows no piece yet: nothing of it is seen.')
}

function sourceFault(card: Card, piece: Piece, source: string | null, place: Place, none: string): MotionFault[] {
  const told = (message: string, remedy: string): MotionFault[] => [{ ...place, motor: null, message, remedy }]
  if (source === null) return told(none, 'Choose the other piece.')
  const fault = linkFault(card, piece.id, source)
  if (!fault) return []
  const other = allPieces(card.pieces).find(({ id }) => id === source)?.name ?? source
  return told(`“${other}” ${LINK_FAULTS[fault]}: it does not count.`, 'Choose another piece.')
}

function clockFaults(piece: Piece): MotionFault[] {
  if (!('clock' in piece) || piece.clock !== 'own') return []
  const { clockFrom: from, clockTo: to } = piece
  if (typeof from !== 'number' || typeof to !== 'number' || to === 0 || to > from) return []
  return [
    {
      ...{ address: `${piece.id}/clockTo`, label: `${piece.name} · clock`, motor: null },
      message: 'Its clock ends before it begins: a single frame is shown.',
      remedy: 'Let it end later, or begin earlier.',
    },
  ]
}
