import { PLACE_PARAMETERS } from '../card/pieces'
import type { Card, Coat, Piece } from '../card/schema'
import type { Moment, SettledPaint } from '../card/settled'
import { settleAll, settleNumber } from '../card/settled'
import type { CoatBench, CoatDefinition, CoatPlace, Layer } from '../coats/definition'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { coatOf } from '../coats/table'
import { blurReach } from '../kernels/gauss'
import type { Kernels, Layers, Plane } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { placed } from '../outline/outline'
import type { BlendMode } from '../paint/blend-modes'
import { gradientLine, rampColours } from '../paint/gradient'
import type { Degrees, Px, Rect } from '../units'
import type { GridBox } from './grid-box'
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
  canvas: Layers
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
  const boxes = boxesFor(bounds, reach, margin, drawing.canvas)
  if (!boxes) return
  const { box, visible } = boxes

  const mark = kernels.mark()
  const key = `${outline.key} ${placement.scale} ${placement.rotation} ${placement.x} ${placement.y} ${box.x} ${box.y} ${box.w} ${box.h}`
  const setting = { key, segments, box, scale: pieceScale, reference, lightAzimuth: drawing.lightAzimuth }
  const bench = new OutlineBench(kernels, drawing.store, setting, farthestDistance([...face, ...behind], px))
  const bed = new Bed(drawing, bench, { box, visible }, outline.bounds ?? NO_BOUNDS, placement)
  bed.lay(face, behind, settled.blend, opacity)
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

/**
 * Where a piece's coats are joined. The face has two fields, one for the area within the outline and one for
 * the area outside it; each is composed as if it went on for ever, and the two are mixed by the outline's exact
 * coverage at the end. So neither fill and stroke nor face and shadow leave a hairline between them.
 */
class Bed {
  private readonly canvas: Layers

  constructor(
    private readonly drawing: Drawing,
    private readonly bench: OutlineBench,
    private readonly boxes: { box: GridBox; visible: GridBox },
    private readonly bounds: Rect,
    private readonly placement: Placement,
  ) {
    const { x, y, w, h } = boxes.visible
    this.canvas = drawing.kernels.window(drawing.canvas, x, y, w, h)
  }

  lay(face: readonly LaidCoat[], behind: readonly LaidCoat[], blend: BlendMode, opacity: number): void {
    const { kernels } = this.drawing
    const { w, h } = this.boxes.visible
    // Behind coats differ within and outside the outline only where they are knocked out.
    const cast = this.layersOf(behind).filter(({ layer }) => layer.field === 'behind')
    const laid = [...this.layersOf(behind).filter(({ layer }) => layer.field !== 'behind'), ...this.layersOf(face)]
    const hasOutside = laid.some(({ layer }) => layer.field === 'outside') || cast.some(({ layer }) => layer.knockOut)
    for (const { layer, coat } of cast.filter(({ layer }) => !layer.knockOut)) {
      this.apply(this.canvas, layer, coat, coat.opacity * opacity)
    }
    const coverage = this.cut(this.bench.coverage())
    if (!hasOutside) {
      const inside = this.field(laid, 'inside')
      if (!inside) return
      const masked = kernels.layers(w, h)
      kernels.mix(coverage, inside, masked, masked)
      kernels.blend(blend, masked, this.canvas, opacity)
      return
    }
    const outer = kernels.layers(w, h, false)
    kernels.copy(this.canvas, outer)
    for (const { layer, coat } of cast.filter(({ layer }) => layer.knockOut)) {
      this.apply(outer, layer, coat, coat.opacity * opacity)
    }
    const outside = this.field(laid, 'outside')
    if (outside) kernels.blend(blend, outside, outer, opacity)
    const inside = this.field(laid, 'inside')
    if (inside) kernels.blend(blend, inside, this.canvas, opacity)
    kernels.mix(coverage, this.canvas, outer, this.canvas)
  }

  private layersOf(coats: readonly LaidCoat[]): { layer: Layer; coat: LaidCoat }[] {
    return coats.flatMap((coat) =>
      coat.definition.layers(coat.values, this.bench, coat.place).map((layer) => ({ layer, coat })),
    )
  }

  /** All layers of one field on each other; null where there are none. */
  private field(laid: readonly { layer: Layer; coat: LaidCoat }[], name: 'inside' | 'outside'): Layers | null {
    const here = laid.filter(({ layer }) => layer.field === name)
    if (here.length === 0) return null
    const { w, h } = this.boxes.visible
    const field = this.drawing.kernels.layers(w, h)
    for (const { layer, coat } of here) this.apply(field, layer, coat, coat.opacity)
    return field
  }

  private apply(onto: Layers, layer: Layer, { blend }: LaidCoat, opacity: number): void {
    const { kernels } = this.drawing
    const mask = layer.mask && this.cut(layer.mask)
    const { paint } = layer
    if (paint.type === 'solid' && mask && blend === 'normal') {
      kernels.overSolid(onto, mask, paint.colour, opacity)
      return
    }
    const mark = kernels.mark()
    const source = kernels.layers(onto.w, onto.h, false)
    this.paint(source, mask, paint, opacity)
    kernels.blend(blend, source, onto, 1)
    kernels.release(mark)
  }

  private paint(onto: Layers, mask: Plane | null, paint: SettledPaint, opacity: number): void {
    const { kernels, card, scale } = this.drawing
    if (paint.type === 'solid') {
      kernels.paintSolid(onto, mask, paint.colour, opacity)
      return
    }
    const cardBounds = { left: 0, top: 0, right: card.frame.width, bottom: card.frame.height }
    const line =
      paint.hang === 'piece'
        ? gradientLine(paint, this.bounds, this.placement)
        : gradientLine(paint, cardBounds, { scale, rotation: 0, x: 0, y: 0 })
    const { x, y } = this.boxes.visible
    const t0 = line.t0 + x * line.tx + y * line.ty
    kernels.paintRamp(onto, mask, { ...kernels.ramp(rampColours(paint.stops)), ...line, t0 }, opacity)
  }

  /** The visible part of a plane of the whole box. */
  private cut(plane: Plane): Plane {
    const { box, visible } = this.boxes
    return this.drawing.kernels.cut(plane, visible.x - box.x, visible.y - box.y, visible.w, visible.h)
  }
}
