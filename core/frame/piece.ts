import { PLACE_PARAMETERS } from '../card/pieces'
import type { Card, Piece } from '../card/schema'
import type { Moment } from '../time/moment'
import { stepped } from '../time/moment'
import { settleAll } from '../card/settled'
import type { CoatScale, Insets, Layer, Light } from '../coats/definition'
import { even } from '../coats/definition'
import type { Placement } from '../outline/outline'
import { placed, within } from '../outline/outline'
import { innerDepth } from '../outline/inner-depth'
import type { Outline } from '../outline/outline'
import type { BlendMode } from '../paint/blend-modes'
import type { Point, Px, Rect } from '../units'
import type { Canvas } from './canvas'
import type { PreparedLayer, PreparedPainting } from './compose'
import { compose } from './compose'
import { EdgeField } from './edge-field'
import type { GridBox } from './grid-box'
import { boxesFor } from './grid-box'
import type { LaidCoat } from './laid-coats'
import { fieldReach, laidCoats, measured, reachOf, seedOf } from './laid-coats'
import { OutlineBench } from './outline-bench'
import type { FormedPiece, Outlines } from './outlines'
import type { Shutter } from './shutter'
import type { PlaneShelf } from './plane-shelf'
import type { Hook, Palette } from './prepared-paint'
import { preparePaint } from './prepared-paint'
import type { BenchSetting, RecipeBench } from './recipe-bench'
import { lengthIn } from './recipe-bench'

/** What drawing needs from the engine. */
export interface Drawing extends Palette {
  outlines: Outlines
  shelf: PlaneShelf
  card: Card
  at: Moment
  light: Light
  /** See View.draft. */
  draft: boolean
  /** Open while a piece is exposed; null for none, and for what a group holds, which is exposed with it. */
  shutter: Shutter | null
}

/** How a piece stands on the render grid at a moment. */
export interface Standing {
  piece: Piece
  /** When it is: its picture may be held for some frames. */
  at: Moment
  /** From the piece's own space to the render grid. */
  placement: Placement
  /** Where its anchor stands on the render grid. */
  anchor: Point
  opacity: number
  blend: BlendMode
}

/** Whether a moment lies in the piece's span. */
export const isSeen = ({ span }: Piece, { frame }: Moment) => !span || (frame >= span.in && frame < span.out)

/** Null for a piece that is off, not seen at this frame, clear, or scaled to nothing. */
export function standingOf(piece: Piece, parent: Placement, now: Moment): Standing | null {
  if (!piece.on || !isSeen(piece, now)) return null
  const at = stepped(now, piece.steps)
  const { x, y, anchorX, anchorY, rotation, scale, opacity, blend } = settleAll(PLACE_PARAMETERS, piece as never, at)
  if (opacity <= 0 || scale <= 0) return null
  const anchor = within(parent, { x, y, rotation, scale: scale / 100 })
  const placement = within(anchor, { x: -anchorX, y: -anchorY, rotation: 0, scale: 1 })
  return { piece, at, placement, anchor: { x: anchor.x, y: anchor.y }, opacity: opacity / 100, blend }
}

const depths = new WeakMap<Outline, number>()

/** The largest inside distance of an outline in its own units; found once. */
export function innerDepthOf(outline: Outline): number {
  let depth = depths.get(outline)
  if (depth === undefined) {
    depth = innerDepth(outline)
    depths.set(outline, depth)
  }
  return depth
}

/** A piece's outline on the render grid, with what its coats need to know of it. */
export function formOf({ outlines, light }: Drawing, { piece, at, placement }: Standing, place: string) {
  const { outline, enlarge } = outlines.of(piece as FormedPiece, at, placement.scale, place)
  if (!outline.bounds) return null
  const full: Placement = { ...placement, scale: placement.scale * enlarge }
  const { segments, bounds } = placed(outline, full)
  const reference = outline.reference * full.scale
  const scale: CoatScale = {
    px: lengthIn(placement.scale, reference),
    light,
    innerDepth: () => innerDepthOf(outline) * full.scale,
    extent: { w: bounds.right - bounds.left, h: bounds.bottom - bounds.top },
  }
  const hook: Hook = { bounds: outline.bounds, unit: 1 / enlarge, placement: full }
  const key = `${outline.key} ${full.scale} ${full.rotation} ${full.x} ${full.y}`
  return { outline, segments, bounds, reference, scale, hook, key }
}

/** Where a piece can touch the render grid; null for nothing. */
export function touchedBy(drawing: Drawing, standing: Standing, place: string): Rect | null {
  const form = formOf(drawing, standing, place)
  if (!form) return null
  return spread(form.bounds, reachOf(laidCoats(standing.piece, standing.at), form.scale))
}

export const spread = (bounds: Rect, reach: Insets): Rect => ({
  left: bounds.left - reach.left,
  top: bounds.top - reach.top,
  right: bounds.right + reach.right,
  bottom: bounds.bottom + reach.bottom,
})

