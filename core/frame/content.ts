import type { BrushStroke } from '../brushes/stroke'
import { strokesOf } from '../brushes/stroke'
import { listPieceParameters } from '../card/addresses'
import type { StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Parameter } from '../values/parameters'
import type { Card, Piece } from '../card/schema'
import { valueAt } from '../values/evaluated'
import { mattesOf, shownIn } from '../card/links'
import { allPieces } from '../card/tree'
import { shownPictures } from '../pieces/sequence'
import { sourcesOf } from '../values/links'
import { Kept } from '../kept'
import type { Moment } from '../values/moment'
import { stepped } from '../values/moment'
import { wordingAt } from '../card/wording'
import { fittedOf, formValuesAt } from './fitted'
import { isRestless, looksElsewhere } from './laid-finishes'
import { heldPieces, holdsOthers } from './held-pieces'
import type { FoundPiece } from './other-piece'
import { foundPiece } from './other-piece'
import { exposedAt } from './open-list'
import type { Drawing, Standing } from './piece'
import { isSeen, standingOf } from './piece'
import { mostExposures } from './shutter'

// What a piece's picture is made of, as a name: equal names, equal pixels. Kept pictures are known by it.

interface PieceText {
  /** The piece as it lies in the card, without what moves and without what nobody sees. */
  still: string
  moving: readonly { parameter: Parameter; value: StoredValue }[]
}

const texts = new WeakMap<Piece, PieceText>()

/** Says where a piece stands in a list, or what a hand may do with it; its picture is the same. */
const UNSEEN = new Set(['name', 'locked', 'seal', 'pieces'])

function textOf(piece: Piece): PieceText {
  let found = texts.get(piece)
  if (!found) {
    found = {
      still: JSON.stringify(piece, (name, value: unknown) => (UNSEEN.has(name) || isMoving(value) ? undefined : value)),
      moving: listPieceParameters(piece).filter(({ value }) => isMoving(value)),
    }
    texts.set(piece, found)
  }
  return found
}

const wholes = new WeakMap<Piece, string>()

/** All of a piece, what moves included: what it is at other moments depends on all of its keys. */
function wholeText(piece: Piece): string {
  let text = wholes.get(piece)
  if (text === undefined) {
    text = JSON.stringify(piece)
    wholes.set(piece, text)
  }
  return text
}

const leaning = new WeakMap<Piece, boolean>()

/** Whether what a piece is at other moments depends on others: it follows them, shows their words, or looks at them. */
function leansOnOthers(piece: Piece): boolean {
  let leans = leaning.get(piece)
  if (leans === undefined) {
    leans = allPieces([piece]).some(
      (one) =>
        looksElsewhere(one) ||
        shownIn(one).length > 0 ||
        (one.kind === 'type' && one.linked !== null) ||
        listPieceParameters(one).some(({ value }) => sourcesOf(value).length > 0),
    )
    leaning.set(piece, leans)
  }
  return leans
}

let cards = 0
const serials = new WeakMap<Card, number>()

/** A number for a card, which never changes: another card, another number. */
function serialOf(card: Card): number {
  const serial = serials.get(card) ?? ++cards
  serials.set(card, serial)
  return serial
}

/** Bytes of texts that stand for names. */
const BUDGET = 16 * 1024 * 1024

/** Gives short names to what pieces are made of. */
export class Contents {
  private readonly names = new Kept<string, number>(BUDGET, (_, text) => text.length * 2 + 64)
  private given = 0
  private readonly strokes = new WeakMap<BrushStroke, string>()
  private readonly stills = new WeakMap<Piece, string>()

  /** A short name for a text; never given twice. */
  name(text: string): string {
    return `c${this.names.of(text, () => ++this.given)}`
  }

  /** A short name for what of a piece never moves. */
  ofStill(piece: Piece): string {
    const found = this.stills.get(piece) ?? this.name(textOf(piece).still)
    this.stills.set(piece, found)
    return found
  }

