import { USUAL } from '../brushes/definition'
import { createMask, createPiece } from '../card/create'
import type { Card, Mask, Piece } from '../card/schema'
import type { HelpSample } from './samples'
import { changed, wordCard } from './samples'

const STROKE = {
  ...{ ...USUAL, id: 'sample-stroke', tip: 'chalk', erase: false, colour: '#FFFFFF', size: 84, seed: 3, pressSize: 0 },
  points: [-190, 22, 1, -90, -26, 1, 10, 20, 1, 100, -22, 1, 190, 18, 1],
}

const MASKS: Readonly<Record<string, object>> = {
  box: { width: 260, height: 80 },
  ellipse: { width: 300, height: 150 },
  path: { path: 'M -170 60 L 0 -80 L 170 60 Z' },
  painted: { strokes: [STROKE] },
  matte: { source: 'sample-star' },
}

/** A star that is not shown itself: the word is seen within it. */
function withStar(card: Card): Card {
  const star = {
    ...createPiece('polygon', card),
    ...{ id: 'sample-star', on: false, width: 330, height: 330, sides: 7, inset: 30 },
  } as unknown as Piece
  return { ...card, pieces: [...card.pieces, star] }
}

export function maskSample(kind: string): HelpSample {
  const before = kind === 'matte' ? withStar(wordCard()) : wordCard()
  const mask = { ...createMask(kind, 'shown'), ...MASKS[kind] } as Mask
  return { before, after: changed(before, (piece) => ({ ...piece, masks: [mask] })), plays: false }
}
