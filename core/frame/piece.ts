import { PLACE_PARAMETERS } from '../card/pieces'
import type { Card, Coat, Piece } from '../card/schema'
import type { Moment } from '../card/settled'
import { settleAll, settleNumber } from '../card/settled'
import type { CoatBench, CoatDefinition, CoatPlace, Layer } from '../coats/definition'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { coatOf } from '../coats/table'
import { blurReach } from '../kernels/gauss'
import type { Kernels } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { placed } from '../outline/outline'
import type { BlendMode } from '../paint/blend-modes'
import { preparePaint } from './prepared-paint'
import type { Degrees, Px, Rect } from '../units'
import type { Canvas } from './canvas'
import type { PreparedLayer } from './compose'
import { compose } from './compose'
import { boxesFor } from './grid-box'
import { lengthIn, OutlineBench } from './outline-bench'
import type { Outlines } from './outlines'
import type { PlaneStore } from './plane-store'

/** What drawing a piece needs from the engine. */
export interface Drawing {
  kernels: Kernels
  outlines: Outlines
  store: PlaneStore
  card: Card
  at: Moment
  /** Render pixels per card pixel. */
  scale: number
  canvas: Canvas
  lightAzimuth: Degrees
}

/** A coat with its values at this moment. */
interface LaidCoat {
  definition: CoatDefinition
  values: never
  opacity: number
  blend: BlendMode
  place: CoatPlace<never>
}

const NO_BOUNDS: Rect = { left: 0, top: 0, right: 0, bottom: 0 }

/** Lays one piece on the canvas. */
export function drawPiece(drawing: Drawing, piece: Piece, index: number): void {
  const { kernels, at, scale } = drawing
  const settled = settleAll(PLACE_PARAMETERS, piece as never, at)
  const pieceScale = (settled.scale / 100) * scale
  const opacity = settled.opacity / 100
  if (!piece.on || opacity <= 0 || pieceScale <= 0) return
  const { outline, enlarge } = drawing.outlines.of(piece, at, pieceScale, `pieces[${index}]`)
  if (!outline.bounds) return
  const placement: Placement = {
    scale: enlarge * pieceScale,
    rotation: settled.rotation,
    x: settled.x * scale,
    y: settled.y * scale,
  }
  const { segments, bounds } = placed(outline, placement)
  const reference = outline.reference * placement.scale
  const px = lengthIn(pieceScale, reference)
  const light = { px, lightAzimuth: drawing.lightAzimuth }
  const face = laidCoats(piece.coats.face, piece, at)
  const behind = laidCoats(piece.coats.behind, piece, at)
  const reaches = [...face, ...behind].map((coat) => coat.definition.reach(coat.values, light, coat.place))
  const farthest = (side: 'left' | 'top' | 'right' | 'bottom') => Math.max(1, ...reaches.map((reach) => reach[side]))
  const reach = { left: farthest('left'), top: farthest('top'), right: farthest('right'), bottom: farthest('bottom') }
  const margin = Math.max(reach.left, reach.top, reach.right, reach.bottom)
  const boxes = boxesFor(bounds, reach, margin, drawing.canvas.layers)
  if (!boxes) return
  const { box, visible } = boxes
  drawing.canvas.touch(visible)

  const mark = kernels.mark()
  const key = `${outline.key} ${placement.scale} ${placement.rotation} ${placement.x} ${placement.y} ${box.x} ${box.y} ${box.w} ${box.h}`
  const setting = { key, segments, box, scale: pieceScale, reference, lightAzimuth: drawing.lightAzimuth }
  const bench = new OutlineBench(kernels, drawing.store, setting, farthestDistance([...face, ...behind], px))
  const lay = (coats: readonly LaidCoat[]) =>
    coats.flatMap((coat) =>
      coat.definition.layers(coat.values, bench, coat.place).map((layer) => prepared(layer, coat)),
    )
  const prepared = ({ field, mask, paint, knockOut = false }: Layer, coat: LaidCoat): PreparedLayer => ({
    field,
    knockOut,
    opacity: coat.opacity,
    blend: coat.blend,
    mask: mask && kernels.cut(mask, visible.x - box.x, visible.y - box.y, visible.w, visible.h),
    paint: preparePaint(drawing, paint, visible, { bounds: outline.bounds ?? NO_BOUNDS, placement }),
  })
  const layers = [...lay(behind), ...lay(face)]
  const coverage = kernels.cut(bench.coverage(), visible.x - box.x, visible.y - box.y, visible.w, visible.h)
  const canvas = kernels.window(drawing.canvas.layers, visible.x, visible.y, visible.w, visible.h)
  compose(kernels, canvas, { layers, coverage, blend: settled.blend, opacity })
  kernels.release(mark)
}

/** Strokes share one distance plane: the widest of them decides its reach. */
function farthestDistance(coats: readonly LaidCoat[], px: CoatBench['px']): Px {
  const probe = { px, lightAzimuth: 0 }
  const strokes = coats.filter((coat) => coat.definition.kind === 'stroke')
  const lengths = strokes.flatMap((coat) => {
    const { left } = coat.definition.reach(coat.values, probe, coat.place)
    const { width, offset } = coat.values as { width: number; offset: number }
    return [left, px(width) + Math.abs(px(offset)) + 1]
  })
  return Math.max(0, ...lengths)
}

/** Coats that are on, back to front, with their values and neighbours. */
function laidCoats(coats: readonly Coat[], piece: Piece, at: Moment): LaidCoat[] {
  return [...coats]
    .reverse()
    .filter((coat) => coat.on)
    .map((coat) => {
      const definition = coatOf(coat.kind)
      return {
        definition,
        values: settleAll(definition.parameters, coat, at) as never,
        opacity: settleNumber(coat.opacity, at) / 100,
        blend: settleAll(COMMON_COAT_PARAMETERS, coat, at).blend,
        place: placeAmong(coat, piece, at),
      }
    })
    .filter((coat) => coat.opacity > 0)
}

/** Coats of the same kind, in the order in which the stack is read from the front. */
function placeAmong(coat: Coat, piece: Piece, at: Moment): CoatPlace<never> {
  const { parameters } = coatOf(coat.kind)
  const same = [...piece.coats.face, ...piece.coats.behind].filter((other) => other.kind === coat.kind)
  const index = same.indexOf(coat)
  const siblings = same.map((other, i) => ({
    id: other.id,
    on: other.on,
    opacity: settleNumber(other.opacity, at) / 100,
    values: settleAll(parameters, other, at) as never,
    above: i < index,
  }))
  return { siblings, index }
}
