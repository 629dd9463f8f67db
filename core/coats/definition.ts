import type { Length } from '../card/moving'
import type { Parameters } from '../card/parameters'
import { choice, number } from '../card/parameters'
import type { SettledPaint, SettledValues } from '../card/settled'
import type { Degrees, Px } from '../units'
import { BLEND_MODES } from '../paint/blend-modes'

/** The two groups of a piece's coats: laid on each other as its face, or lying behind it on the card. */
export type DepthGroup = 'face' | 'behind'

/** How far a coat reaches beyond the outline, in render pixels. */
export interface Insets {
  left: Px
  top: Px
  right: Px
  bottom: Px
}

declare const recipe: unique symbol

/**
 * A plane that is not made yet. Only the last one of a chain is asked for, so what was kept from an earlier
 * frame saves all the steps before it too.
 */
export interface PlaneRecipe {
  /** Says what the plane holds: equal names, equal planes. */
  readonly name: string
  readonly [recipe]?: never
}

/**
 * One laid layer. `field` says where the mask counts: within the outline, outside it, or behind the face.
 * The compositor joins the fields by the outline's exact coverage, so masks run on across the edge instead
 * of stopping at it.
 */
export interface Layer {
  field: 'inside' | 'outside' | 'behind'
  /** Cover 0–1 in the coat's box; null covers everything. */
  mask: PlaneRecipe | null
  paint: SettledPaint
  /** Behind only: kept off the area under the shape. */
  knockOut?: boolean
}

/** What a coat may ask of the engine while it is computed. All lengths are render pixels. */
export interface CoatBench {
  /** A length of the card in render pixels, % taken of the piece's reference size. */
  px(length: Length): Px
  /** The angle that the key light comes from. */
  lightAzimuth: Degrees
  /** Exact coverage of the outline moved by (dx, dy). */
  coverage(dx?: Px, dy?: Px): PlaneRecipe
  /**
   * How much of each pixel lies inside the outline, grown by `edge`. `reach` (at least |edge| + 1) is how far
   * distances are measured; coats that name the same reach share the measurement.
   */
  grown(edge: Px, reach: Px, dx?: Px, dy?: Px): PlaneRecipe
  /** The band between two offsets; `above` is the opacity of what covers its inner side. */
  band(inner: Px, outer: Px, reach: Px, above?: number): PlaneRecipe
  /** Gaussian blur; what lies outside the box counts as 0. */
  blurred(plane: PlaneRecipe, sigma: Px): PlaneRecipe
  /** 1 − plane. */
  complemented(plane: PlaneRecipe): PlaneRecipe
}

/** The coat's neighbours, for coats that are placed by them. */
export interface CoatPlace<V> {
  /** Coats of the same kind in the same stack, nearest to the face first, with what they settled to. */
  siblings: readonly { id: string; on: boolean; opacity: number; values: V; above: boolean }[]
  /** Index of this coat among `siblings`. */
  index: number
}

export interface CoatDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What the coat is for, in one sentence. */
  help: string
  parameters: T
  /** The group that a new coat of this kind goes to. */
  group(values: { side?: string }): DepthGroup
  /** The value shown on the coat's slab: the parameter that says most. */
  headline: keyof T & string
  reach(
    values: SettledValues<T>,
    bench: Pick<CoatBench, 'px' | 'lightAzimuth'>,
    place: CoatPlace<SettledValues<T>>,
  ): Insets
  layers(values: SettledValues<T>, bench: CoatBench, place: CoatPlace<SettledValues<T>>): Layer[]
}

/** Keeps the parameter types while registering. */
export const defineCoat = <T extends Parameters>(definition: CoatDefinition<T>): CoatDefinition<T> => definition

export const SIDES = {
  outside: { value: 'outside', label: 'Outside' },
  inside: { value: 'inside', label: 'Inside' },
  across: { value: 'across', label: 'Across' },
} as const

/** What every coat has beside its own parameters. */
export const COMMON_COAT_PARAMETERS = {
  opacity: number({
    label: 'Opacity',
    help: 'How much of the coat is laid, in %',
    default: 100,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  blend: choice({
    label: 'Blend',
    help: 'How the coat mixes with what lies below it',
    default: 'normal',
    options: BLEND_MODES,
  }),
} as const

export const even = (reach: Px): Insets => ({ left: reach, top: reach, right: reach, bottom: reach })
export const NO_REACH = even(0)
