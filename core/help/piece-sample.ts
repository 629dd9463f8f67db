import { USUAL } from '../brushes/definition'
import { createCard, createCoat, createFinish, createPiece } from '../card/create'
import type { Card, Coat, Finish, Piece } from '../card/schema'
import type { PieceKind } from '../pieces/table'
import type { HelpSample } from './samples'
import { SIZE, solid, WORD, wordCard } from './samples'

const stroke = (id: string, colour: string, points: number[]) => ({
  ...{ ...USUAL, id, tip: 'bristle', erase: false, colour, size: 54, spacing: 4, seed: 5, points },
})

/** What shows by itself when it is new. */
const ALONE: Partial<Record<PieceKind, object>> = {
  type: { wording: 'Quay', size: 150, font: 'archivo-black' },
  box: { width: 260, height: 120, radius: 24 },
  ellipse: { width: 200, height: 200 },
  polygon: { width: 200, height: 200, sides: 5, inset: 50 },
  line: { length: 300, thickness: 16 },
  path: { path: 'M -150 40 C -80 -120 60 140 150 -50', thickness: 14 },
  painting: {
    strokes: [
      stroke('sample-one', '#B8472E', [-170, 40, 0.6, -60, -50, 1, 60, 30, 0.8, 170, -40, 0.3]),
      stroke('sample-two', '#1E6B6A', [-150, -40, 0.4, -20, 50, 1, 150, 50, 0.5]),
    ],
  },
}

const made = (kind: PieceKind, card: Card, values: object) => ({ ...createPiece(kind, card), ...values }) as Piece

/** What is made of other pieces. */
const OF_OTHERS: Partial<Record<PieceKind, () => Omit<HelpSample, 'plays'>>> = {
  // Turned as one, with one shadow.
  group: () => {
    const card = wordCard({ x: 0, y: 0, size: 110 })
    const [word] = card.pieces as [Piece]
    const bar = made('box', card, { id: 'sample-bar', x: 0, y: 74, width: 300, height: 16 })
    const shadow = { ...createCoat('shadow', 'sample-shadow'), distance: 10, softness: 10 } as Coat
    const group = made('group', card, { rotation: -8, coats: { face: [], behind: [shadow] }, pieces: [word, bar] })
    const apart = [word, bar].map((piece) => ({ ...piece, x: 240, y: 135 + (piece === bar ? 74 : 0) }) as Piece)
    return { before: { ...card, pieces: apart }, after: { ...card, pieces: [group] } }
  },
  // As a reflection of the word.
  twin: () => {
    const card = wordCard({ y: 100, size: 120 })
    const twin = made('twin', card, { source: WORD, y: 192, stretchY: -100, opacity: 35 })
    return { before: card, after: { ...card, pieces: [...card.pieces, twin] } }
  },
  wash: () => {
    const card = wordCard()
    const blur = { ...createFinish('blur', 'sample-blur'), radius: 7 } as Finish
    const steps = { ...createFinish('colour-steps', 'sample-steps'), levels: 4 } as Finish
    const wash = made('wash', card, { finishes: [steps, blur] })
    return { before: card, after: { ...card, pieces: [wash, ...card.pieces] } }
  },
}

/** Null for what is brought in as a file. */
export function pieceSample(kind: PieceKind): HelpSample | null {
  const ofOthers = OF_OTHERS[kind]
  if (ofOthers) return { ...ofOthers(), plays: false }
  if (!ALONE[kind]) return null
  const card = { ...createCard('Sample', SIZE), background: solid('#C9C2B4') } as Card
  return { before: null, after: { ...card, pieces: [made(kind, card, ALONE[kind])] }, plays: false }
}
