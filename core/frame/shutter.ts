import { listPieceParameters } from '../card/addresses'
import { isMoving } from '../values/moving'
import { mattesOf, shownFrom } from '../card/links'
import type { Card, Piece } from '../card/schema'
import { valueAt } from '../values/evaluated'
import { allPieces, holdsPieces } from '../card/tree'
import { within } from '../outline/outline'
import { even } from '../coats/definition'
import type { Trace } from './trace'
import { longestWay, placedBounds } from './trace'
import type { Moment } from '../values/moment'
import { openAt } from '../values/moment'
import type { Px, Rect } from '../units'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { common, joined } from './grid-box'
import { namingPiece } from './naming'
import { heldPieces, holdsOthers } from './held-pieces'
import { atMoment, exposedAt } from './open-list'
import type { FoundPiece } from './other-piece'
import type { FormedPiece } from './outlines'
import type { Drawing, Standing } from './piece'
import { finenessOf, formOf } from './form'
import { leansOnPlaces } from './laid-finishes'
import { spread, standingOf } from './piece'
import { maskTraces, matteSources } from './placed-masks'
import { stepsWay } from './steps-way'

// Motion blur: what the canvas is after a piece was laid, averaged over the time that the shutter is open. Each piece is
// exposed by itself, with all that it holds; what lies below it stands still meanwhile.

/** When the shutter opens, from the frame on, and for how long: 360° is a whole frame. */
export interface Shutter {
  angle: number
  phase: number
}

/** Moments at which a piece's way is measured. */
const PROBES = 5
/**
 * Exposures for a way in pixels. Edges are a pixel soft, so exposures a pixel apart add up to a ramp; on a short way they
 * lie closer, because what two of them miss of the ramp grows with the square of their distance over the way.
 */
const exposuresFor = (way: number) => Math.ceil(Math.max(way, 5.7 * Math.sqrt(way)))
/** Pixels of a way for which the middle of it stands, within 1.5 of 255: the end of a swing that dies away. */
const UNSEEN = 1 / 24
/** What moves at all is exposed twice at least; what changes in place, such as an opacity, is averaged over so many. */
const MOVING = 2
const IN_PLACE = 4
const MOST = 96
const MOST_IN_DRAFT = 5
/** Exposures of all the pictures at other frames together that one picture asks for: copies of copies get fewer each. */
const MOST_EXPOSED = 512

/** Exposures of one piece in one of so many pictures. */
export const mostExposures = (copies: number): number =>
  Math.max(MOVING, Math.min(MOST, Math.floor(MOST_EXPOSED / copies)))

/** How a piece is exposed. */
export interface Exposures {
  /** The frame itself where nothing of the piece moves while the shutter is open. */
  moments: readonly Moment[]
  /** The longest way that anything of it goes meanwhile. */
  way: Px
  /** Whether more of it than its place changes meanwhile. */
  changes: boolean
}

/** How a piece is exposed; `touched` is what it can touch at a moment. */
export function exposuresOf(
  drawing: Drawing,
  piece: Piece,
  place: string,
  touched: (at: Moment) => Rect | null,
): Exposures {
  const { shutter, draft, copies, list } = drawing
  const at = exposedAt(list)
  const isMoved = list.exposed?.moves === true || moves(drawing.card, piece)
  if (!shutter || !piece.blurred || piece.steps > 1 || passesShutter(piece) || !isMoved)
    return { moments: [at], way: 0, changes: false }
  const open = (share: number) => openAt(at, at.frame + (shutter.phase + shutter.angle * share) / 360)
  const probes = Array.from({ length: PROBES }, (_, i) => open(i / (PROBES - 1)))
  // Whether it is seen is a matter of the frame, not of the shutter.
  const whole = { ...piece, on: true, span: null }
  const through = probes.map((moment) => ({ piece: whole, drawing: atMoment(drawing, moment), place }))
  const traces = through.map(tracesOf)
  const middle = PROBES >> 1
  const placed = longestWay(traces, () => seenWindow(drawing, traces[middle]!, touched(probes[middle]!)))
  const way = placed + stepsWay(through)
  const changes = valuesOf(through[0]!) !== valuesOf(through.at(-1)!)
  if (!changes && way === 0) return { moments: [at], way, changes }
  if (!changes && way <= UNSEEN) return { moments: [open(0.5)], way, changes }
  const most = mostExposures(copies)
  const count = Math.min(draft ? MOST_IN_DRAFT : most, Math.max(changes ? IN_PLACE : MOVING, exposuresFor(way)))
  return { moments: Array.from({ length: count }, (_, i) => open((i + 0.5) / count)), way, changes }
}

const moving = new WeakMap<Piece, boolean>()

/** Whether anything of a piece, of what it holds, or of what it shows or is seen within ever moves. */
export const moves = (card: Card, piece: Piece): boolean =>
  allPieces([piece]).some(movesItself) || shownFrom(card, piece).some(movesItself)

/**
 * Whether a piece leaves the shutter to what it is made of: a twin that stands still shows the other piece as that one is laid
 * itself.
 */
export const passesShutter = (piece: Piece): boolean =>
  piece.kind === 'twin' &&
  piece.blurred &&
  piece.clock === 'around' &&
  mattesOf(piece).length === 0 &&
  !movesItself(piece)

const leaving = new WeakMap<Piece, boolean>()

/**
 * Whether a group leaves the shutter to its pieces, so that to group them changes nothing: the mean over the shutter comes before their
 * finishes, and those are the group's own matter no more. One with coats or masks of its own is exposed as a whole.
 */
