import { Kept } from '../kept'
import type { CoatScale } from '../coats/definition'
import { innerDepth } from '../outline/inner-depth'
import type { Linear } from '../outline/linear'
import { determinant, growthOf, stretchKey } from '../outline/linear'
import type { Outline, Placement } from '../outline/outline'
import { middleOf, place as onGrid, placed, within } from '../outline/outline'
import type { Tint } from '../type/letter-motion'
import type { Point, Px, Rect } from '../units'
import { namingPiece } from './naming'
import type { FormedPiece, SizedOutline } from './outlines'
import type { Drawing, Standing } from './piece'
import type { Hook } from './prepared-paint'
import { lengthIn } from './recipe-tools'

// The outlines of a piece on the render grid, as its coats see them.

const depths = new WeakMap<Outline, Kept<string, number>>()

/** The largest inside distance of an outline in its own units, stretched; found once. */
function innerDepthOf(outline: Outline, stretch: Linear | undefined): number {
  const known = depths.get(outline) ?? new Kept<string, number>(8)
  depths.set(outline, known)
  return known.of(stretchKey(stretch), () =>
    innerDepth(stretch ? { ...outline, ...placed(outline, { scale: 1, rotation: 0, x: 0, y: 0, stretch }) } : outline),
  )
}

const mirrors = new WeakMap<Outline, Outline>()

/** An outline whose edges run the other way round once it is placed. */
function mirrored(outline: Outline): Outline {
  const found = mirrors.get(outline) ?? { ...outline, outward: outline.outward === 1 ? (-1 as const) : (1 as const) }
  mirrors.set(outline, found)
  return found
}

/** An outline on the render grid, with what coats need to know of it. */
export interface Form {
  outline: Outline
  /** From the outline's own units to the render grid. */
  placement: Placement
  segments: Float64Array
  bounds: Rect
  /** Where the middle of the outline's own bounds stands. */
  middle: Point
  reference: Px
  scale: CoatScale
  hook: Hook
  key: string
}

/** The form of a piece as it stands; for type its words at rest. */
export function formOf(drawing: Drawing, { piece, at, placement }: Standing, place: string): Form | null {
  // A wash has no shape.
  if (piece.kind === 'wash') return null
  const { outline, enlarge, rest } = namingPiece(piece, place, () =>
    drawing.outlines.of(piece as FormedPiece, at, finenessOf(placement), place),
  )
  if (!outline.bounds || !rest.outline.bounds) return null
  const full = { ...placement, scale: placement.scale * enlarge }
  return formFrom(drawing, outline, full, placement.scale, restHook(rest, rest.outline.bounds, placement))
}

/** Render pixels for a px of an outline that is placed so. */
export const finenessOf = ({ scale, stretch }: Placement): number => scale * growthOf(stretch)

/** Paints hang on the outline at rest. */
function restHook({ enlarge }: SizedOutline, bounds: Rect, placement: Placement): Hook {
  return { bounds, unit: 1 / enlarge, placement: { ...placement, scale: placement.scale * enlarge } }
}

function formFrom({ light }: Drawing, given: Outline, full: Placement, unit: number, hook: Hook): Form {
  const { stretch } = full
  const outline = stretch && determinant(stretch) < 0 ? mirrored(given) : given
  const { segments, bounds } = placed(outline, full)
  const reference = outline.reference * full.scale
  const scale: CoatScale = {
    px: lengthIn(unit, reference),
    light,
    innerDepth: () => innerDepthOf(outline, stretch) * full.scale,
    extent: { w: bounds.right - bounds.left, h: bounds.bottom - bounds.top },
  }
  const key = `${outline.key} ${full.scale} ${full.rotation} ${full.x} ${full.y}${stretchKey(stretch)}`
  const own = outline.bounds ?? bounds
  const middle = onGrid(full, middleOf(own))
  return { outline, placement: full, segments, bounds, middle, reference, scale, hook, key }
}

/** What is drawn of a piece: itself, or one for each of the letters that its letter motion moves. */
export interface DrawnForm {
  standing: Standing
  form: Form
  tints: readonly Tint[]
  /** Standard deviation in render pixels; 0 for none. */
  blur: Px
  /** Opacity beside that of the piece. */
  share: number
  /** Whether it is some bands of letters, beside others. */
  cut: boolean
}

/** Less blur is not seen, and not worth a canvas of its own. */
const LEAST_BLUR = 0.05

/**
 * A piece's forms back to front. A moving letter is scaled with its coats, and its paints stay where they hang at rest:
 * a gradient over the words travels with each letter.
 */
export function drawnForms(drawing: Drawing, standing: Standing, place: string): DrawnForm[] {
  const { piece, at, placement } = standing
  const formed = namingPiece(piece, place, () =>
    drawing.outlines.letters(piece as FormedPiece, at, finenessOf(placement), place),
  )
  if (!formed) {
    const form = formOf(drawing, standing, place)
    return form ? [{ standing, form, tints: [], blur: 0, share: 1, cut: false }] : []
  }
  const { rest } = namingPiece(piece, place, () =>
    drawing.outlines.of(piece as FormedPiece, at, finenessOf(placement), place),
  )
  if (!rest.outline.bounds) return []
  const hook = restHook(rest, rest.outline.bounds, placement)
  return formed.flatMap(({ outline, enlarge, origin, moved, opacity, blur, tints, cut }) => {
    if (!outline.bounds || opacity <= 0 || moved.scale <= 0) return []
    const state = within({ ...placement, scale: placement.scale * enlarge }, moved)
    const full = within(state, origin)
    const unit = placement.scale * moved.scale
    const form = formFrom(drawing, outline, full, unit, { ...hook, placement: state })
    const sigma = blur * placement.scale
    return [
      {
        standing: { ...standing, placement: { ...full, scale: unit } },
        ...{ form, tints, blur: sigma < LEAST_BLUR ? 0 : sigma, share: opacity, cut },
      },
    ]
  })
}