/** Lays one piece that has an outline on the canvas. */
export function drawFormed(drawing: Drawing, standing: Standing, canvas: Canvas, place: string): void {
  const form = formOf(drawing, standing, place)
  if (!form) return
  const { kernels, shelf } = drawing
  const coats = laidCoats(standing.piece, standing.at)
  const mark = kernels.mark()
  const setting = settingOf(drawing, standing, form)
  const reach = measured(coats, form.scale)
  // Coats blur what they made from distances: the field goes as far beyond the canvas as any of them looks.
  const around = reachOf(coats, form.scale)
  const margin = Math.max(reach, around.left, around.top, around.right, around.bottom)
  const fieldBox = reach > 0 ? boxesFor(form.bounds, fieldReach(coats, form.scale), margin, canvas.box)?.box : null
  const field = new EdgeField(
    kernels,
    shelf,
    form,
    fieldBox ?? NOWHERE,
    reach,
    coats.some(({ definition }) => definition.showsEdges),
  )
  const bench = (box: GridBox, seed: () => number) => new OutlineBench(setting, box, seed, form, field)
  drawCoats({ drawing, standing, canvas, coats, scale: form.scale, bounds: form.bounds, hook: form.hook, bench })
  kernels.release(mark)
}

export function settingOf(
  { kernels, shelf, draft }: Drawing,
  { placement }: Standing,
  { key, reference, scale }: { key: string; reference: Px; scale: CoatScale },
): BenchSetting {
  const { light, innerDepth, extent } = scale
  return { kernels, shelf, draft, key, scale: placement.scale, reference, light, innerDepth, extent }
}

interface CoatWork {
  drawing: Drawing
  standing: Standing
  canvas: Canvas
  coats: readonly LaidCoat[]
  scale: CoatScale
  bounds: Rect
  hook: Hook
  bench(box: GridBox, seed: () => number): RecipeBench
  /** What lies under the face's own coats: the contents of a group. Covers the ink's box. */
  contents?: (ink: GridBox) => PreparedLayer
}

const NOWHERE: GridBox = { x: 0, y: 0, w: 0, h: 0 }

/** Computes all coats of a form, each in the box that it can touch, and lays them. */
export function drawCoats(work: CoatWork): void {
  const { drawing, standing, canvas, coats, scale, bounds } = work
  const benches = new Map<string, RecipeBench>()
  const ink = boxesFor(bounds, even(1), 0, canvas.box)?.visible ?? NOWHERE
  const inked = ink.w > 0 && ink.h > 0
  let seed = 0
  const benchIn = (box: GridBox) => {
    const name = `${box.x} ${box.y} ${box.w} ${box.h}`
    const found = benches.get(name) ?? work.bench(box, () => seed)
    benches.set(name, found)
    return found
  }

  // Coats with the same box share their planes.
  const prepare = (coat: LaidCoat): PreparedLayer[] => {
    const reach = coat.definition.reach(coat.values, scale, coat.place)
    const boxes = boxesFor(bounds, reach, Math.max(reach.left, reach.top, reach.right, reach.bottom), canvas.box)
    if (!boxes) return []
    const bench = benchIn(boxes.box)
    seed = seedOf(drawing.card, coat)
    return coat.definition.layers(coat.values, bench, coat.place).flatMap((layer): PreparedLayer[] => {
      const box = layer.where === 'inside' ? ink : boxes.visible
      if (box.w <= 0 || box.h <= 0) return []
      canvas.touch(box)
      const painting = (part: Omit<Layer, 'where' | 'over'>, whole: number, blend: BlendMode): PreparedPainting => ({
        mask: part.mask && bench.plane(bench.cropped(part.mask, box)),
        along: part.along && part.paint.type === 'edge' ? bench.plane(bench.cropped(part.along, box)) : null,
        paint: preparePaint(drawing, part.paint, work.hook, coat.address),
        opacity: whole * (part.opacity ?? 1),
        blend: part.blend ?? blend,
      })
      return [
        {
          ...painting(layer, coat.opacity, coat.blend),
          group: coat.group,
          where: layer.where,
          box,
          over: (layer.over ?? []).map((part) => painting(part, 1, 'normal')),
        },
      ]
    })
  }
  const behind = coats.filter(({ group }) => group === 'behind').flatMap(prepare)
  const face = coats.filter(({ group }) => group === 'face').flatMap(prepare)
  const contents = work.contents && inked ? [work.contents(ink)] : []
  if (contents.length > 0) canvas.touch(ink)
  const layers = [...behind, ...contents, ...face]
  if (layers.length === 0) return
  const inkBench = benchIn(ink)
  const coverage = inked ? inkBench.plane(inkBench.coverage()) : drawing.kernels.plane(0, 0)
  compose(drawing.kernels, canvas, { layers, coverage, ink, blend: standing.blend, opacity: standing.opacity })
}
