import type { Card, Piece } from '../card/schema'
import { allPieces, holdersOf, replacePiece } from '../card/tree'
import type { Engine } from '../frame/engine'
import { alone } from '../frame/pick'
import { isSeen } from '../frame/piece'
import type { UnseenReason } from '../help/unseen-words'
import { PLACE_PARAMETERS } from '../pieces/place'
import { PIECE_KINDS } from '../pieces/table'
import { momentOf } from '../time/ring'
import type { Frames } from '../units'
import { numberValue, switchValue } from '../values/evaluated'
import type { Moment } from '../values/moment'

/** Render pixels a card pixel: enough to see whether anything is there. */
const SCALE = 0.25
/** An alpha, of 255, that nobody sees. */
const NOTHING = 2

/**
 * Why a piece is not to be seen at a frame, by the first reason in the order of the work: where and when it is, what it is made of,
 * what holds it, what covers it. Null where it is seen, where it has no shape of its own, and where the card has no such piece.
 */
export function whyUnseen(engine: Engine, card: Card, id: string, frame: Frames): UnseenReason | null {
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!piece || piece.kind === 'wash') return null
  const at = momentOf(card, frame)
  const chain = [...holdersOf(card.pieces, id), piece]
  const plain = chain.map((one) => standsIn(one, at)).find(Boolean)
  if (plain) return plain
  const isBare =
    PIECE_KINDS[piece.kind].coatsFrom !== 'nothing' && !PIECE_KINDS[piece.kind].holds && !isDressed(piece, at)
  if (isBare && piece.kind !== 'picture' && piece.kind !== 'sequence' && piece.kind !== 'twin') return 'coats'
  if (piece.kind === 'group' && piece.pieces.length === 0) return 'small'

  const shows = (one: Card) => hasInk(engine.render(one, frame, { scale: SCALE }))
  const only = alone(card, piece)
  if (!shows(only)) {
    const whole = withoutHolders(only, chain)
    if (shows(whole)) return 'mask'
    if (piece.outlineSteps.length > 0 && shows(without(whole, id, 'outlineSteps'))) return 'form'
    const stands = engine.outlook(whole, frame).find((one) => one.id === id)
    if (!stands || stands.own.right - stands.own.left <= 0 || stands.own.bottom - stands.own.top <= 0) return 'small'
    const { left, right, top, bottom } = stands.bounds
    if (right <= 0 || bottom <= 0 || left >= card.frame.width || top >= card.frame.height) return 'outside'
    return 'coats'
  }
  const gone = { ...card, pieces: replacePiece(card.pieces, id, (one) => [{ ...one, opacity: 0 } as Piece]) }
  const [here, there] = [card, gone].map((one) => engine.render(one, frame, { scale: SCALE }).pixels.slice()) as [
    Uint8Array,
    Uint8Array,
  ]
  return here.some((value, i) => Math.abs(value - there[i]!) > NOTHING) ? null : 'behind'
}

/** What keeps a piece, or a group around another one, from being there at all. */
function standsIn(piece: Piece, at: Moment): UnseenReason | null {
  if (!switchValue(piece.on, at)) return 'off'
  if (!isSeen(piece, at)) return 'span'
  const value = (name: 'opacity' | 'scale' | 'stretchX' | 'stretchY') =>
    numberValue(piece[name], at, PLACE_PARAMETERS[name])
  if (value('opacity') < 0.5) return 'clear'
  return value('scale') <= 0 || value('stretchX') === 0 || value('stretchY') === 0 ? 'small' : null
}

const isDressed = ({ coats }: Piece, at: Moment) =>
  [...coats.face, ...coats.behind].some(({ on }) => switchValue(on, at))

const without = (card: Card, id: string, list: 'masks' | 'outlineSteps'): Card => ({
  ...card,
  pieces: replacePiece(card.pieces, id, (one) => [{ ...one, [list]: [] } as Piece]),
})

/** Without the masks of the piece and of all that holds it. */
const withoutHolders = (card: Card, chain: readonly Piece[]): Card =>
  chain.reduce((next, { id }) => without(next, id, 'masks'), card)

function hasInk({ pixels }: { pixels: Uint8Array | Uint8ClampedArray }): boolean {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i]! > NOTHING) return true
  return false
}
