import type { DepthGroup, Layer } from '../coats/definition'
import type { Kernels, Layers, Plane } from '../kernels/kernels'
import type { BlendMode } from '../kernels/blend-modes'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import type { PreparedPaint } from './prepared-paint'

/** What is painted: a paint through a mask, in a box of the render grid. */
export interface PreparedPainting {
  /** Cover within the layer's box; null covers all of it. */
  mask: Plane | null
  /** Places along the edge within the box, for paints that ask for them. */
  along: Plane | null
  paint: PreparedPaint
  opacity: number
  blend: BlendMode
}

/** A layer in its own part of the canvas, with its paint made ready. */
export interface PreparedLayer extends PreparedPainting {
  group: DepthGroup
  /** Its place among the layers of its piece, back to front: letters lay theirs together. */
  rank: number
  where: Layer['where']
  /** Render pixels that the layer can touch; inside layers all have the ink's box. */
  box: GridBox
  /** Paintings laid on this layer's own paint before both go through its mask. */
  over: readonly PreparedPainting[]
}

/** All that is laid for one piece, back to front. */
export interface PreparedPiece {
  layers: readonly PreparedLayer[]
  /** Exact coverage of the outline in the ink's box. */
  coverage: Plane
  ink: GridBox
  blend: BlendMode
  opacity: number
  /** The opacity of a moving letter, beside that of the whole piece. */
  share: number
  /** Whether it was cut from a shape together with others that are laid with it. */
  cut: boolean
}

/** Pixels worked on at once: the RGBA windows of a strip stay in the processor's cache. */
const STRIP = 8192
const LEAST_ROWS = 4

/**
 * Joins the coats of a piece with the canvas; of several together where letters move on their own. What lies within an
 * outline and what lies outside it are composed apart, each as if it went on for ever, and the two are mixed by the
 * outline's exact coverage at the end. So neither fill and stroke nor face and shadow leave a hairline between them.
 * Letters lay their coats one coat after the other, as the joined word would: no letter's stroke lies on its neighbour's
 * face, and no outer outline on its neighbour's inner one.
 */
export function compose(kernels: Kernels, canvas: Canvas, pieces: readonly PreparedPiece[]): void {
  const boxes = pieces
    .flatMap(({ ink, layers }) => [ink, ...layers.map(({ box }) => box)])
    .filter(({ w, h }) => w > 0 && h > 0)
  const top = Math.min(...boxes.map((box) => box.y))
  const bottom = Math.max(...boxes.map((box) => box.y + box.h))
  const across = Math.max(...boxes.map((box) => box.x + box.w)) - Math.min(...boxes.map((box) => box.x))
  const rows = Math.max(LEAST_ROWS, Math.floor(STRIP / across))
  for (let y = top; y < bottom; y += rows) {
    const mark = kernels.mark()
    composeRows(new Strip(kernels, canvas, y, Math.min(rows, bottom - y)), pieces)
    kernels.release(mark)
  }
}

function composeRows(strip: Strip, pieces: readonly PreparedPiece[]): void {
  const parts = pieces.map((piece) => new PieceRows(strip, piece))
  for (const { layer, opacity } of together(parts.map((part) => part.shared()))) strip.lay(layer, opacity)
  for (const part of parts) part.open()
  for (const { layer, opacity } of together(parts.map((part) => part.behindOnly()))) strip.lay(layer, opacity)
  layFaces(strip, parts)
  const inked = parts.filter((part) => part.isOpen)
  for (const [i, part] of inked.entries()) {
    const face = part.layInside(part.piece.cut ? inked.slice(0, i).filter(({ piece }) => piece.cut) : [])
    if (face) for (let later = i + 1; later < inked.length; later++) inked[later]!.receive(face)
  }
}

/**
 * The outside of all faces as one group. A letter's own opacity is that of each of its layers, however many letters there
 * are: a tile that sees one of them alone makes the same bytes.
 */
