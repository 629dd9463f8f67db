import type { Card } from '../card/schema'
import { LARGEST_SIDE } from '../card/schema'
import { PLACE_PARAMETERS } from '../card/pieces'
import { settleAll, settleNumber, settlePaint } from '../card/settled'
import { WaxError } from '../errors'
import type { Layers } from '../kernels/kernels'
import { Kernels } from '../kernels/kernels'
import { place } from '../outline/outline'
import { gradientLine, rampColours } from '../paint/gradient'
import { momentOf } from '../time/evaluate'
import { FontBook } from '../type/font-book'
import type { Frames, Point } from '../units'
import { Outlines } from './outlines'
import { drawPiece } from './piece'
import { PlaneStore } from './plane-store'

export interface View {
  /** Render pixels per card pixel, up to 1. The default, 1, is the final size. */
  scale?: number
  /** Bits a channel of the picture. */
  bits?: 8 | 16
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

  constructor(readonly fonts: FontBook = new FontBook()) {
    this.outlines = new Outlines(fonts)
  }

  /** Throws a WaxError for a missing font or a view that cannot be. Frames beyond the loop come round again. */
  render(card: Card, frame: Frames, view: View = {}): FramePicture {
    const { scale = 1, bits = 8 } = view
    const width = Math.max(1, Math.round(card.frame.width * scale))
    const height = Math.max(1, Math.round(card.frame.height * scale))
    if (!(scale > 0) || width > LARGEST_SIDE || height > LARGEST_SIDE) {
      throw new WaxError('frame-too-large', 'frame', `A picture of ${width}×${height} px cannot be made.`, `The most is ${LARGEST_SIDE} px a side.`)
    }
    const { kernels } = this
    const start = kernels.mark()
    const canvas = kernels.layers((width + 15) & ~15, height)
    const at = momentOf(card, frame)
    this.background(card, canvas, scale, frame)
    const lightAzimuth = settleNumber(card.light.azimuth, at)
    for (let i = card.pieces.length - 1; i >= 0; i--) {
      const drawing = { kernels, outlines: this.outlines, store: this.store, card, at, scale, canvas, lightAzimuth }
      drawPiece(drawing, card.pieces[i]!, i)
    }
    const pixels = kernels.straight(canvas, width, bits, card.seed)
    kernels.release(start)
    return { width, height, bits, pixels }
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
        corners: [
          corner(b.left, b.top),
          corner(b.right, b.top),
          corner(b.right, b.bottom),
          corner(b.left, b.bottom),
        ],
        place: { x, y },
        reference: outline.reference * enlarge,
      }
    })
  }

  private background(card: Card, canvas: Layers, scale: number, frame: Frames): void {
    if (!card.background) return
    const paint = settlePaint(card.background, momentOf(card, frame))
    if (paint.type === 'solid') {
      this.kernels.paintSolid(canvas, null, paint.colour, 1)
      return
    }
    const bounds = { left: 0, top: 0, right: card.frame.width, bottom: card.frame.height }
    const line = gradientLine(paint, bounds, { scale, rotation: 0, x: 0, y: 0 })
    this.kernels.paintRamp(canvas, null, { ...this.kernels.ramp(rampColours(paint.stops)), ...line }, 1)
  }
}
