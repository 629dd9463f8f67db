import type { GroupPiece, Piece } from '../card/schema'
import type { CoatScale } from '../coats/definition'
import { even } from '../coats/definition'
import type { Placement } from '../outline/outline'
import type { Plane } from '../kernels/kernels'
import type { Rect } from '../units'
import { AlphaBench } from './alpha-bench'
import { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { boxesFor, common, joined } from './grid-box'
import { laidCoats, reachOf } from './laid-coats'
import type { Drawing, Standing } from './piece'
import { drawCoats, drawFormed, formOf, settingOf, spread, standingOf, touchedBy } from './piece'
import { lengthIn } from './recipe-bench'

/** Draws pieces back to front; `parent` is where their places count from. */
export function drawPieces(
  drawing: Drawing,
  pieces: readonly Piece[],
  parent: Placement,
  canvas: Canvas,
  path: string,
): void {
  for (let i = pieces.length - 1; i >= 0; i--) {
    const standing = standingOf(pieces[i]!, parent, drawing.at)
    if (!standing) continue
    const place = `${path}[${i}]`
    if (standing.piece.kind === 'group') drawGroup(drawing, standing, standing.piece, canvas, place)
    else drawFormed(drawing, standing, canvas, place)
  }
}

/** What the pieces of a group can touch. */
function contentsOf(drawing: Drawing, standing: Standing, group: GroupPiece, place: string): Rect | null {
  let all: Rect | null = null
  group.pieces.forEach((piece, i) => {
    const inner = standingOf(piece, standing.placement, drawing.at)
    if (!inner) return
    const here = `${place}.pieces[${i}]`
    const touched =
      inner.piece.kind === 'group' ? touchedByGroup(drawing, inner, inner.piece, here) : touchedBy(drawing, inner, here)
    if (touched) all = all ? joined(all, touched) : touched
  })
  return all
}

function touchedByGroup(drawing: Drawing, standing: Standing, group: GroupPiece, place: string): Rect | null {
  const bounds = contentsOf(drawing, standing, group, place)
  if (!bounds) return null
  const reference = sideOf(inkOf(drawing, standing, group, place))
  const scale = groupScale(drawing, standing, bounds, reference, () => 0)
  return spread(bounds, reachOf(laidCoats(group, drawing.at), scale))
}

/**
 * What the outlines of a group's pieces span before the group itself is turned and moved, around its place; enlarged
 * by its placement. Percent lengths and paints that hang on the group are measured by it.
 */
export function inkOf(drawing: Drawing, standing: Standing, group: GroupPiece, place: string): Rect | null {
  const still: Placement = { scale: standing.placement.scale, rotation: 0, x: 0, y: 0 }
  const visit = (pieces: readonly Piece[], parent: Placement, path: string): Rect | null => {
    let all: Rect | null = null
    pieces.forEach((piece, i) => {
      const inner = standingOf(piece, parent, drawing.at)
      if (!inner) return
      const here = `${path}[${i}]`
      const found =
        inner.piece.kind === 'group'
          ? visit(inner.piece.pieces, inner.placement, `${here}.pieces`)
          : (formOf(drawing, inner, here)?.bounds ?? null)
      if (found) all = all ? joined(all, found) : found
    })
    return all
  }
  return visit(group.pieces, still, `${place}.pieces`)
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
 * Lays a group: its pieces are drawn on a canvas of their own, the coats are computed from its alpha, and the whole is
 * laid as one piece.
 */
function drawGroup(drawing: Drawing, standing: Standing, group: GroupPiece, canvas: Canvas, place: string): void {
  const bounds = contentsOf(drawing, standing, group, place)
  if (!bounds) return
  const { kernels } = drawing
  const coats = laidCoats(group, drawing.at)
  const mark = kernels.mark()
  let depth: number | null = null
  const ink = inkOf(drawing, standing, group, place) ?? bounds
  const reference = sideOf(ink)
  const scale = groupScale(drawing, standing, bounds, reference, () => (depth ??= deepest(kernels.floats(distance()))))
  const reach = reachOf(coats, scale)
  const margin = Math.max(reach.left, reach.top, reach.right, reach.bottom)
  const box = boxesFor(bounds, even(2), margin, canvas.box)?.box
  if (!box) return
  const inner = new Canvas(kernels, kernels.layers(box.w, box.h), box)
  drawPieces(drawing, group.pieces, standing.placement, inner, `${place}.pieces`)
  const alpha = kernels.alpha(inner.layers)
  kernels.makeWhole(inner.layers)
  let measured: Plane | null = null
  const distance = () => (measured ??= kernels.fieldDistance(alpha))
  const middle = { x: (bounds.left + bounds.right) / 2, y: (bounds.top + bounds.bottom) / 2 }
  const form = { alpha, box, distance, middle }
  // What the pieces drew is not named by any key: nothing of it is kept.
  const key = `group ${serial++}`
  const setting = settingOf(drawing, standing, { key, reference, scale })
  drawCoats({
    ...{ drawing, standing, canvas, coats, scale, bounds },
    hook: {
      bounds: ink,
      unit: standing.placement.scale,
      placement: { ...standing.placement, scale: 1 },
    },
    bench: (window, seed) => new AlphaBench(setting, window, seed, form),
    contents: (seen) => ({
      ...{ group: 'face', where: 'inside', box: seen, mask: null, along: null, opacity: 1, blend: 'normal', over: [] },
      paint: { sample: (window: GridBox) => inner.window(common(window, box)) },
    }),
  })
  kernels.release(mark)
}

let serial = 0

function deepest(distance: Float32Array): number {
  let least = 0
  for (const d of distance) if (d < least && d > -1e5) least = d
  return -least
}
