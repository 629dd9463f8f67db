import type { Card, Piece, SequencePiece } from '../card/schema'
import { allPieces } from '../card/tree'
import { hasClock } from '../time/clock'
import { perSecond } from '../values/rate'
import type { MotionFault } from './motion-faults'

/** Sequences that show nothing, end beyond their pictures, or jump at the card's seam. */
export const sequenceFaults = (card: Card): MotionFault[] =>
  allPieces(card.pieces).flatMap((piece) =>
    piece.kind === 'sequence' && piece.on !== false ? faultsOf(card, piece) : [],
  )

function faultsOf(card: Card, piece: SequencePiece): MotionFault[] {
  const told = (name: string, message: string, remedy: string): MotionFault => ({
    ...{ address: `${piece.id}/${name}`, label: `${piece.name} · clock`, motor: null, message, remedy },
  })
  const { sequence, clockTo } = piece
  if (!sequence)
    return [told('sequence', 'It shows no pictures yet.', 'Bring a file in, or choose one in its settings.')]
  const isBeyond = typeof clockTo === 'number' && clockTo > sequence.frames
  return [
    ...(isBeyond
      ? [
          told(
            'clockTo',
            `It ends at picture ${clockTo} and has ${sequence.frames}.`,
            'Let it end at its end: set To to 0.',
          ),
        ]
      : []),
    ...(jumpsAtSeam(card, piece) ? [told('clockEnd', ...seamWords(card, piece))] : []),
  ]
}

/** Frames of the card after which a sequence is where it was; null where that is not so, or not plain. */
function turnOf(card: Card, piece: SequencePiece): number | null {
  const { sequence, rate, clock, clockEnd, clockSpeed, clockFrom, clockTo } = piece
  if (clock !== 'own' || (clockEnd !== 'again' && clockEnd !== 'fro')) return null
  if (typeof clockSpeed !== 'number' || typeof clockFrom !== 'number' || typeof clockTo !== 'number') return null
  const count = Math.max(1, (clockTo === 0 ? sequence!.frames : clockTo) - clockFrom)
  const pictures = clockEnd === 'again' ? count : Math.max(1, 2 * (count - 1))
  const pace = (clockSpeed / 100) * (rate ? perSecond(rate) / perSecond(card.rate) : 1)
  return pictures / pace
}

const isWhole = (value: number) => Math.abs(value - Math.round(value)) < 1e-6

function jumpsAtSeam(card: Card, piece: SequencePiece): boolean {
  const turn = turnOf(card, piece)
  return turn !== null && !hasClock(card, piece.id) && isSeenAcross(card, piece) && !isWhole(card.length / turn)
}

/** Whether it is seen in the last frame and in the first one. */
const isSeenAcross = ({ length }: Card, { span }: Piece) => !span || (span.in === 0 && span.out === length)

function seamWords(card: Card, piece: SequencePiece): [message: string, remedy: string] {
  const turn = turnOf(card, piece)!
  const near = turn * Math.max(1, Math.round(card.length / turn))
  const other = isWhole(near) ? `, or give the loop ${Math.round(near)} frames` : ''
  const long = Math.round(turn * 100) / 100
  return [
    `It comes round after ${long} frames, the loop after ${card.length}: it jumps at the seam.`,
    `Cut it to another length${other}.`,
  ]
}