  /** A short name for a stroke. */
  ofStroke(stroke: BrushStroke): string {
    const found = this.strokes.get(stroke) ?? this.name(JSON.stringify(stroke))
    this.strokes.set(stroke, found)
    return found
  }

  /**
   * The name of what a piece shows at a moment; where it stands among others is not in it. `exposed`: more than this
   * moment is seen of it, or of what it holds, so that its frame names it too.
   */
  of(drawing: Drawing, piece: Piece, exposed: boolean): string {
    return this.within(drawing, piece, drawing.list.at, exposed, contentOf({ piece, drawing, place: '' }))
  }

  /** The name of what a piece holds, without its own coats and place. */
  held(drawing: Drawing, standing: Standing, exposed: boolean): string {
    const { piece, at } = standing
    const own = formValuesAt(piece, at)
    const pixels = [pictureIn(piece, at), strokesOf(piece).map((stroke) => this.ofStroke(stroke))]
    const held = heldPieces(drawing, standing, '').map(contentOf)
    return this.within(drawing, piece, at, exposed, [piece.kind, own, pixels, held])
  }

  /** The name of a holder that leaves the shutter to its pieces, with all that moves it; see OuterShutter. */
  around({ card, list }: Drawing, holder: Piece): string {
    const outer = list.exposed?.moves ? list.exposed.name() : null
    const others = leansOnOthers(holder) ? serialOf(card) : null
    return this.name(JSON.stringify([exposedAt(list).frame, list.parent, wholeText(holder), others, outer]))
  }

  private within(
    { scale, draft, light, card, copies, list }: Drawing,
    piece: Piece,
    at: Moment,
    exposed: boolean,
    content: unknown,
  ): string {
    // In a piece that moves, or that is shown elsewhere again, all stands elsewhere.
    const around = [scale, draft, light, card.seed, card.blending, card.frame, list.around && list.parent]
    const others = leansOnOthers(piece) ? serialOf(card) : null
    const outer = list.exposed?.moves ? list.exposed.name() : null
    const moments = exposed ? [at.frame, card.shutter, mostExposures(copies), wholeText(piece), others, outer] : null
    return this.name(JSON.stringify([around, moments, content]))
  }
}

/** What files a piece shows. */
function pictureIn(piece: Piece, at: Moment): unknown {
  if (piece.kind === 'sequence') return [piece.sequence?.id, shownPictures(piece, at)]
  return piece.kind === 'picture' ? piece.picture : null
}

function contentOf({ piece, drawing, place }: FoundPiece): unknown {
  const now = drawing.list.at
  if (!isSeen(piece, now)) return null
  const at = stepped(now, piece.steps)
  const { moving } = textOf(piece)
  const words = piece.kind === 'type' ? wordingAt(piece, at) : null
  const values = moving.map(({ parameter, value }) => valueAt(parameter, value, at))
  // Copies within copies are left out beyond some: how many there are already is a part of the picture.
  const elsewhere = looksElsewhere(piece) ? [serialOf(drawing.card), drawing.copies] : null
  const restless = elsewhere !== null || isRestless(piece) ? at.frame : null
  const fitted = fittedOf(piece, at)
  const files = piece.kind === 'sequence' ? pictureIn(piece, at) : null
  return [
    drawing.contents.ofStill(piece),
    values,
    files,
    words,
    restless,
    elsewhere,
    fitted,
    others(drawing, piece, place),
  ]
}

/** What a piece is made of, and what it is seen within. */
function others(drawing: Drawing, piece: Piece, place: string): unknown {
  const { parent, at } = drawing.list
  const within = mattesOf(piece).map((id) => {
    const found = foundPiece(drawing, piece.id, id)
    // One in the same list stands as this one does.
    const stands = found && found.drawing.list.parent !== parent ? [parent, found.drawing.list.parent] : null
    return found && [stands, contentOf(found)]
  })
  const standing = holdsOthers(piece) ? standingOf(piece, parent, at) : null
  return [within, standing && heldPieces(drawing, standing, place).map(contentOf)]
}
