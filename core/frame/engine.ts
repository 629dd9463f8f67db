import type { Card } from '../card/schema'
import { LARGEST_SIDE } from '../card/schema'
import { PLACE_PARAMETERS } from '../card/pieces'
import type { Moment } from '../card/settled'
import { settleAll, settleNumber, settlePaint } from '../card/settled'
import { WaxError } from '../errors'
import { Kernels } from '../kernels/kernels'
import { place } from '../outline/outline'
import { momentOf } from '../time/evaluate'
import { FontBook } from '../type/font-book'
import type { Frames, Point } from '../units'
import { Canvas } from './canvas'
import { Outlines } from './outlines'
import { drawPiece } from './piece'
import { PlaneStore } from './plane-store'
import { preparePaint } from './prepared-paint'

const EVERYWHERE = { mask: null, gate: null }

export interface View {
  /** Render pixels per card pixel, up to 1. The default, 1, is the final size. */
  scale?: number
  /** Bits a channel of the picture. */
  bits?: 8 | 16
  /** The pixels of an earlier picture that nobody needs any more: used again where the size fits. */
  reuse?: Uint8Array<ArrayBuffer>
}

/** A finished frame: straight (not premultiplied) RGBA, rows from the top, 16-bit values little-endian. */
export interface FramePicture {
  width: number
  height: number
  bits: 8 | 16
  pixels: Uint8Array<ArrayBuffer>
}

/** Where a piece stands, for handles on the stage. Card pixels. */
export interface PieceOutlook {
  id: string
  /** The corners of its ink bounds, turned with the piece: top left, top right, bottom right, bottom left. */
  corners: [Point, Point, Point, Point]
  place: Point
  /** What 100 % of a coat's length stands for, in card px before the piece's scale. */
  reference: number
}

/**
 * Renders frames. Holds fonts and what can be kept between frames; one engine a worker. The same card, frame
 * and view give the same bytes on every host.
 */
export class Engine {
  private readonly kernels = new Kernels()
  private readonly store = new PlaneStore()
  private readonly outlines: Outlines
  private canvas: Canvas | null = null

  private readonly base = this.kernels.mark()

  constructor(readonly fonts: FontBook = new FontBook()) {
    this.outlines = new Outlines(fonts)
  }

  /** Throws a WaxError for a missing font or a view that cannot be. Frames beyond the loop come round again. */
  render(card: Card, frame: Frames, view: View = {}): FramePicture {
    const { scale = 1, bits = 8 } = view
    const width = Math.max(1, Math.round(card.frame.width * scale))
    const height = Math.max(1, Math.round(card.frame.height * scale))
    if (!(scale > 0) || width > LARGEST_SIDE || height > LARGEST_SIDE) {
      throw new WaxError(
        'frame-too-large',
        'frame',
        `A picture of ${width}×${height} px cannot be made.`,
        `The most is ${LARGEST_SIDE} px a side.`,
      )
    }
    const { kernels } = this
    const canvas = this.clearCanvas(width, height)
    const start = kernels.mark()
    try {
      const at = momentOf(card, frame)
      this.background(card, canvas, scale, at)
      const lightAzimuth = settleNumber(card.light.azimuth, at)
      const { outlines, store } = this
      for (let i = card.pieces.length - 1; i >= 0; i--) {
        drawPiece({ kernels, outlines, store, card, at, scale, canvas, lightAzimuth }, card.pieces[i]!, i)
      }
      const size = (width * height * bits) / 2
      const again = view.reuse?.length === size ? view.reuse.fill(0) : undefined
      const pixels = again ?? new Uint8Array(size)
      const { touched } = canvas
      if (touched) {
        const { x, y, w, h } = touched
        kernels.straight(kernels.window(canvas.layers, x, y, w, h), x, y, pixels, width, bits, card.seed)
      }
      return { width, height, bits, pixels }
    } finally {
      kernels.release(start)
    }
  }

  /** The canvas lies at the bottom of the kernels' memory as long as the size stays; only what was touched is cleared. */
  private clearCanvas(width: number, height: number): Canvas {
    const padded = (width + 15) & ~15
    if (this.canvas && this.canvas.layers.w === padded && this.canvas.layers.h === height) {
      const { layers, touched } = this.canvas
      if (touched) this.kernels.clear(this.kernels.window(layers, touched.x, touched.y, touched.w, touched.h))
    } else {
      this.kernels.release(this.base)
      this.canvas = new Canvas(this.kernels.layers(padded, height))
    }
    this.canvas.touched = null
    return this.canvas
  }

  /** Where every piece stands at a frame. Pieces without ink have all corners at their place. */
  outlook(card: Card, frame: Frames): PieceOutlook[] {
    const at = momentOf(card, frame)
    return card.pieces.map((piece, i) => {
      const { x, y, scale, rotation } = settleAll(PLACE_PARAMETERS, piece as never, at)
      const { outline, enlarge } = this.outlines.of(piece, at, scale / 100, `pieces[${i}]`)
      const b = outline.bounds ?? { left: 0, top: 0, right: 0, bottom: 0 }
      const placement = { scale: (enlarge * scale) / 100, rotation, x, y }
      const corner = (px: number, py: number) => place(placement, { x: px, y: py })
      return {
        id: piece.id,
        corners: [corner(b.left, b.top), corner(b.right, b.top), corner(b.right, b.bottom), corner(b.left, b.bottom)],
        place: { x, y },
        reference: outline.reference * enlarge,
      }
    })
  }

  private background(card: Card, canvas: Canvas, scale: number, at: Moment): void {
    if (!card.background) return
    const { layers } = canvas
    canvas.touch({ x: 0, y: 0, w: layers.w, h: layers.h })
    const { kernels } = this
    const mark = kernels.mark()
    const paint = preparePaint({ kernels, card, scale }, settlePaint(card.background, at), null)
    if ('solid' in paint) kernels.laySolid('normal', layers, EVERYWHERE, paint.solid, 1)
    else kernels.layRamp('normal', layers, EVERYWHERE, paint.ramp, 1)
    kernels.release(mark)
  }
}
