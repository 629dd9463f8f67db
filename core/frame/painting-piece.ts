import type { PaintingPiece } from '../card/schema'
import type { BlendMode } from '../kernels/blend-modes'
import type { Rect } from '../units'
import { numberValue } from '../values/evaluated'
import { Canvas } from './canvas'
import { formOf } from './form'
import type { GridBox } from './grid-box'
import { common } from './grid-box'
import { laidCoats } from './laid-coats'
import { paintedPicture } from './painted'
import type { Drawing, Standing } from './piece'

// How a painting is laid on a canvas.

/** Lays a painting without coats just as it was painted; false for what is none. */
export function drawBarePainting(drawing: Drawing, standing: Standing, canvas: Canvas, place: string): boolean {
  const { piece, at, blend, opacity } = standing
  if (piece.kind !== 'painting' || laidCoats(piece, at).length > 0) return false
  drawPainting(drawing, standing, piece, canvas, place, blend, opacity)
  return true
}

/** The strokes of a painting. Its picture lies on a coarse grid: it stays the same picture while strokes are added at its edges. */
export function drawPainting(
  drawing: Drawing,
  standing: Standing,
  piece: PaintingPiece,
  canvas: Canvas,
  place: string,
  blend: BlendMode = 'normal',
  opacity = 1,
): void {
  const { kernels } = drawing
  const bounds = formOf(drawing, standing, place)?.bounds
  const box = bounds && common(coarse(bounds), coarseBox(canvas.box))
  const part = box && common(box, canvas.box)
  if (!part || part.w <= 0 || part.h <= 0) return
  const mark = kernels.mark()
  const share = numberValue(piece.painted, standing.at, { min: 0, max: 100 }) / 100
  const picture = paintedPicture(drawing, piece.strokes, share, standing.placement, box)
  canvas.touch(part)
  kernels.blend(blend, new Canvas(kernels, picture, box).window(part), canvas.window(part), opacity)
  kernels.release(mark)
}

const COARSE = 256

function coarse({ left, top, right, bottom }: Rect): GridBox {
  const [x, y] = [Math.floor(left / COARSE) * COARSE, Math.floor(top / COARSE) * COARSE]
  return { x, y, w: Math.ceil((right - x) / COARSE) * COARSE, h: Math.ceil((bottom - y) / COARSE) * COARSE }
}

const coarseBox = ({ x, y, w, h }: GridBox) => coarse({ left: x, top: y, right: x + w, bottom: y + h })
