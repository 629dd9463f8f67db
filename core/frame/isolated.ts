import type { Insets } from '../coats/definition'
import type { Px, Rect } from '../units'
import { Canvas } from './canvas'
import type { GridBox, PieceBoxes } from './grid-box'
import { boxesFor } from './grid-box'
import type { Drawing } from './piece'
import type { LaidPicture } from './shelf'

/** A picture of its own: where it is computed, and the part of that which shows. */
export interface IsolatedPlan extends PieceBoxes {
  /** Names what is drawn and where, for what is made from it; null for what is never the same again. */
  name: string | null
}

/**
 * Plans a picture of its own for what has `bounds` and is read `reach` beyond them; `margin` is how far beyond the canvas
 * it is needed. Null where nothing of it shows there.
 */
export function planIsolated(
  name: string | null,
  bounds: Rect,
  reach: Insets,
  margin: Px,
  canvas: Canvas,
  world: GridBox,
): IsolatedPlan | null {
  const boxes = boxesFor(bounds, reach, margin, canvas.box, world)
  if (!boxes) return null
  const { x, y, w, h } = boxes.box
  return { ...boxes, name: name && `${name} ${x} ${y} ${w} ${h}` }
}

/**
 * The finished picture of something on a clear canvas: coats behind and face, or contents. It lies there until the kernels'
 * present mark is released; what is kept of it, or made from it, goes by the plan's name.
 */
export function isolated({ kernels }: Drawing, { box }: IsolatedPlan, draw: (canvas: Canvas) => void): LaidPicture {
  return drawnOn(new Canvas(kernels, kernels.layers(box.w, box.h), box), draw)
}

/** The same, on a part of a picture that is there already. */
export function isolatedOn({ kernels }: Drawing, ground: LaidPicture, box: GridBox, draw: (canvas: Canvas) => void) {
  const canvas = new Canvas(kernels, kernels.layers(box.w, box.h, false), box)
  kernels.copy(new Canvas(kernels, ground, ground.box).window(box), canvas.layers)
  canvas.touch(box)
  return drawnOn(canvas, draw)
}

function drawnOn(canvas: Canvas, draw: (canvas: Canvas) => void): LaidPicture {
  draw(canvas)
  return { ...canvas.layers, box: canvas.box }
}

/** The mean of several pictures in one place; of a single one the picture itself. */
export function isolatedMean<T>(
  drawing: Drawing,
  plan: IsolatedPlan,
  exposed: readonly T[],
  draw: (one: T, canvas: Canvas) => void,
): LaidPicture {
  const { kernels } = drawing
  if (exposed.length === 1) return isolated(drawing, plan, (canvas) => draw(exposed[0]!, canvas))
  return isolated(drawing, plan, (canvas) => {
    for (const one of exposed) {
      const mark = kernels.mark()
      kernels.addTo(
        isolated(drawing, plan, (inner) => draw(one, inner)),
        canvas.layers,
      )
      kernels.release(mark)
    }
    kernels.mean(canvas.layers, exposed.length, canvas.layers)
  })
}