function layFaces(strip: Strip, parts: readonly PieceRows[]): void {
  const [first] = parts
  if (!first) return
  const layers = together(parts.map((part) => part.outside()))
  strip.layGroup(
    layers.map(({ layer, opacity }) => ({ ...layer, opacity })),
    first.piece.blend,
    first.piece.opacity,
  )
}

interface Laid {
  layer: PreparedLayer
  opacity: number
}

/** The layers of several letters, coat after coat. */
const together = (parts: readonly Laid[][]): Laid[] =>
  parts.length === 1 ? parts[0]! : parts.flat().sort((a, b) => a.layer.rank - b.layer.rank)

/** The inside of a face before it is mixed into the canvas. */
interface FaceRows {
  cut: boolean
  layers: Layers
  gate: Plane
  ink: GridBox
  blend: BlendMode
  opacity: number
}

/** What one piece lays on the rows of a strip. */
class PieceRows {
  private readonly behindInside: PreparedLayer[]
  private readonly behindOutside: PreparedLayer[]
  private readonly sharedCount: number
  /** What lies within the outline: a copy of the canvas from before anything showed on one side alone. */
  private within: { under: Layers; gate: Plane; canvas: Layers } | null = null

  constructor(
    private readonly strip: Strip,
    readonly piece: PreparedPiece,
  ) {
    this.behindInside = this.on('behind', 'inside')
    this.behindOutside = this.on('behind', 'outside')
    // Coats behind that show on both sides are laid once, as long as nothing shows on one side alone.
    const shared =
      this.behindInside.length > 0 && this.behindInside.every((layer) => this.behindOutside.includes(layer))
    this.sharedCount = shared ? leading(this.behindOutside, this.behindInside) : 0
  }

  private on(group: DepthGroup, side: 'inside' | 'outside'): PreparedLayer[] {
    return this.piece.layers.filter(
      (layer) => layer.group === group && (layer.where === side || layer.where === 'everywhere'),
    )
  }

  /** Coats behind that show on both sides. */
  shared(): Laid[] {
    return this.behindOutside.slice(0, this.sharedCount).map((layer) => this.laid(layer))
  }

  /** Coats behind that show outside alone. */
  behindOnly(): Laid[] {
    return this.behindOutside.slice(this.sharedCount).map((layer) => this.laid(layer))
  }

  private laid(layer: PreparedLayer): Laid {
    return { layer, opacity: layer.opacity * this.piece.opacity * this.piece.share }
  }

  /** The face beyond the outline. */
  outside(): Laid[] {
    return this.on('face', 'outside').map((layer) => ({ layer, opacity: layer.opacity * this.piece.share }))
  }

  /** From here on the canvas becomes what lies outside the outline; what lies within goes on from a copy. */
  open(): void {
    const { strip, piece } = this
    const rows = strip.rows(piece.ink)
    if (!rows) return
    const under = strip.kernels.layers(piece.ink.w, rows.h, false)
    const gate = planeRows(piece.coverage, rows.from, rows.h)
    strip.kernels.copyGated(gate, rows.canvas, under)
    this.within = { under, gate, canvas: rows.canvas }
  }

  /** Whether anything lies within the outline in these rows. */
  get isOpen(): boolean {
    return this.within !== null
  }

  /**
   * Mixes what lies within the outline into the canvas; gives the face for those that lie over it. `beside`: parts of the same shape that
   * are mixed in already; in the pixels of a cut they lie beside this one.
   */
  layInside(beside: readonly PieceRows[]): FaceRows | null {
    if (!this.within) return null
    const { strip } = this
    const { kernels } = strip
    const { ink, blend, share } = this.piece
    const opacity = this.piece.opacity * share
    const { under, gate, canvas } = this.within
    for (const layer of this.behindInside.slice(this.sharedCount)) {
      strip.layOnto(under, ink, layer, layer.opacity * opacity, gate)
    }
    const face = kernels.layers(ink.w, canvas.h, false)
    kernels.copyGated(gate, null, face)
    for (const layer of this.on('face', 'inside')) strip.layOnto(face, ink, layer, layer.opacity, gate)
    kernels.blend(blend, face, under, opacity, gate)
    const covered = this.coveredBy(beside)
    kernels.mix(covered ? kernels.beside(gate, covered) : gate, under, canvas)
    return { layers: face, gate, ink, blend, opacity, cut: this.piece.cut }
  }

