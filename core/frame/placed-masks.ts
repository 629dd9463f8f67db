import type { Mask, Piece } from '../card/schema'
import { createCoat } from '../card/create'
import { strokesBounds, strokesOf } from '../brushes/stroke'
import { even } from '../coats/definition'
import { TO_DISPLAY } from '../finishes/light'
import type { Plane } from '../kernels/kernels'
import type { MatteChannel } from '../masks/definition'
import { AREA_PARAMETERS, COMMON_MASK_PARAMETERS } from '../masks/definition'
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
import { finenessOf } from './form'
import type { GridBox } from './grid-box'
import type { FoundPiece } from './other-piece'
import { foundPiece, pictureOf, planFound } from './other-piece'
import { paintedPicture, placedBounds } from './painted'
import type { Drawing, Standing } from './piece'
import { spread } from './piece'
import { isLinear } from './prepared-paint'
import type { Trace } from './trace'

// Each mask of a piece where it stands on the render grid.

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
  mask: Mask
  definition: MaskDefinition
  values: never
  common: EvaluatedValues<typeof COMMON_MASK_PARAMETERS>
}

/** A mask on the render grid. */
export interface PlacedMask {
  mode: 'add' | 'take' | 'keep'
  /** What its sharp cover can touch; null for nothing. */
  bounds: Rect | null
  /** How far around a box its sharp cover must be computed. */
  margin: Px
  /** Its cover before feather, in a box on the blur's grid. */
  sharp(box: GridBox): Plane
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
  const values = { ...valuesAt(definition.parameters, mask, at), ...definition.also?.(mask) } as never
  return { mask, definition, values, common: valuesAt(COMMON_MASK_PARAMETERS, mask, at) }
}

/** A mask on the render grid; null for a matte that is within nothing. */
export function placedMask(drawing: Drawing, held: HeldPiece, laid: LaidMask, place: string): PlacedMask | null {
  const { mode, inverted, opacity } = laid.common
  const same = { mode, inverted, opacity: opacity / 100 }
  if (laid.definition.matte) {
    const matte = placedMatte(drawing, held, laid)
    return matte && { ...same, ...matte }
  }
  const placement = placementOf(drawing, held, laid)
  if (laid.definition.cover === 'strokes') return { ...same, ...placedPaint(drawing, held, laid, placement) }
  const px = (length: Length) => (typeof length === 'number' ? length : held.percent(length) / placement.scale)
  const { grow, feather } = laid.common
  const outline = outlineOf(drawing, placement, laid, px(grow), place)
  const { segments, bounds } = outline.bounds ? placed(outline, placement) : { segments: NOTHING, bounds: null }
  const { kernels } = drawing
  return {
    ...same,
    ...{ bounds, margin: 0, sigma: (px(feather) * placement.scale) / 2 },
    sharp: ({ x, y, w, h }) => kernels.coverage(kernels.segments(segments, -x, -y), w, h),
  }
}

const NOTHING = new Float64Array(0)

/** Where an area stands: from its own space to the render grid. A wash has no space of its own. */
function placementOf({ scale }: Drawing, { placement, at }: Omit<HeldPiece, 'percent'>, { mask }: LaidMask): Placement {
  const { x, y, rotation, space } = valuesAt(AREA_PARAMETERS, mask, at)
  const parent = space === 'piece' && placement ? placement : { scale, rotation: 0, x: 0, y: 0 }
  return within(parent, { x, y, rotation, scale: 1 })
}

const outlineOf = (
  { outlines }: Drawing,
  placement: Placement,
  { definition, values }: LaidMask,
  grow: Px,
  place: string,
): Outline => outlines.mask(definition, values, grow, finenessOf(placement), place)

/** The piece that a matte takes its cover from; null where there is none. */
function sourceOf(drawing: Drawing, piece: string, { mask, definition }: LaidMask) {
  const matte = definition.matte?.(mask)
  const found = matte?.source ? foundPiece(drawing, piece, matte.source) : null
  return found && { found: matte!.by === 'face' ? { ...found, piece: faceOf(found.piece) } : found, by: matte!.by }
}

const faces = new WeakMap<Piece, Piece>()