export function leavesShutter(piece: Piece): boolean {
  let leaves = leaving.get(piece)
  if (leaves === undefined) {
    const { coats, masks, blurred, steps } = piece
    const isBare = coats.face.length + coats.behind.length + masks.length === 0
    leaves =
      blurred &&
      steps === 1 &&
      isBare &&
      holdsPieces(piece) &&
      allPieces(piece.pieces).some(({ finishes, weave }) => finishes.length > 0 || weave !== null)
    leaving.set(piece, leaves)
  }
  return leaves
}

export function movesItself(piece: Piece): boolean {
  let is = moving.get(piece)
  if (is === undefined) {
    // What fits others may move with them.
    is = leansOnPlaces(piece) || listPieceParameters(piece).some(({ value }) => isMoving(value))
    moving.set(piece, is)
  }
  return is
}

/** Values that only move a piece, which its corners tell of; and whether it is there, which is a matter of the frame. */
const PLACE = ['x', 'y', 'rotation', 'scale', 'stretchX', 'stretchY', 'skew', 'anchorX', 'anchorY', 'on']
const isPlace = (address: string) => PLACE.includes(address.slice(address.indexOf('/') + 1))

/** All other moving values of a piece, and of what it holds or is held by, as one text. */
function valuesOf({ piece, drawing, place }: FoundPiece): string {
  const { at, parent } = drawing.list
  const own = listPieceParameters(piece)
    .filter(({ address, value }) => isMoving(value) && !isPlace(address))
    .map(({ parameter, value }) => valueAt(parameter, value, at))
  const standing = standingOf({ ...piece, on: true, span: null, opacity: 100 }, parent, at)
  const others = standing ? [...heldPieces(drawing, standing, place), ...matteSources(drawing, piece, at)] : []
  return JSON.stringify(own) + others.map(valuesOf).join()
}

/** The traces of all outlines of a piece, in the same order at every moment; null for what is not there. */
function tracesOf({ piece, drawing, place }: FoundPiece): (Trace | null)[] {
  const { at, parent } = drawing.list
  const standing = standingOf(piece, parent, at)
  const nowhere = () => (holdsPieces(piece) ? piece.pieces : [piece]).map(() => null)
  const own = standing ? ownTraces(drawing, standing, place) : nowhere()
  return [...own, ...maskTraces(drawing, piece, standing, place), ...matteSources(drawing, piece, at).flatMap(tracesOf)]
}

/** Without those of its masks. */
function ownTraces(drawing: Drawing, standing: Standing, path: string): (Trace | null)[] {
  if (holdsOthers(standing.piece)) return heldPieces(drawing, standing, path).flatMap(tracesOf)
  const letters = letterTraces(drawing, standing, path)
  if (letters) return letters
  const form = formOf(drawing, standing, path)
  return [form ? { outline: form.outline, placement: form.placement } : null]
}

/** The traces of the letters that letter motion moves; null where it moves none. Clear ones count as well. */
function letterTraces({ outlines }: Drawing, { piece, at, placement }: Standing, path: string): Trace[] | null {
  const letters = namingPiece(piece, path, () =>
    outlines.letters(piece as FormedPiece, at, finenessOf(placement), path),
  )
  return (
    letters?.map(({ outline, enlarge, moved, origin }) => {
      const state = within({ ...placement, scale: placement.scale * enlarge }, moved)
      return { outline, placement: within(state, origin) }
    }) ?? null
  )
}

/** Where of the render grid a way is seen: on the frame, and as far around it as coats reach into it. */
function seenWindow({ card, scale }: Drawing, traces: readonly (Trace | null)[], touched: Rect | null): Rect {
  const ink = traces.map((trace) => trace && placedBounds(trace)).reduce(joined, null)
  const reach =
    ink && touched
      ? Math.max(ink.left - touched.left, ink.top - touched.top, touched.right - ink.right, touched.bottom - ink.bottom)
      : 0
  const frame = { left: 0, top: 0, right: card.frame.width * scale, bottom: card.frame.height * scale }
  return spread(frame, even(Math.max(0, reach)))
}

/** Lays a piece once for each exposure and leaves the mean of what comes out. `touched` is what it can touch then. */
export function layExposed(
  { kernels }: Drawing,
  canvas: Canvas,
  exposures: readonly Moment[],
  touched: (at: Moment) => Rect | null,
  lay: (at: Moment) => void,
): void {
  const boxes = exposures.map((at) => touched(at))
  const all = boxes.reduce(joined, null)
  const box = all && common(outward(all), canvas.box)
  if (!box || box.w <= 0 || box.h <= 0) return
  const mark = kernels.mark()
  const before = kernels.layers(box.w, box.h, false)
  const sum = kernels.layers(box.w, box.h)
  kernels.copy(canvas.window(box), before)
  for (const [i, at] of exposures.entries()) {
    lay(at)
    kernels.addTo(canvas.window(box), sum)
    // The canvas is what it was again; only there was it changed.
    const part = boxes[i] && common(outward(boxes[i]), box)
    if (!part || part.w <= 0 || part.h <= 0) continue
    kernels.copy(kernels.window(before, part.x - box.x, part.y - box.y, part.w, part.h), canvas.window(part))
  }
  kernels.mean(sum, exposures.length, canvas.window(box))
  canvas.touch(box)
  kernels.release(mark)
}

/** Whole pixels around bounds; x and width are multiples of 4, as the canvas asks. */
function outward({ left, top, right, bottom }: Rect): GridBox {
  const x = Math.floor(left / 4) * 4
  const y = Math.floor(top)
  return { x, y, w: Math.ceil((right - x) / 4) * 4, h: Math.ceil(bottom) - y }
}
