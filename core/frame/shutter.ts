import { listPieceParameters } from '../card/addresses'
import { isMoving } from '../values/moving'
import type { Piece } from '../card/schema'
import { valueAt } from '../values/evaluated'
import { piecesIn } from '../card/tree'
import { PIECE_KINDS } from '../pieces/table'
import type { Placement } from '../outline/outline'
import { place as placed, within } from '../outline/outline'
import type { Moment } from '../values/moment'
import { insideOf } from '../time/clock'
import { movedTo } from '../values/moment'
import type { Point, Rect } from '../units'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { common, joined } from './grid-box'
import type { FormedPiece } from './outlines'
import type { Drawing, Standing } from './piece'
import { formOf } from './form'
import { standingOf } from './piece'

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
const exposuresFor = (way: number) => Math.ceil(Math.max(way, 6 * Math.sqrt(way)))
/** Pixels of a way that nobody sees: the end of a swing that dies away. */
const UNSEEN = 1 / 16
/** What changes in place, such as an opacity, is averaged over so many. */
const IN_PLACE = 4
const MOST = 96
const MOST_IN_DRAFT = 5

/** How a piece is exposed: the moments, one where nothing of it moves while the shutter is open. */
export function exposuresOf(drawing: Drawing, piece: Piece, parent: Placement, at: Moment, place: string): Moment[] {
  const { shutter, draft } = drawing
  if (!shutter || !piece.blurred || piece.steps > 1 || !moves(piece)) return [at]
  const open = (share: number) => movedTo(at, at.frame + (shutter.phase + shutter.angle * share) / 360)
  const probes = Array.from({ length: PROBES }, (_, i) => open(i / (PROBES - 1)))
  // Whether it is seen is a matter of the frame, not of the shutter.
  const ways = probes.map((moment) => cornersOf(drawing, { ...piece, on: true, span: null }, parent, moment, place))
  const way = longest(ways)
  const changes = way > UNSEEN || valuesAt(piece, probes[0]!) !== valuesAt(piece, probes.at(-1)!)
  if (!changes) return [at]
  const count = Math.min(draft ? MOST_IN_DRAFT : MOST, Math.max(IN_PLACE, exposuresFor(way)))
  return Array.from({ length: count }, (_, i) => open((i + 0.5) / count))
}

const moving = new WeakMap<Piece, boolean>()

/** Whether anything of a piece, or of what it holds, ever moves. */
export function moves(piece: Piece): boolean {
  let is = moving.get(piece)
  if (is === undefined) {
    is = listPieceParameters(piece).some(({ value }) => isMoving(value)) || piecesIn(piece).some(moves)
    moving.set(piece, is)
  }
  return is
}

/** Values that only move a piece, which its corners tell of; and whether it is there, which is a matter of the frame. */
const PLACE = ['x', 'y', 'rotation', 'scale', 'anchorX', 'anchorY', 'on']
const isPlace = (address: string) => PLACE.includes(address.slice(address.indexOf('/') + 1))

/** All other moving values of a piece and what it holds, as one text. */
function valuesAt(piece: Piece, at: Moment): string {
  const own = listPieceParameters(piece)
    .filter(({ address, value }) => isMoving(value) && !isPlace(address))
    .map(({ parameter, value }) => valueAt(parameter, value, at))
  const inside = insideOf(piece, at)
  return (
    JSON.stringify(own) +
    piecesIn(piece)
      .map((inner) => valuesAt(inner, inside))
      .join()
  )
}

/** The corners of all outlines of a piece on the render grid; null for what is not there. */
function cornersOf(drawing: Drawing, piece: Piece, parent: Placement, at: Moment, path: string): (Point | null)[] {
  const standing = standingOf(piece, parent, at)
  if (PIECE_KINDS[piece.kind].holds === 'pieces') {
    return piecesIn(piece).flatMap((inner, i) =>
      standing
        ? cornersOf(drawing, inner, standing.placement, insideOf(piece, standing.at), `${path}.pieces[${i}]`)
        : [null],
    )
  }
  const letters = standing && letterCorners(drawing, standing, path)
  if (letters) return letters
  const form = standing && formOf(drawing, standing, path)
  if (!form) return [null, null, null, null]
  return cornersAt(form.hook.bounds, form.hook.placement)
}

const cornersAt = ({ left, top, right, bottom }: Rect, placement: Placement): Point[] => [
  placed(placement, { x: left, y: top }),
  placed(placement, { x: right, y: top }),
  placed(placement, { x: right, y: bottom }),
  placed(placement, { x: left, y: bottom }),
]

/** The corners of each letter that letter motion moves; null where it moves none. Clear ones count as well. */
function letterCorners({ outlines }: Drawing, { piece, at, placement }: Standing, path: string): Point[] | null {
  const letters = outlines.letters(piece as FormedPiece, at, placement.scale, path)
  return (
    letters?.flatMap(({ outline, enlarge, moved, origin }) => {
      const state = within({ ...placement, scale: placement.scale * enlarge }, moved)
      return outline.bounds ? cornersAt(outline.bounds, within(state, { scale: 1, rotation: 0, ...origin })) : []
    }) ?? null
  )
}

/** The longest way that a corner goes. */
function longest(ways: readonly (readonly (Point | null)[])[]): number {
  const corners = Math.max(...ways.map(({ length }) => length))
  return Array.from({ length: corners }).reduce<number>((most, _, corner) => {
    let way = 0
    for (let k = 1; k < ways.length; k++) {
      const [a, b] = [ways[k - 1]![corner], ways[k]![corner]]
      if (a && b) way += Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2)
    }
    return Math.max(most, way)
  }, 0)
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
  const all = boxes.reduce((bounds, here) => (here && bounds ? joined(bounds, here) : (here ?? bounds)), null)
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
