import { even } from '../coats/definition'
import { blurReach } from '../kernels/gauss'
import type { Plane } from '../kernels/kernels'
import type { Rect } from '../units'
import { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { boxesFor, joined } from './grid-box'
import { isolated, planIsolated } from './isolated'
import { namingPiece } from './naming'
import type { Drawing, Standing } from './piece'
import { spread } from './piece'
import type { HeldPiece, PlacedMask, Stage } from './placed-masks'
import { laidMasks, placedMask } from './placed-masks'

// What masks leave of a piece. Masks are joined as CSS Masking 1 §7.7 joins mask layers (mask-composite).

/** Where anything can be left by masks; null for nowhere. */
export function heldBounds(drawing: Drawing, held: HeldPiece, stage: Stage, place: string): Rect | null {
  const masks = placedMasks(drawing, held, stage, place)
  return masks.reduce<Rect | null>(
    (all, mask) => {
      if (mask.mode === 'take') return all
      const own = mask.inverted ? EVERYWHERE : mask.bounds && spread(mask.bounds, even(blurReach(mask.sigma) + 1))
      return mask.mode === 'add' ? joined(all, own) : shared(all, own)
    },
    masks[0]?.mode === 'add' ? null : EVERYWHERE,
  )
}

const EVERYWHERE: Rect = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity }

/** The part that two bounds share; null for nothing. */
export function shared(a: Rect | null, b: Rect | null): Rect | null {
  if (!a || !b) return null
  const both = {
    ...{ left: Math.max(a.left, b.left), top: Math.max(a.top, b.top) },
    ...{ right: Math.min(a.right, b.right), bottom: Math.min(a.bottom, b.bottom) },
  }
  return both.right > both.left && both.bottom > both.top ? both : null
}

const placedMasks = (drawing: Drawing, held: HeldPiece, stage: Stage, place: string): PlacedMask[] =>
  namingPiece(held.piece, place, () =>
    laidMasks(held.piece, held.at, stage).flatMap((mask) => placedMask(drawing, held, mask, place) ?? []),
  )

/** How much masks leave at each pixel of a box; null where they leave all. */
export function heldCover(drawing: Drawing, held: HeldPiece, stage: Stage, box: GridBox, place: string): Plane | null {
  const { kernels } = drawing
  const masks = placedMasks(drawing, held, stage, place)
  /** Null for all. */
  let cover: Plane | null = null
  for (const [i, mask] of masks.entries()) {
    const own = coverOf(drawing, mask, box)
    if (mask.mode === 'take') {
      const left = kernels.complemented(own)
      cover = cover ? kernels.product(cover, left) : left
    } else if (mask.mode === 'keep' || i === 0) cover = cover ? kernels.product(cover, own) : own
    else if (cover) {
      // c + m − c·m, by what both leave open.
      const open = kernels.product(kernels.complemented(cover), kernels.complemented(own))
      cover = kernels.complemented(open)
    }
  }
  return cover
}

/** The cover of one mask in a box. */
function coverOf({ kernels, world }: Drawing, mask: PlacedMask, box: GridBox): Plane {
  const { bounds, margin, sigma, inverted, opacity } = mask
  const reach = blurReach(sigma)
  // As far around the box as the blur looks, on its grid: wherever it is cut, the same bits come out.
  const boxes = bounds && boxesFor(bounds, even(reach + 1), reach + margin, box, world)
  let cover = kernels.plane(box.w, box.h, 0)
  if (boxes) {
    const { x, y } = boxes.box
    const sharp = mask.sharp(boxes.box)
    cover = kernels.cropped(kernels.blurred(sharp, sigma), box.x - x, box.y - y, box.w, box.h)
  }
  if (inverted) cover = kernels.complemented(cover)
  return opacity < 1 ? kernels.placeScaled(cover, 0, opacity) : cover
}

/**
 * Draws a piece on a canvas of its own and lays what its masks leave of it. `touched` is what it can touch, `draw` draws it whole and
 * normally.
 */
export function layMasked(
  drawing: Drawing,
  standing: Standing & HeldPiece,
  canvas: Canvas,
  place: string,
  touched: Rect | null,
  draw: (bare: Standing, inner: Canvas) => void,
): void {
  const { kernels, world } = drawing
  const left = shared(touched, heldBounds(drawing, standing, 'before', place))
  const plan = left && planIsolated(null, left, even(0), 0, canvas, world)
  if (!plan) return
  const { box, visible } = plan
  const mark = kernels.mark()
  const picture = isolated(drawing, plan, (inner) => draw({ ...standing, opacity: 1, blend: 'normal' }, inner))
  const mask = heldCover(drawing, standing, 'before', visible, place)
  canvas.touch(visible)
  const seen = new Canvas(kernels, picture, box).window(visible)
  kernels.layPicture(standing.blend, canvas.window(visible), { mask, gate: null }, seen, standing.opacity)
  kernels.release(mark)
}
