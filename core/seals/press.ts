import { mapped } from '../edit/mapped'
import { withPiece } from '../edit/path'
import { pasteEntries } from '../edit/entries'
import { pasteStack } from '../edit/stack'
import { isMoving } from '../values/moving'
import type { Moving } from '../values/moving'
import type { Card, Coat, Finish, Piece } from '../card/schema'
import { createPiece } from '../card/create'
import { allPieces } from '../card/tree'
import { coatOf } from '../coats/table'
import { finishOf } from '../finishes/table'
import type { Px } from '../units'
import type { Parameters } from '../values/parameter-kinds'
import type { Seal, SealVariant } from './schema'

type Core = Piece['coats']

/** The coats of a piece with all lengths in %; `reference` is the px that 100 % of the piece stands for. */
export function sealedCore(coats: Core, reference: Px): Core {
  const sealed = (coat: Coat): Coat => withPercent(coat, coatOf(coat.kind).parameters, reference)
  return { face: coats.face.map(sealed), behind: coats.behind.map(sealed) }
}

/** Finishes with all lengths in %. */
export const sealedFinishes = (finishes: readonly Finish[], reference: Px): Finish[] =>
  finishes.map((finish) => withPercent(finish, finishOf(finish.kind).parameters, reference))

function withPercent<T extends Coat | Finish>(entry: T, parameters: Parameters, reference: Px): T {
  const lengths = Object.entries(parameters).filter(([, { type }]) => type === 'length')
  return { ...entry, ...Object.fromEntries(lengths.map(([name]) => [name, inPercent(entry[name], reference)])) }
}

/** Whatever was stored for a length, in %; what is in % already, or stands on a piece of no size, stays. */
function inPercent(stored: Coat[string], reference: Px): Coat[string] {
  if (reference <= 0) return stored
  const share = (px: number) => (px / reference) * 100
  if (typeof stored === 'number') return { unit: '%', value: rounded(share(stored)) }
  if (isMoving(stored) && !(stored as { unit?: '%' }).unit) {
    // Keys with their bends, and what motors add to them.
    const { keys, ...rest } = mapped(stored as Moving<number>, share)
    return { ...rest, unit: '%', keys: keys.map((key) => ({ ...key, value: rounded(key.value) })) } as Coat[string]
  }
  return stored
}

const rounded = (percent: number) => Math.round(percent * 1e4) / 1e4

/** The variant of a name, or the first. */
export const variantOf = (seal: Pick<Seal, 'variants'>, name?: string): SealVariant =>
  seal.variants.find((variant) => variant.name === name) ?? seal.variants[0]!

/** Gives pieces the coats of a seal in place of their own, and its finishes if it has any; they remember which it was. */
export function pressSeal(card: Card, pieces: readonly string[], seal: Seal & { id: string }, variant?: string): Card {
  const made = variantOf(seal, variant)
  return pieces.reduce(
    (next, id) =>
      withPiece(withLook(next, id, made), id, (piece) => ({ ...piece, seal: { id: seal.id, variant: made.name } })),
    card,
  )
}

/** Gives a piece the look of another variant of the seal that it carries. */
export const pressVariant = (card: Card, id: string, variant: SealVariant): Card =>
  withPiece(withLook(card, id, variant), id, (piece) => ({
    ...piece,
    seal: piece.seal ? { ...piece.seal, variant: variant.name } : null,
  }))

function withLook(card: Card, id: string, { coats, finishes }: SealVariant): Card {
  const coated = pasteStack(card, id, coats)
  return finishes ? pasteEntries(coated, id, 'finish', finishes) : coated
}

/** The pieces on which a seal was pressed last. */
export const pressedWith = (card: Card, sealId: string): Piece[] =>
  allPieces(card.pieces).filter((piece) => piece.seal?.id === sealId)

/** Presses a changed seal again on every piece that carries it, each in its variant. */
export function updatePressed(card: Card, seal: Seal & { id: string }): Card {
  return pressedWith(card, seal.id).reduce(
    (next, piece) => pressSeal(next, [piece.id], seal, piece.seal?.variant),
    card,
  )
}

/** Cap height of the sample word, in px of a sample 100 px high. */
const SAMPLE_SIZE = 84

/** A small card with a sample word that carries a variant of a seal, for its thumbnail. */
export function sampleCard(base: Card, variant: SealVariant, word = 'Aa'): Card {
  const bare: Card = { ...base, name: variant.name, background: null, pieces: [] }
  const { width, height } = bare.frame
  const piece = {
    ...createPiece('type', bare),
    ...{ wording: word, font: 'archivo-black', size: SAMPLE_SIZE * (height / 100), align: 'centre' },
    ...{ x: width / 2, y: height / 2 },
  } as Piece
  return withLook({ ...bare, pieces: [piece] }, piece.id, variant)
}
