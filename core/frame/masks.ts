import type { Mask, Piece } from '../card/schema'
import { even } from '../coats/definition'
import { blurReach } from '../kernels/gauss'
import type { Plane } from '../kernels/kernels'
import { COMMON_MASK_PARAMETERS } from '../masks/definition'
import type { MaskDefinition } from '../masks/definition'
import { maskOf } from '../masks/table'
import type { Outline, Placement } from '../outline/outline'
import { placed, within } from '../outline/outline'
import type { Px, Rect } from '../units'
import type { EvaluatedValues } from '../values/evaluated'
import { switchValue, valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import type { Length } from '../values/moving'
import { isMoving } from '../values/moving'
import { Canvas } from './canvas'
import { finenessOf } from './form'
import type { GridBox } from './grid-box'
import { boxesFor, joined } from './grid-box'
import { isolated, planIsolated } from './isolated'
import { namingPiece } from './naming'
import type { Drawing, Standing } from './piece'
import { spread } from './piece'
import type { Trace } from './trace'

// What masks leave of a piece. Masks are joined as CSS Masking 1 §7.7 joins mask layers (mask-composite).

export type Stage = 'before' | 'after'

/** What masks hold. */
export interface HeldPiece {
  piece: Piece
  at: Moment
  /** Null for a wash, which has no space of its own. */
  placement: Placement | null
  /** Render pixels of a length in % of it. */
  percent(length: Length): Px
}

/** A mask with its values at a moment. */
interface LaidMask {
  definition: MaskDefinition
  values: never
  common: EvaluatedValues<typeof COMMON_MASK_PARAMETERS>
}

/** A mask's area on the render grid. */
interface PlacedMask {
  mode: 'add' | 'take' | 'keep'
  segments: Float64Array
  bounds: Rect | null
  /** Standard deviation of the feather in render pixels. */
  sigma: Px
  inverted: boolean
  /** 0–1. */
  opacity: number
}

/** Whether a mask works on a piece before its finishes; without finishes all of them do. */
export function worksAt({ kind, finishes }: Pick<Piece, 'kind' | 'finishes'>, mask: { stage: Stage }, stage: Stage) {
  // A wash is its finishes: masks say where they work.
  if (kind === 'wash') return stage === 'after'
  return (finishes.length === 0 ? 'before' : mask.stage) === stage
}

/** The masks that work on a piece, in the order in which they do. */
export function laidMasks(piece: Piece, at: Moment, stage: Stage): LaidMask[] {
  return [...piece.masks].reverse().flatMap((mask) => (worksAt(piece, mask, stage) ? (laidMask(mask, at) ?? []) : []))
}

/** Null for one that is off. One that adds nothing, or takes nothing away, still counts as the first of them. */
function laidMask(mask: Mask, at: Moment): LaidMask | null {
  if (!switchValue(mask.on, at)) return null
  const definition = maskOf(mask.kind)
  const values = valuesAt(definition.parameters, mask, at) as never
  return { definition, values, common: valuesAt(COMMON_MASK_PARAMETERS, mask, at) }
}

/** Where a mask stands: from its own space to the render grid. A wash has no space of its own. */
function placementOf({ scale }: Drawing, piece: Placement | null, { common }: LaidMask): Placement {
  const { x, y, rotation, space } = common
  const parent = space === 'piece' && piece ? piece : { scale, rotation: 0, x: 0, y: 0 }
  return within(parent, { x, y, rotation, scale: 1 })
}

function placedMask(
  drawing: Drawing,
  { placement: piece, percent }: HeldPiece,
  mask: LaidMask,
  place: string,
): PlacedMask {
  const { definition, values, common } = mask
  const placement = placementOf(drawing, piece, mask)
  const px = (length: Length) => (typeof length === 'number' ? length : percent(length) / placement.scale)
  const outline = outlineOf(drawing, placement, definition, values, px(common.grow), place)
  const { mode, inverted, opacity } = common
  const sigma = (px(common.feather) * placement.scale) / 2
  const seen = outline.bounds ? placed(outline, placement) : { segments: NOTHING, bounds: null }
  return { ...seen, mode, sigma, inverted, opacity: opacity / 100 }
}

const outlineOf = (
  { outlines }: Drawing,
  placement: Placement,
  definition: MaskDefinition,
  values: never,
  grow: Px,
  place: string,
): Outline => outlines.mask(definition, values, grow, finenessOf(placement), place)

const NOTHING = new Float64Array(0)

/** The edges of masks before the finishes where some of them move by themselves: motion blur sees how far. One each, at every moment. */
export function maskTraces(drawing: Drawing, piece: Piece, standing: Standing | null, place: string): (Trace | null)[] {
  if (!piece.masks.some((mask) => Object.values(mask).some(isMoving))) return []
  return piece.masks.map((mask) => {
    const laid = standing && worksAt(piece, mask, 'before') ? laidMask(mask, standing.at) : null
    if (!standing || !laid) return null
    const placement = placementOf(drawing, standing.placement, laid)
    return { outline: outlineOf(drawing, placement, laid.definition, laid.values, 0, place), placement }
  })
}

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
    laidMasks(held.piece, held.at, stage).map((mask) => placedMask(drawing, held, mask, place)),
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
  const { segments, bounds, sigma, inverted, opacity } = mask
  const reach = blurReach(sigma)
  // As far around the box as the blur looks, on its grid: wherever it is cut, the same bits come out.
  const boxes = bounds && boxesFor(bounds, even(reach + 1), reach, box, world)
  let cover = kernels.plane(box.w, box.h, 0)
  if (boxes) {
    const { x, y, w, h } = boxes.box
    const sharp = kernels.coverage(kernels.segments(segments, -x, -y), w, h)
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
