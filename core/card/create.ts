import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { coatOf } from '../coats/table'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { finishOf } from '../finishes/table'
import type { Rate } from '../values/rate'
import { defaultsOf } from '../values/parameters'
import { parametersOfMask } from '../masks/definition'
import { maskOf } from '../masks/table'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import { stepOf } from '../steps/table'
import { partsOf } from './parts'
import type { PieceKind } from '../pieces/table'
import { PIECE_KINDS } from '../pieces/table'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Card, Coat, Finish, Mask, OutlineStep, Piece } from './schema'
import { allPieces } from './tree'
import { CARD_FORMAT, CARD_VERSION, LIGHT_PARAMETERS } from './schema'

export interface CardSize {
  width: number
  height: number
  rate: Rate
  /** Frames. */
  length: number
}

/** An empty card. */
export function createCard(name: string, { width, height, rate, length }: CardSize): Card {
  return {
    format: CARD_FORMAT,
    version: CARD_VERSION,
    name,
    frame: { width, height },
    rate,
    length,
    zones: null,
    steps: 1,
    shutter: null,
    easings: [],
    background: null,
    blending: 'display',
    light: { azimuth: LIGHT_PARAMETERS.azimuth.default, elevation: LIGHT_PARAMETERS.elevation.default },
    palette: ['#F6C667', '#E2683C', '#B8324A', '#1E6B6A', '#FFF6EE', '#1B1420'],
    seed: 1,
    fields: [],
    pieces: [],
  }
}

/** A new coat with the values of its definition. */
export function createCoat(kind: string, id: string): Coat {
  const { parameters } = coatOf(kind)
  return {
    id,
    kind,
    name: '',
    on: true,
    ...defaultsOf(COMMON_COAT_PARAMETERS),
    ...defaultsOf(parameters),
  } as Coat
}

/** A new finish with the values of its definition. */
export function createFinish(kind: string, id: string): Finish {
  const { parameters } = finishOf(kind)
  return {
    ...{ id, kind, name: '' },
    ...defaultsOf(COMMON_FINISH_PARAMETERS),
    ...defaultsOf(parameters),
  } as unknown as Finish
}

/** A new outline step with the values of its definition. */
export function createStep(kind: string, id: string): OutlineStep {
  const { parameters } = stepOf(kind)
  return {
    ...{ id, kind, name: '' },
    ...defaultsOf(COMMON_STEP_PARAMETERS),
    ...defaultsOf(parameters),
  } as unknown as OutlineStep
}

/** A new mask with the values of its definition. */
export function createMask(kind: string, id: string): Mask {
  return {
    ...{ id, kind, name: '' },
    ...maskOf(kind).starts,
    ...defaultsOf(parametersOfMask(maskOf(kind))),
  } as unknown as Mask
}

/** A new piece in the middle of the card, with a plain fill. */
export function createPiece(kind: PieceKind, card: Card): Piece {
  const id = freeId(card, kind)
  const definition = PIECE_KINDS[kind]
  const piece = {
    id,
    kind,
    name: definition.label,
    on: true,
    locked: false,
    span: null,
    steps: 1,
    blurred: true,
    seal: null,
    ...defaultsOf(PLACE_PARAMETERS),
    ...defaultsOf(definition.parameters),
    ...definition.starts,
    x: card.frame.width / 2,
    y: card.frame.height / 2,
    coats: { face: [], behind: [] },
    finishes: [],
    outlineSteps: [],
    masks: [],
    // The tables' defaults are the piece's values: tests check every kind against the schema.
  } as unknown as Piece
  // What holds something is seen without a coat.
  if (!definition.holds && definition.coatsFrom !== 'nothing')
    piece.coats.face.push(createCoat('fill', freeId(card, 'fill')))
  return piece
}

/** The first id `kind-N` that nothing on the card has. */
export const freeId = (card: Card, kind: string): string => firstFree(takenIds(card), kind)

/** All ids of a card's pieces and of what they carry. */
export const takenIds = (card: Card): Set<string> =>
  new Set(allPieces(card.pieces).flatMap((piece) => [piece.id, ...partsOf(piece).map(({ entry }) => entry.id)]))

/** The first id `kind-N` that is not taken. */
export function firstFree(taken: ReadonlySet<string>, kind: string): string {
  let n = 1
  while (taken.has(`${kind}-${n}`)) n++
  return `${kind}-${n}`
}