  /** How much other parts cover of this one's pixels; null where none comes near. */
  private coveredBy(others: readonly PieceRows[]): Plane | null {
    const { kernels } = this.strip
    const covers = others.flatMap((other) => this.coverOf(other.piece.ink, other.within!.gate) ?? [])
    const [first] = covers
    if (!first || covers.length === 1) return first ?? null
    const all = kernels.plane(first.w, first.h, 0)
    for (const cover of covers) kernels.addCover(cover, all)
    return all
  }

  /** The rows of a cover in another box, in this one's. */
  private coverOf(ink: GridBox, gate: Plane): Plane | null {
    const { strip, piece } = this
    const [there, here] = [strip.rows(ink), strip.rows(piece.ink)]
    if (!there || !here || !strip.overlap(ink, piece.ink)) return null
    const down = piece.ink.y + here.from - (ink.y + there.from)
    return strip.kernels.cropped(gate, piece.ink.x - ink.x, down, piece.ink.w, here.h)
  }

  /** Lays the face of a piece further back on what lies within this one, where the two overlap. */
  receive(face: FaceRows): void {
    if (!this.within) return
    const { strip, piece } = this
    const top = strip.overlap(face.ink, piece.ink)
    const [there, here] = [strip.rows(face.ink), strip.rows(piece.ink)]
    if (!top || !there || !here) return
    const { kernels } = strip
    const { x, y, w, h } = top
    const onto = kernels.window(this.within.under, x - piece.ink.x, y - piece.ink.y - here.from, w, h)
    const [left, down] = [x - face.ink.x, y - face.ink.y - there.from]
    const cover = kernels.cropped(face.gate, left, down, w, h)
    // Parts of one shape lie over each other only as far as they have no room beside each other.
    const mask =
      face.cut && piece.cut
        ? kernels.overlapping(
            kernels.cropped(this.within.gate, x - piece.ink.x, y - piece.ink.y - here.from, w, h),
            cover,
          )
        : cover
    const picture = kernels.window(face.layers, left, down, w, h)
    kernels.layPicture(face.blend, onto, { mask, gate: mask }, picture, face.opacity)
  }
}

/** How many layers both lists begin with. */
function leading(a: readonly PreparedLayer[], b: readonly PreparedLayer[]): number {
  let n = 0
  while (n < a.length && n < b.length && a[n] === b[n]) n++
  return n
}

const planeRows = ({ at, w }: Plane, from: number, h: number): Plane => ({ at: at + from * w * 4, w, h })

/** A few rows of the canvas. */
class Strip {
  constructor(
    readonly kernels: Kernels,
    private readonly canvas: Canvas,
    private readonly y: number,
    private readonly h: number,
  ) {}

  /** The rows of a box that lie in this strip: the canvas there, the first row within the box, and how many. */
  rows(box: GridBox): { canvas: Layers; from: number; h: number } | null {
    const top = Math.max(this.y, box.y)
    const h = Math.min(this.y + this.h, box.y + box.h) - top
    if (h <= 0 || box.w <= 0) return null
    return { canvas: this.canvas.window({ x: box.x, y: top, w: box.w, h }), from: top - box.y, h }
  }

  /** Lays one layer on the canvas. */
  lay(layer: PreparedLayer, opacity: number, blend = layer.blend): void {
    const rows = this.rows(layer.box)
    if (rows) this.paint(rows.canvas, layer, layer.box, rows, opacity, blend, null)
  }

