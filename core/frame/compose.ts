import type { Layer } from '../coats/definition'
import type { Kernels, Layers, Plane } from '../kernels/kernels'
import type { BlendMode } from '../paint/blend-modes'
import type { GridBox } from './grid-box'
import type { PreparedPaint } from './prepared-paint'

/** A layer in its own part of the frame, with its paint made ready. */
export interface PreparedLayer {
  field: Layer['field']
  knockOut: boolean
  /** Render pixels that the layer can touch; inside layers all have the ink's box. */
  box: GridBox
  /** Cover within `box`; null covers all of it. */
  mask: Plane | null
  /** A ramp's origin is the frame's. */
  paint: PreparedPaint
  opacity: number
  blend: BlendMode
}

/** All that is laid for one piece, back to front. */
export interface PreparedPiece {
  layers: readonly PreparedLayer[]
  /** Exact coverage of the outline in the ink's box. */
  coverage: Plane
  ink: GridBox
  blend: BlendMode
  opacity: number
}

/** Rows worked on at once: the RGBA windows of a strip stay in the processor's cache. */
const STRIP = 16

/**
 * Joins a piece's coats with the canvas. The face has two fields, one for the area within the outline and one
 * for the area outside it; each is composed as if it went on for ever, and the two are mixed by the outline's
 * exact coverage at the end. So neither fill and stroke nor face and shadow leave a hairline between them.
 */
export function compose(kernels: Kernels, canvas: Layers, piece: PreparedPiece): void {
  const boxes = [piece.ink, ...piece.layers.map((layer) => layer.box)]
  const top = Math.min(...boxes.map((box) => box.y))
  const bottom = Math.max(...boxes.map((box) => box.y + box.h))
  for (let y = top; y < bottom; y += STRIP) {
    const mark = kernels.mark()
    composeRows(new Strip(kernels, canvas, y, Math.min(STRIP, bottom - y)), piece)
    kernels.release(mark)
  }
}

function composeRows(strip: Strip, { layers, coverage, ink, blend, opacity }: PreparedPiece): void {
  const { kernels } = strip
  const cast = layers.filter((layer) => layer.field === 'behind')
  for (const layer of cast) if (!layer.knockOut) strip.lay(layer, layer.opacity * opacity)
  // From here on the canvas becomes what lies outside the outline; what lies within goes on from a copy.
  const within = strip.rows(ink)
  const under = within && kernels.layers(ink.w, within.h, false)
  if (under && within) kernels.copy(within.canvas, under)
  for (const layer of cast) if (layer.knockOut) strip.lay(layer, layer.opacity * opacity)
  strip.layField(
    layers.filter((layer) => layer.field === 'outside'),
    blend,
    opacity,
  )
  if (!under || !within) return
  const gate = planeRows(coverage, within.from, within.h)
  const face = kernels.layers(ink.w, within.h)
  for (const layer of layers) if (layer.field === 'inside') strip.lay(layer, layer.opacity, face, gate)
  kernels.blend(blend, face, under, opacity, gate)
  kernels.mix(gate, under, within.canvas, within.canvas)
}

const planeRows = ({ at, w }: Plane, from: number, h: number): Plane => ({ at: at + from * w * 4, w, h })

/** A few rows of the canvas. */
class Strip {
  constructor(
    readonly kernels: Kernels,
    private readonly canvas: Layers,
    private readonly y: number,
    private readonly h: number,
  ) {}

  /** The rows of a box that lie in this strip: the canvas there, the first row within the box, and how many. */
  rows(box: GridBox): { canvas: Layers; from: number; h: number } | null {
    const top = Math.max(this.y, box.y)
    const h = Math.min(this.y + this.h, box.y + box.h) - top
    if (h <= 0 || box.w <= 0) return null
    return { canvas: this.kernels.window(this.canvas, box.x, top, box.w, h), from: top - box.y, h }
  }

  /** Lays one layer on the canvas, or on another window of the size of its rows. */
  lay(layer: PreparedLayer, opacity: number, onto?: Layers, gate: Plane | null = null): void {
    const rows = this.rows(layer.box)
    if (!rows) return
    const stencil = { mask: layer.mask && planeRows(layer.mask, rows.from, rows.h), gate }
    const target = onto ?? rows.canvas
    const { paint, blend } = layer
    if ('solid' in paint) this.kernels.laySolid(blend, target, stencil, paint.solid, opacity)
    else {
      const { ramp } = paint
      const t0 = ramp.t0 + layer.box.x * ramp.tx + (layer.box.y + rows.from) * ramp.ty
      this.kernels.layRamp(blend, target, stencil, { ...ramp, t0 }, opacity)
    }
  }

  /** The outside field: its layers on each other in a group of their own, then the group on the canvas. */
  layField(layers: readonly PreparedLayer[], blend: BlendMode, opacity: number): void {
    const [first] = layers
    if (!first) return
    // Alone, the field is its one layer.
    if (layers.length === 1 && first.blend === 'normal') {
      this.lay({ ...first, blend }, first.opacity * opacity)
      return
    }
    const boxes = layers.map((layer) => layer.box)
    const x = Math.min(...boxes.map((box) => box.x))
    const w = Math.max(...boxes.map((box) => box.x + box.w)) - x
    const { kernels } = this
    const group = kernels.layers(w, this.h)
    for (const layer of layers) {
      const rows = this.rows(layer.box)
      if (!rows) continue
      const top = Math.max(this.y, layer.box.y) - this.y
      this.lay(layer, layer.opacity, kernels.window(group, layer.box.x - x, top, layer.box.w, rows.h))
    }
    kernels.blend(blend, group, kernels.window(this.canvas, x, this.y, w, this.h), opacity)
  }
}