/** A piece as its plain shape: filled where it has an outline, without coats and finishes. */
function faceOf(piece: Piece): Piece {
  const fill = { ...createCoat('fill', 'face'), paint: { type: 'solid' as const, colour: '#FFFFFF' } }
  const masks = piece.masks.filter((mask) => worksAt(piece, mask, 'before'))
  const found = faces.get(piece) ?? {
    ...{ ...piece, blend: 'normal' as const, weave: null, finishes: [], masks },
    coats: { face: [fill], behind: [] },
  }
  faces.set(piece, found)
  return found
}

function placedMatte(drawing: Drawing, { piece, placement, percent }: HeldPiece, laid: LaidMask) {
  const source = sourceOf(drawing, piece.id, laid)
  if (!source) return null
  const { kernels, card, scale } = drawing
  const unit = placement?.scale ?? scale
  const px = (length: Length) => (typeof length === 'number' ? length * unit : percent(length))
  const by = px(laid.common.grow)
  const bounds = planFound(source.found).spans()
  return {
    ...grownAlpha(drawing, bounds, by, (box) => channelOf(source.found, source.by, box)),
    sigma: px(laid.common.feather) / 2,
  }

  function channelOf(found: FoundPiece, channel: MatteChannel, box: GridBox): Plane {
    const picture = pictureOf(found, box)
    if (channel !== 'lightness') return kernels.alpha(picture)
    if (!isLinear(card)) return kernels.mapPlane(picture, 'lightness', 0, 1)
    // Luma is that of display values.
    const shown = kernels.layers(box.w, box.h, false)
    kernels.copy(picture, shown)
    kernels.throughTables(shown, TO_DISPLAY())
    return kernels.mapPlane(shown, 'lightness', 0, 1)
  }
}

/** A cover of some alpha, its edge moved by render pixels. */
function grownAlpha({ kernels }: Drawing, bounds: Rect | null, by: Px, alpha: (box: GridBox) => Plane) {
  return {
    bounds: bounds && spread(bounds, even(Math.max(0, by) + 1)),
    // Distances are measured on both sides of an edge that is moved.
    margin: by === 0 ? 0 : 2 * Math.abs(by) + 4,
    sharp(box: GridBox): Plane {
      const cover = alpha(box)
      return by === 0 ? cover : kernels.ramped(kernels.fieldDistance(cover, Math.abs(by) + 2), by + 0.5, -1)
    },
  }
}

/** What strokes painted, where the mask stands. */
function placedPaint(drawing: Drawing, { percent }: HeldPiece, laid: LaidMask, placement: Placement) {
  const { kernels } = drawing
  const px = (length: Length) => (typeof length === 'number' ? length * placement.scale : percent(length))
  const { painted } = laid.values as { painted: number }
  const strokes = strokesOf(laid.mask)
  const bounds = strokesBounds(strokes)
  const alpha = (box: GridBox) => kernels.alpha(paintedPicture(drawing, strokes, painted / 100, placement, box))
  return {
    ...grownAlpha(drawing, bounds && placedBounds(bounds, placement), px(laid.common.grow), alpha),
    sigma: px(laid.common.feather) / 2,
  }
}

/** The pieces that mattes before the finishes take their cover from, as they stand: motion blur sees them move. */
export const matteSources = (drawing: Drawing, piece: Piece, at: Moment): FoundPiece[] =>
  laidMasks(piece, at, 'before').flatMap((laid) => sourceOf(drawing, piece.id, laid)?.found ?? [])

/** The edges of masks before the finishes where some of them move by themselves: motion blur sees how far. One each, at every moment. */
export function maskTraces(drawing: Drawing, piece: Piece, standing: Standing | null, place: string): (Trace | null)[] {
  if (!piece.masks.some((mask) => Object.values(mask).some(isMoving))) return []
  return piece.masks.map((mask) => {
    const laid = standing && worksAt(piece, mask, 'before') ? laidMask(mask, standing.at) : null
    if (!standing || !laid || laid.definition.matte) return null
    const placement = placementOf(drawing, standing, laid)
    return { outline: outlineOf(drawing, placement, laid, 0, place), placement }
  })
}