  /** Lays a layer on a window that shows the rows of `of`; what lies beyond either is left out. */
  layOnto(onto: Layers, of: GridBox, layer: PreparedLayer, opacity: number, gate: Plane): void {
    const { box } = layer
    const same = box.x === of.x && box.y === of.y && box.w === of.w && box.h === of.h
    if (same) {
      this.paint(onto, layer, box, this.rows(box)!, opacity, layer.blend, gate)
      return
    }
    // A layer that also shows outside has a larger box: the ink's part of it is painted apart, then laid.
    const rows = this.rows(box)
    const inner = this.rows(of)
    if (!rows || !inner) return
    const whole = this.kernels.layers(box.w, rows.h)
    this.paint(whole, layer, box, rows, 1, 'normal', null)
    const top = this.overlap(box, of)
    if (!top) return
    const { x, y, w, h } = top
    const src = this.kernels.window(whole, x - box.x, y - box.y - rows.from, w, h)
    const dst = this.kernels.window(onto, x - of.x, y - of.y - inner.from, w, h)
    // Closed groups hold nothing that will be looked at, but may hold anything: they are left alone.
    const open = this.kernels.cropped(gate, x - of.x, y - of.y - inner.from, w, h)
    this.kernels.blend(layer.blend, src, dst, opacity, open)
  }

  /** The rows of this strip in which two boxes meet. */
  overlap(a: GridBox, b: GridBox): GridBox | null {
    const x = Math.max(a.x, b.x)
    const y = Math.max(a.y, b.y, this.y)
    const w = Math.min(a.x + a.w, b.x + b.w) - x
    const h = Math.min(a.y + a.h, b.y + b.h, this.y + this.h) - y
    return w > 0 && h > 0 ? { x, y, w, h } : null
  }

  /** The outside of the face: its layers on each other in a group of their own, then the group on the canvas. */
  layGroup(layers: readonly PreparedLayer[], blend: BlendMode, opacity: number): void {
    const [first] = layers
    if (!first) return
    // Alone, the group is its one layer.
    if (layers.length === 1 && first.blend === 'normal') {
      this.lay(first, first.opacity * opacity, blend)
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
      const onto = kernels.window(group, layer.box.x - x, top, layer.box.w, rows.h)
      this.paint(onto, layer, layer.box, rows, layer.opacity, layer.blend, null)
    }
    const onto = this.canvas.window({ x, y: this.y, w, h: this.h })
    kernels.blend(blend, group, onto, opacity)
  }

  /** Paints a layer's rows: its paint through its mask, with what lies over it put on the paint first. */
  private paint(
    onto: Layers,
    layer: PreparedLayer,
    box: GridBox,
    { from, h }: { from: number; h: number },
    opacity: number,
    blend: BlendMode,
    gate: Plane | null,
  ): void {
    if (layer.over.length === 0) {
      this.stroke(onto, layer, box, { from, h }, opacity, blend, gate)
      return
    }
    const ground = this.kernels.layers(box.w, h)
    this.stroke(ground, { ...layer, mask: null }, box, { from, h }, 1, 'normal', null)
    for (const over of layer.over) this.stroke(ground, over, box, { from, h }, over.opacity, over.blend, null)
    const mask = layer.mask && planeRows(layer.mask, from, h)
    this.kernels.layPicture(blend, onto, { mask, gate }, ground, opacity)
  }

  private stroke(
    onto: Layers,
    { mask, along, paint }: PreparedPainting,
    { x, y, w }: GridBox,
    { from, h }: { from: number; h: number },
    opacity: number,
    blend: BlendMode,
    gate: Plane | null,
  ): void {
    const { kernels } = this
    const stencil = { mask: mask && planeRows(mask, from, h), gate }
    const window = { x, y: y + from, w, h }
    if ('solid' in paint) kernels.laySolid(blend, onto, stencil, paint.solid, opacity)
    else if ('sample' in paint) kernels.layPicture(blend, onto, stencil, paint.sample(window), opacity)
    else if ('places' in paint) kernels.layRamp(blend, onto, stencil, paint.places(window), paint.ramp, opacity)
    else {
      // Without an edge to measure from, everything lies at the gradient's start.
      const places = along ? planeRows(along, from, h) : kernels.plane(w, h, 0)
      kernels.layRamp(blend, onto, stencil, paint.along(places), paint.ramp, opacity)
    }
  }
}
