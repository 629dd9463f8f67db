import { createPiece } from '#core/card/create'
import type { Card, SequencePiece } from '#core/card/schema'
import type { Engine } from '#core/frame/engine'
import type { Picture } from '#core/paint/pictures'
import { PictureWanted } from '#core/paint/sequences'

export const SEQUENCE = 'sequence-0123456789abcdef'

/** Lets an engine work, with pictures of sequences that are made as they are asked for. */
export function supplied<T>(
  engine: Engine,
  pictureAt: (index: number, id: string) => Picture | null,
  work: () => T,
): T {
  try {
    for (;;) {
      try {
        return work()
      } catch (error) {
        if (!(error instanceof PictureWanted)) throw error
        engine.sequences.add(error.id, error.index, pictureAt(error.index, error.id))
      }
    }
  } finally {
    engine.sequences.rest()
  }
}

/** The card with a sequence in front of all. */
export function withSequence(card: Card, frames: number, values: Partial<SequencePiece> = {}): Card {
  const piece = { ...createPiece('sequence', card), sequence: { id: SEQUENCE, frames }, ...values } as SequencePiece
  return { ...card, pieces: [piece, ...card.pieces] }
}

/** A picture of one straight colour. */
export function plain(width: number, height: number, colour: readonly number[], bits: 8 | 16 = 8): Picture {
  const pixels = bits === 8 ? new Uint8Array(width * height * 4) : new Uint16Array(width * height * 4)
  for (let i = 0; i < pixels.length; i += 4) pixels.set(colour, i)
  return { width, height, pixels }
}
