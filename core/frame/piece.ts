import { PLACE_PARAMETERS } from '../card/pieces'
import type { Card, Coat, Piece } from '../card/schema'
import type { Moment } from '../card/settled'
import { settleAll, settleNumber } from '../card/settled'
import type { CoatDefinition, CoatPlace } from '../coats/definition'
import { COMMON_COAT_PARAMETERS, even } from '../coats/definition'
import { coatOf } from '../coats/table'
import type { Kernels } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { placed } from '../outline/outline'
import type { BlendMode } from '../paint/blend-modes'
import { preparePaint } from './prepared-paint'
import type { Degrees } from '../units'
import type { Canvas } from './canvas'
import type { PreparedLayer } from './compose'
import { compose } from './compose'
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
  const frame = drawing.canvas.layers
  const ink = boxesFor(bounds, even(1), 0, frame)?.visible ?? NOWHERE
  const mark = kernels.mark()
  const key = `${outline.key} ${placement.scale} ${placement.rotation} ${placement.x} ${placement.y}`
  const benches = new Map<string, OutlineBench>()
  const setting = { key, segments, scale: pieceScale, reference, lightAzimuth: drawing.lightAzimuth }

  // Each coat is computed in the box that it can touch; coats with the same box share their planes.
  const prepare = (coat: LaidCoat): PreparedLayer[] => {
    const reach = coat.definition.reach(coat.values, light, coat.place)
    const boxes = boxesFor(bounds, reach, Math.max(reach.left, reach.top, reach.right, reach.bottom), frame)
    if (!boxes) return []
    const { box, visible } = boxes
    const name = `${box.x} ${box.y} ${box.w} ${box.h}`
    const bench = benches.get(name) ?? new OutlineBench(kernels, drawing.store, { ...setting, box })
    benches.set(name, bench)
    return coat.definition.layers(coat.values, bench, coat.place).map(({ field, mask, paint, knockOut = false }) => {
      const seen = field === 'inside' ? ink : visible
      drawing.canvas.touch(seen)
      const cut = mask && kernels.cut(bench.plane(mask), seen.x - box.x, seen.y - box.y, seen.w, seen.h)
      const { blend, opacity } = coat
      return { field, knockOut, box: seen, mask: cut, paint: preparePaint(drawing, paint, hook), opacity, blend }
    })
  }
  const hook = { bounds: outline.bounds, placement }
  const layers = [...behind, ...face].flatMap(prepare)
  const inkBench = new OutlineBench(kernels, drawing.store, { ...setting, box: ink })
  const coverage = inkBench.plane(inkBench.coverage())
  compose(kernels, frame, { layers, coverage, ink, blend: settled.blend, opacity })
  kernels.release(mark)
}

const NOWHERE: GridBox = { x: 0, y: 0, w: 0, h: 0 }

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
