import { linkFault } from '../card/links'
import type { Piece } from '../card/schema'
import { Kept } from '../kept'
import type { Picture } from '../kernels/kernels'
import { PLACE_PARAMETERS } from '../pieces/place'
import { numbersIn } from '../type/ranges'
import { valueAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import type { GridBox } from './grid-box'
import { foundPiece, pictureOf } from './other-piece'
import type { Drawing } from './piece'

// A piece that lies in front of words, except at some letters: these are laid on its picture, and only there. Where it lies on
// the card the same letters lie under it, so that no edge is seen twice.

/** The words that a piece is woven through and the letters behind which it passes, counted from 0; null where it is not. */
export function weaveOf(drawing: Drawing, piece: Piece, at: Moment): { words: string; letters: number[] } | null {
  const { weave } = piece
  if (weave === null || linkFault(drawing.card, piece.id, weave, 'letters') !== null) return null
  const letters = numbersIn(valueAt(PLACE_PARAMETERS.weaveLetters, piece.weaveLetters, at) as string)
  return letters ? { words: weave, letters: [...letters].sort((a, b) => a - b) } : null
}

const filtered = new WeakMap<Piece, Kept<string, Piece>>()

/** A type piece of which only some letters are drawn; all else about it, such as what its paints hang on, stays. */
function lettersOf(piece: Piece, letters: readonly number[]): Piece {
  if (piece.kind !== 'type') return piece
  const known = filtered.get(piece) ?? new Kept<string, Piece>(16)
  filtered.set(piece, known)
  return known.of(letters.join(), () => ({ ...piece, only: letters }))
}

/** A picture with some letters of words laid on it where it is: source-atop (W3C Compositing and Blending 1, §8.8). */
export function weaveInto(
  drawing: Drawing,
  piece: Piece,
  { words, letters }: { words: string; letters: number[] },
  picture: Picture,
  box: GridBox,
): Picture {
  const { kernels } = drawing
  const made = { ...kernels.layers(box.w, box.h), box }
  const mark = kernels.mark()
  const found = foundPiece(drawing, piece.id, words, 'letters')
  if (!found) kernels.copy(picture, made)
  else {
    const front = pictureOf({ ...found, piece: lettersOf(found.piece, letters) }, box)
    const laid = kernels.layers(box.w, box.h)
    kernels.layPicture('normal', made, { mask: kernels.complemented(kernels.alpha(front)), gate: null }, picture, 1)
    kernels.layPicture('normal', laid, { mask: kernels.alpha(picture), gate: null }, front, 1)
    kernels.addTo(laid, made)
  }
  kernels.release(mark)
  return made
}
