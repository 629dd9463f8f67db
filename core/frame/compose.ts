import type { Layer } from '../coats/definition'
import type { Kernels, Layers, Plane } from '../kernels/kernels'
import type { BlendMode } from '../paint/blend-modes'
import type { PreparedPaint } from './prepared-paint'

/** A layer cut to the visible part of its piece, with its paint made ready. */
export interface PreparedLayer {
  field: Layer['field']
  knockOut: boolean
  mask: Plane | null
  paint: PreparedPaint
  opacity: number
  blend: BlendMode
}

/** All that is laid for one piece, back to front. */
export interface PreparedPiece {
  layers: readonly PreparedLayer[]
  /** Exact coverage of the outline. */
  coverage: Plane
  blend: BlendMode
  opacity: number
}

/** Rows worked on at once: the RGBA planes of a strip stay in the processor's cache. */
const STRIP = 16

/**
 * Joins a piece's coats with the canvas. The face has two fields, one for the area within the outline and one
 * for the area outside it; each is composed as if it went on for ever, and the two are mixed by the outline's
 * exact coverage at the end. So neither fill and stroke nor face and shadow leave a hairline between them.
 */
export function compose(kernels: Kernels, canvas: Layers, piece: PreparedPiece): void {
  for (let y = 0; y < canvas.h; y += STRIP) {
    const h = Math.min(STRIP, canvas.h - y)
    const mark = kernels.mark()
    const strip = {
      ...piece,
      coverage: rowsOf(piece.coverage, y, h),
      layers: piece.layers.map((layer) => rowsOfLayer(layer, y, h)),
    }
    composeStrip(kernels, kernels.window(canvas, 0, y, canvas.w, h), strip)
    kernels.release(mark)
  }
}

const rowsOf = ({ at, w }: Plane, y: number, h: number): Plane => ({ at: at + y * w * 4, w, h })

function rowsOfLayer(layer: PreparedLayer, y: number, h: number): PreparedLayer {
  const mask = layer.mask && rowsOf(layer.mask, y, h)
  if (!('ramp' in layer.paint)) return { ...layer, mask }
  const { ramp } = layer.paint
  return { ...layer, mask, paint: { ramp: { ...ramp, t0: ramp.t0 + y * ramp.ty } } }
}

function composeStrip(kernels: Kernels, canvas: Layers, { layers, coverage, blend, opacity }: PreparedPiece): void {
  const cast = layers.filter((layer) => layer.field === 'behind')
  const knockedOut = cast.filter((layer) => layer.knockOut)
  const outsideLayers = layers.filter((layer) => layer.field === 'outside')
  const insideLayers = layers.filter((layer) => layer.field === 'inside')
  for (const layer of cast) if (!layer.knockOut) lay(kernels, canvas, layer, layer.opacity * opacity, null)
  if (outsideLayers.length === 0 && knockedOut.length === 0) {
    const inside = field(kernels, canvas, insideLayers, coverage)
    if (!inside) return
    const masked = kernels.layers(canvas.w, canvas.h)
    kernels.mix(coverage, inside, masked, masked)
    kernels.blend(blend, masked, canvas, opacity, coverage)
    return
  }
  // What is knocked out lies only where the outline is not: on a copy that is mixed in outside.
  const outer = kernels.layers(canvas.w, canvas.h, false)
  kernels.copy(canvas, outer)
  for (const layer of knockedOut) lay(kernels, outer, layer, layer.opacity * opacity, null)
  const outside = field(kernels, canvas, outsideLayers, null)
  if (outside) kernels.blend(blend, outside, outer, opacity)
  const inside = field(kernels, canvas, insideLayers, coverage)
  if (inside) kernels.blend(blend, inside, canvas, opacity, coverage)
  kernels.mix(coverage, canvas, outer, canvas)
}

/** All layers of one field on each other, made only where the gate is open; null where there are none. */
function field(kernels: Kernels, like: Layers, layers: readonly PreparedLayer[], gate: Plane | null): Layers | null {
  const [first, ...others] = layers
  if (!first) return null
  const made = kernels.layers(like.w, like.h, false)
  // On nothing, every blend mode leaves the source as it is (W3C Compositing 1 §5, backdrop alpha 0).
  paint(kernels, made, first, first.opacity, gate)
  for (const layer of others) lay(kernels, made, layer, layer.opacity, gate)
  return made
}

function lay(kernels: Kernels, onto: Layers, layer: PreparedLayer, opacity: number, gate: Plane | null): void {
  if ('solid' in layer.paint && layer.mask && layer.blend === 'normal') {
    kernels.overSolid(onto, layer.mask, gate, layer.paint.solid, opacity)
    return
  }
  const mark = kernels.mark()
  const source = kernels.layers(onto.w, onto.h, false)
  paint(kernels, source, layer, opacity, gate)
  kernels.blend(layer.blend, source, onto, 1, gate)
  kernels.release(mark)
}

function paint(kernels: Kernels, onto: Layers, layer: PreparedLayer, opacity: number, gate: Plane | null): void {
  if ('solid' in layer.paint) kernels.paintSolid(onto, layer.mask, gate, layer.paint.solid, opacity)
  else kernels.paintRamp(onto, layer.mask, gate, layer.paint.ramp, opacity)
}
