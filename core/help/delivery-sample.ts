import { createCoat, createMask, createPiece } from '../card/create'
import type { Card, Coat, Mask, Piece } from '../card/schema'
import type { Delivery } from '../formats/deliveries/delivery'
import type { HelpSample } from './samples'
import { GRADIENT, solid, wordCard } from './samples'

// What a delivery makes of a word with a soft shine: what is handed over, and what becomes of it.

const FACE = '#F6C667'
const SHINE = '#E2683C'
const REACH = 36

/** Where the shine is half clear, in px from the edge. */
const HALF = 17

/** Stands for footage. */
const FOOTAGE = {
  ...{ ...GRADIENT, angle: 270 },
  stops: [
    { at: 0, colour: '#241A38' },
    { at: 56, colour: '#B0614F' },
    { at: 62, colour: '#33405C' },
    { at: 100, colour: '#0E1722' },
  ],
} as NonNullable<Card['background']>

const coat = (kind: string, values: object) => ({ ...createCoat(kind, `sample-${kind}`), ...values }) as Coat

const word = (face: string, shine: string): Card => ({
  ...wordCard({}, [coat('glow', { reach: REACH, measure: 'even', paint: solid(shine) })], face),
  background: null,
})

const over = (card: Card, background: Card['background']): Card => ({ ...card, background })

/** Clear or solid, and nothing between: the soft edge lies on the matte colour, and ends where it was half clear. */
function onOrOff(card: Card): Card {
  const [soft] = card.pieces as [Piece]
  const matte = coat('stroke', { width: HALF, paint: solid('#000000') })
  const within = { ...createMask('matte', 'sample-matte'), source: 'sample-cut', by: 'alpha' } as unknown as Mask
  const face = soft.coats.face.map((one) => ({ ...one, id: 'sample-cut-fill' }))
  const cut = { ...soft, id: 'sample-cut', on: false, coats: { face, behind: [{ ...matte, id: 'sample-cut-stroke' }] } }
  const held = { ...soft, coats: { ...soft.coats, behind: [...soft.coats.behind, matte] }, masks: [within] } as Piece
  return { ...card, pieces: [held, cut as Piece] }
}

/** The card's name and the time, as they are written into copies for review. */
function burnt(card: Card): Card {
  const line = (id: string, wording: string, x: number) =>
    ({
      ...createPiece('type', card),
      ...{ id, wording, font: 'barlow-condensed-medium', size: 24, x, y: 26 },
      coats: { face: [{ ...coat('fill', { paint: solid('#FFFFFF') }), id: `${id}-fill` }], behind: [] },
    }) as Piece
  return { ...card, pieces: [line('sample-name', 'Quay', 44), line('sample-time', '01:00:02:10', 415), ...card.pieces] }
}

/** By how the delivery keeps what is clear. */
export function deliverySample({ alpha }: Pick<Delivery, 'alpha'>): HelpSample {
  const card = word(FACE, SHINE)
  const plays = false
  switch (alpha) {
    case 'on or off':
      return { before: card, after: onOrOff(card), plays, called: ['the card', 'what is handed over'] }
    case 'in a second file': {
      const key = over(word('#FFFFFF', '#FFFFFF'), solid('#000000'))
      return { before: over(card, solid('#000000')), after: key, plays, called: ['the fill', 'the key'] }
    }
    case 'none':
      return { before: card, after: burnt(over(card, FOOTAGE)), plays, called: ['the card', 'what is handed over'] }
    default:
      return { before: card, after: over(card, FOOTAGE), plays, called: ['what is handed over', 'over footage'] }
  }
}
