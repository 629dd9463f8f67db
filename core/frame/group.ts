import { PIECE_KINDS } from '../pieces/table'
import type { GroupPiece, PaintingPiece, Piece, PicturePiece, SequencePiece, TwinPiece } from '../card/schema'
import { holdsPieces } from '../card/tree'
import type { Moment } from '../values/moment'
import type { CoatScale } from '../coats/definition'
import { even } from '../coats/definition'
import type { Placement } from '../outline/outline'
import { stretchKey } from '../outline/linear'
import { middleOf, place as onGrid } from '../outline/outline'
import type { Kernels, Plane } from '../kernels/kernels'
import type { Rect } from '../units'
import { AlphaTools } from './alpha-tools'
import { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { boxesFor, common, joined } from './grid-box'
import { heldPieces, holdsOthers } from './held-pieces'
import { laidCoats, measured, reachOf } from './laid-coats'
import { namingPiece } from './naming'
import { atMoment, exposedAt, within } from './open-list'
import { planFound } from './other-piece'
import { drawPainting } from './painting-piece'
import type { Drawing, Standing } from './piece'
import { formOf } from './form'
import { drawCoats, settingOf, spread, standingOf } from './piece'
import type { Exposures } from './shutter'
import { leavesShutter, moves, movesItself } from './shutter'
import type { LaidPicture } from './shelf'
import { isolatedMean, planIsolated } from './isolated'
import { drawPixels } from './pixels'
import { lengthIn } from './recipe-tools'

/** Pieces whose coats are computed from the alpha of what they hold. */
type AlphaPiece = GroupPiece | PaintingPiece | PicturePiece | SequencePiece | TwinPiece

/** How such a piece stands. */
export type AlphaStanding = Standing & { piece: AlphaPiece }

const isAlphaPiece = (piece: Piece): piece is AlphaPiece => PIECE_KINDS[piece.kind].coatsFrom === 'alpha'
const holdsPixels = (piece: Piece): piece is PaintingPiece | PicturePiece | SequencePiece =>
  PIECE_KINDS[piece.kind].holds === 'pixels'
export const standsByAlpha = (standing: Standing): standing is AlphaStanding => isAlphaPiece(standing.piece)

/**
 * How a group or picture stands at each exposure, if the mean of what it holds can be laid once in place of the mean of
 * what was laid: when it is laid as it is, its coats stay the same, and it has none or only moves under such as take the
 * mean; else null.
 */
export function meanStandings(
  drawing: Drawing,
  { moments, way, changes }: Exposures,
  standing: (at: Moment) => Standing | null,
  place: string,
): AlphaStanding[] | null {
  const all = moments.map((at) => standing(at)).filter((one) => one !== null && standsByAlpha(one))
  const [first] = all
  if (!first || all.length < moments.length || first.blend !== 'normal') return null
  const look = ({ piece, at, opacity, blend, placement }: AlphaStanding) =>
    JSON.stringify([
      ...[opacity, blend, placement.scale],
      laidCoats(piece, at).map(({ id, values, opacity, blend }) => [id, values, opacity, blend]),
    ])
  if (all.some((one) => look(one) !== look(first))) return null
  const coats = laidCoats(first.piece, first.at)
  if (coats.length === 0) return all
  // What fades takes its shadow with it.
  if (changes) return null
  const bounds = contentsOf(drawing, first, place)
  if (!bounds) return null
  const scale = groupScale(drawing, first, bounds, sideOf(inkOf(drawing, first, place)), () => 0)
  const upTo = Math.min(...coats.map(({ definition, values }) => definition.meanUpTo?.(values, scale) ?? 0))
  return way <= upTo ? all : null
}

/** Within a group. Where it leaves the shutter to its pieces, these are exposed along with all that moves the group. */
function entered(drawing: Drawing, standing: Standing, place: string): Drawing {
  const inside = within(drawing, standing, place)
  const { piece } = standing
  if (!drawing.shutter || !leavesShutter(piece)) return inside
  const { exposed } = drawing.list
  const open = (at: Moment) => {
    const outer = atMoment(drawing, at)
    const there = standingOf({ ...piece, on: true, span: null, opacity: 100 }, outer.list.parent, outer.list.at)
    return entered(outer, there ?? standing, place).list
  }
  const shutter = {
    at: exposedAt(drawing.list),
    open,
    moves: exposed?.moves === true || movesItself(piece),
    name: () => drawing.contents.around(drawing, piece),
  }
  return { ...inside, list: { ...inside.list, exposed: shutter } }
}

/** What the pieces of a group, or the pixels of a picture, can touch. */
function contentsOf(drawing: Drawing, standing: AlphaStanding, place: string): Rect | null {
  const group = standing.piece
  if ((group.kind === 'picture' && !group.picture) || (group.kind === 'sequence' && !group.sequence)) return null
  if (holdsPixels(group)) return formOf(drawing, standing, place)?.bounds ?? null
  if (holdsPieces(group)) return drawing.lists.touched(entered(drawing, standing, place), group.pieces)
  return heldPieces(drawing, standing, place)
    .map((shown) => planFound(shown).spans())
    .reduce(joined, null)
}

export function touchedByAlpha(drawing: Drawing, standing: AlphaStanding, place: string): Rect | null {
  const group = standing.piece
  const bounds = contentsOf(drawing, standing, place)
  if (!bounds) return null
  const reference = sideOf(inkOf(drawing, standing, place))
  const scale = groupScale(drawing, standing, bounds, reference, () => 0)
  return spread(bounds, reachOf(laidCoats(group, standing.at), scale))
}

/**
 * What the outlines of a group's pieces span before the group itself is turned and moved, around its place; enlarged
 * by its placement. Percent lengths and paints that hang on the group are measured by it.
 */
export function inkOf(drawing: Drawing, standing: Standing, place: string): Rect | null {
  const still: Placement = { scale: standing.placement.scale, rotation: 0, x: 0, y: 0 }
  return inkWithin(drawing, { ...standing, placement: still }, place)
}

/** What the outlines of a piece, or of all that it is made of, span where it stands. */
export function inkWithin(drawing: Drawing, standing: Standing, place: string): Rect | null {
  const { piece } = standing
  if (!holdsOthers(piece)) return namingPiece(piece, place, () => formOf(drawing, standing, place))?.bounds ?? null
  return heldPieces(drawing, standing, place)
    .map((one) => {
      const { parent, at } = one.drawing.list
      const inner = standingOf(one.piece, parent, at)
      return inner && inkWithin(one.drawing, inner, one.place)
    })
    .reduce<Rect | null>(joined, null)
}

/** What 100 % of a group stands for, in render pixels. */
export const sideOf = (ink: Rect | null): number => (ink ? Math.min(ink.right - ink.left, ink.bottom - ink.top) : 0)

function groupScale(
  drawing: Drawing,
  standing: Standing,
  bounds: Rect,
  reference: number,
  depth: () => number,
): CoatScale {
  const extent = { w: bounds.right - bounds.left, h: bounds.bottom - bounds.top }
  const px = lengthIn(standing.placement.scale, reference)
  return { px, light: drawing.light, innerDepth: depth, extent }
}

/**
 * Lays a group or a picture: what it holds is drawn on a canvas of its own, the coats are computed from that alpha, and
 * the whole is laid as one piece. Exposed more than once, it is the mean of what it holds. `spans`: what that can touch.
 */
export function drawFromAlpha(
  drawing: Drawing,
  exposed: readonly AlphaStanding[],
  canvas: Canvas,
  place: string,
  spans: () => Rect | null = () => exposed.map((one) => contentsOf(drawing, one, place)).reduce(joined),
): void {
  const bounds = spans()
  if (!bounds) return
  const standing = exposed[exposed.length >> 1]!
  const group = standing.piece
  const { kernels, shelf, finished } = drawing
  const coats = laidCoats(group, standing.at)
  const mark = kernels.mark()
  let depth: number | null = null
  const ink = inkOf(drawing, standing, place) ?? bounds
  const reference = sideOf(ink)
  const scale = groupScale(drawing, standing, bounds, reference, () => (depth ??= deepest(kernels, alpha)))
  const reach = reachOf(coats, scale)
  const washed = holdsPieces(group)
    ? exposed.map((one) => drawing.lists.looks(entered(drawing, one, place), group.pieces))
    : [0]
  const margin = Math.max(reach.left, reach.top, reach.right, reach.bottom, ...washed)
  const plan = planIsolated(heldName(drawing, exposed), bounds, even(2), margin, canvas, drawing.world)
  if (!plan) return
  const { box, name } = plan
  let held: LaidPicture | null = null
  const drawn = () =>
    (held ??= isolatedMean(drawing, plan, exposed, (one, inner) => drawContents(drawing, one, inner, place)))
  const alpha = shelf.of(`${name} alpha`, () => kernels.alpha(drawn()))
  const whole = finished.of(`${name} whole`, () => {
    kernels.makeWhole(drawn())
    return drawn()
  })
  // Distances are wanted as far as the coats measure, beyond what the canvas must hold.
  const reached = measured(coats, scale)
  const far = boxesFor(bounds, even(2 + reached), margin, canvas.box, drawing.world)?.box ?? box
  let near: Plane | null = null
  const distance = () =>
    (near ??= shelf.of(`${name} distance ${far.x} ${far.y} ${far.w} ${far.h} ${reached}`, () =>
      kernels.fieldDistance(kernels.cropped(alpha, far.x - box.x, far.y - box.y, far.w, far.h), reached),
    ))
  const unscaled = { ...standing.placement, scale: 1 }
  const middle = onGrid(unscaled, middleOf(ink))
  const form = { alpha, box, distance, far, reach: reached, middle }
  const setting = settingOf(drawing, standing, { key: name!, reference, scale })
  const picture = new Canvas(kernels, whole, box)
  drawCoats({
    ...{ drawing, standing, canvas, coats, scale, bounds },
    hook: {
      bounds: ink,
      unit: standing.placement.scale,
      placement: unscaled,
    },
    tools: (window, seed) => new AlphaTools(setting, window, seed, form),
    contents: (seen) => ({
      ...{
        group: 'face',
        rank: 0,
        where: 'inside',
        box: seen,
        mask: null,
        along: null,
        opacity: 1,
        blend: 'normal',
        over: [],
      },
      paint: { sample: (window: GridBox) => picture.window(common(window, box)) },
    }),
  })
  kernels.release(mark)
}

function drawContents(drawing: Drawing, standing: AlphaStanding, canvas: Canvas, place: string): void {
  const { piece } = standing
  if (piece.kind === 'painting') drawPainting(drawing, standing, piece, canvas, place)
  else if (holdsPixels(piece)) drawPixels(drawing, standing, piece, canvas, place)
  else if (!holdsPieces(piece)) for (const shown of heldPieces(drawing, standing, place)) planFound(shown).lay(canvas)
  else drawing.lists.lay(entered(drawing, standing, place), piece.pieces, canvas)
}

/** Names what a piece holds, as it stands: its coats may be others. */
function heldName({ contents, ...drawing }: Drawing, exposed: readonly AlphaStanding[]): string {
  const names = exposed.map((one) => {
    const { x, y, rotation, scale, stretch } = one.placement
    const held = contents.held(
      { contents, ...drawing },
      one,
      drawing.shutter !== null && (drawing.list.exposed?.moves === true || moves(drawing.card, one.piece)),
    )
    return `${held} ${x} ${y} ${rotation} ${scale}${stretchKey(stretch)}`
  })
  return contents.name(names.join())
}

/** The largest distance inside what a plane of alpha shows. */
function deepest(kernels: Kernels, alpha: Plane): number {
  const mark = kernels.mark()
  let least = 0
  for (const d of kernels.floats(kernels.fieldDistance(alpha))) if (d < least && d > -1e5) least = d
  kernels.release(mark)
  return -least
}
