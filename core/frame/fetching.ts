import type { Card, Piece } from '../card/schema'
import { piecesIn } from '../card/tree'
import { shownPictures } from '../pieces/sequence'
import type { Picture } from '../paint/pictures'
import type { PictureGap, SequenceBook } from '../paint/sequences'
import { PictureWanted } from '../paint/sequences'
import { insideOf } from '../time/clock'
import { momentOf } from '../time/ring'
import type { Frames } from '../units'
import type { Moment } from '../values/moment'
import { stepped } from '../values/moment'

// The engine works at one go and cannot wait for files. Its host foresees which pictures of sequences a frame shows and fetches them
// before; what was not foreseen, as by copies at other frames, the engine asks for and begins again.

/** Where the pictures of sequences come from. */
export type SequenceSource = (id: string, index: Frames) => Promise<Picture | PictureGap | null>

export interface WantedPicture {
  id: string
  index: Frames
}

/** The pictures of sequences that a frame of a card shows, as far as its own lists tell. */
export function foreseen(card: Card, frame: Frames): WantedPicture[] {
  const found = new Map<string, WantedPicture>()
  const visit = (pieces: readonly Piece[], now: Moment) => {
    for (const piece of pieces) {
      // Those that are off may be shown elsewhere: as mattes, or by twins.
      const at = stepped(now, piece.steps)
      if (piece.kind === 'sequence' && piece.sequence) {
        const { id } = piece.sequence
        for (const { index } of shownPictures(piece, at)) found.set(`${id} ${index}`, { id, index })
      }
      const held = piecesIn(piece)
      if (held.length > 0) visit(held, insideOf(piece, at))
    }
  }
  visit(card.pieces, stepped(momentOf(card, frame), card.steps))
  return [...found.values()]
}

/** Fetches the pictures that a frame is foreseen to show. */
export async function fetchAhead(book: SequenceBook, source: SequenceSource, card: Card, frame: Frames): Promise<void> {
  const missing = foreseen(card, frame).filter(({ id, index }) => !book.knows(id, index))
  await Promise.all(missing.map(async ({ id, index }) => book.add(id, index, await source(id, index))))
}

/** Does work of an engine, again and again until all pictures of sequences that it asks for are here. */
export async function withPictures<T>(book: SequenceBook, source: SequenceSource, work: () => T): Promise<T> {
  try {
    for (;;) {
      try {
        return work()
      } catch (error) {
        if (!(error instanceof PictureWanted)) throw error
        // Another engine's book: it would ask for ever.
        if (book.knows(error.id, error.index)) throw error
        book.add(error.id, error.index, await source(error.id, error.index))
      }
    }
  } finally {
    book.rest()
  }
}
