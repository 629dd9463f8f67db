import { linkFault } from '../card/links'
import { allPieces, pathTo } from '../card/tree'
import { Kept } from '../kept'
import { multiplied, stretchBy, turnBy } from '../outline/linear'
import { place as onCard, unplace } from '../outline/outline'
import { FIT_PARAMETERS } from '../pieces/fit'
import { spanOf } from '../outline/span'
import { PLACE_PARAMETERS } from '../pieces/place'
import { PIECE_KINDS } from '../pieces/table'
import type { Point, Rect } from '../units'
import { valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import type { Fitted } from './fitted'
import { formOf } from './form'
import { parentOf, shown } from './holders'
import { joined } from './grid-box'
import { heldPieces, holdsOthers } from './held-pieces'
import { namingPiece } from './naming'
import type { FoundPiece } from './other-piece'
import type { Drawing } from './piece'
import { standingOf } from './piece'

// Shapes whose size and place follow what other pieces span.

const MOST_KNOWN = 2000

/** Finds what fitting pieces of a card are at a moment, each once. */
export function fitter(drawing: () => Drawing): (id: string, at: Moment) => Fitted | null {
  const known = new Kept<string, Fitted | null>(MOST_KNOWN)
  return (id, at) => known.of(`${id} ${at.frame}`, () => fittedAt(drawing(), id, at))
}

function fittedAt(drawing: Drawing, id: string, at: Moment): Fitted | null {
  const { card } = drawing
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  const parent = piece && parentOf(card, id, at)
  if (!parent) return null
  const fit = valuesAt(FIT_PARAMETERS, piece, at)
  const into = (point: Point) => unplace(parent, point)
  const bounds = fit.fitTo
    .filter((to) => linkFault(card, id, to, 'bounds') === null)
    .map((to) => spanOfPiece(drawing, to, at, fit.fitBy, into))
    .reduce(joined, null)
  if (!bounds) return null
  const around = {
    left: bounds.left - fit.padLeft,
    right: Math.max(bounds.left - fit.padLeft, bounds.right + fit.padRight),
    top: bounds.top - fit.padTop,
    bottom: Math.max(bounds.top - fit.padTop, bounds.bottom + fit.padFoot),
  }
  const own = valuesAt(PLACE_PARAMETERS, piece, at)
  const form = valuesAt(PIECE_KINDS[piece.kind].parameters, piece, at) as Fitted
  const [sx, sy] = [Math.abs(own.scale * own.stretchX) / 1e4, Math.abs(own.scale * own.stretchY) / 1e4]
  if (sx === 0 || sy === 0) return null
  const width = fit.fitWidth ? (around.right - around.left) / sx : form.width!
  const height = fit.fitHeight ? (around.bottom - around.top) / sy : form.height!
  // Where its middle comes to stand, and so its anchor.
  const middle = {
    x: sideOf(fit.fitX === 'left' ? 0 : fit.fitX === 'right' ? 1 : 0.5, around.left, around.right, width * sx),
    y: sideOf(fit.fitY === 'top' ? 0 : fit.fitY === 'foot' ? 1 : 0.5, around.top, around.bottom, height * sy),
  }
  const turned = multiplied(
    turnBy(own.rotation),
    stretchBy(own.stretchX / 100, own.stretchY / 100, own.skew) ?? turnBy(0),
  )
  const share = own.scale / 100
  const anchor = {
    x: (turned.a * own.anchorX + turned.b * own.anchorY) * share,
    y: (turned.c * own.anchorX + turned.d * own.anchorY) * share,
  }
  return {
    ...(fit.fitWidth ? { width } : {}),
    ...(fit.fitHeight ? { height } : {}),
    ...(fit.fitX === 'free' ? {} : { x: middle.x + anchor.x }),
    ...(fit.fitY === 'free' ? {} : { y: middle.y + anchor.y }),
  }
}

/** The middle of something of a size whose side lies on that of a span; `side`: 0 its start, 1 its end. */
const sideOf = (side: number, from: number, to: number, size: number) => from + (to - from) * side + size * (0.5 - side)

/** What a piece spans in another space, into which points of the card are taken. */
function spanOfPiece(
  drawing: Drawing,
  id: string,
  at: Moment,
  by: 'lines' | 'ink',
  into: (point: Point) => Point,
): Rect | null {
  const { card, outlines } = drawing
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  const parent = piece && parentOf(card, id, at)
  if (!parent) return null
  const visit = ({ piece: one, drawing: here, place: path }: FoundPiece): Rect | null => {
    const standing = standingOf(shown(one), here.list.parent, here.list.at)
    if (!standing) return null
    if (holdsOthers(one)) return heldPieces(here, standing, path).map(visit).reduce(joined, null)
    const box = by === 'lines' && one.kind === 'type' ? outlines.words.lineBox(one, standing.at, path) : null
    if (box) {
      const corners = [box.left, box.right].flatMap((x) =>
        [box.top, box.bottom].map((y) => into(onCard(standing.placement, { x, y }))),
      )
      return spanOf([{ points: corners.flatMap(({ x, y }) => [x, y]) }])
    }
    const form = namingPiece(one, path, () => formOf(drawing, standing, path))
    if (!form) return null
    const points = new Array<number>(form.segments.length / 2)
    for (let i = 0; i < form.segments.length; i += 4) {
      const { x, y } = into({ x: form.segments[i]!, y: form.segments[i + 1]! })
      points[i / 2] = x
      points[i / 2 + 1] = y
    }
    return spanOf([{ points }])
  }
  const place = `pieces[${(pathTo(card.pieces, id) ?? []).join('].pieces[')}]`
  // What fits another piece runs by one clock with it.
  return visit({ piece, drawing: { ...drawing, list: { ...drawing.list, at, parent } }, place })
}
