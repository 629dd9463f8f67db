import type { Length, StoredValue } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import { choice, number, toggle } from '../values/parameter-kinds'
import type { StoredCurve } from '../curves/curve'
import type { Join } from '../outline/corners'
import type { EvaluatedPaint, EvaluatedValues } from '../values/evaluated'
import type { Degrees, Px } from '../units'
import type { BlendMode } from '../kernels/blend-modes'
import { BLEND_MODES } from '../kernels/blend-modes'

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
 * One laid layer. `where` says on which side of the outline it shows. The compositor joins the two sides by the
 * outline's exact coverage, so masks run on across the edge instead of stopping at it.
 */
export interface Layer {
  where: 'inside' | 'outside' | 'everywhere'
  /** Cover 0–1 in the coat's box; null covers everything. */
  mask: PlaneRecipe | null
  paint: EvaluatedPaint
  /** For paint along the edge: the place of each pixel on its gradient, 0–1. */
  along?: PlaneRecipe
  /** 0–1, beside the coat's own opacity. */
  opacity?: number
  /** In place of the coat's blend mode. */
  blend?: BlendMode
  /** Laid on the paint before both go through the mask. */
  over?: Omit<Layer, 'where' | 'over'>[]
}

/** Where light comes from. */
export interface Light {
  azimuth: Degrees
  elevation: Degrees
}

/** How an offset edge turns its corners. */
export interface JoinStyle {
  join: Join
  /** A mitre longer than this many widths becomes a bevel. */
  limit: number
}

/** The sides of a body that the outline sweeps. */
export interface SweptPlanes {
  /** How much of each pixel the body covers, the outline itself included. */
  cover: PlaneRecipe
  /** 0 at the near end, 1 at the far one. */
  depth: PlaneRecipe
  /** Brightness of the side that is seen, 0–1. */
  shade: PlaneRecipe
}

/** What lengths mean and where light comes from: all that reach and measures may ask for. */
export interface CoatScale {
  /** A length of the card in render pixels, % taken of the piece's reference size. */
  px(length: Length): Px
  light: Light
  /** The largest distance from the edge inside the shape. */
  innerDepth(): Px
  /** Width and height of the placed outline. */
  extent: { w: Px; h: Px }
}

/** What a coat may ask of the engine while it is computed. All lengths are render pixels. */
export interface CoatTools extends CoatScale {
  /** Exact coverage of the outline moved by (dx, dy). */
  coverage(dx?: Px, dy?: Px): PlaneRecipe
  /** Signed distance to the edge, negative inside; exact as far as the coat `measures`. */
  distance(): PlaneRecipe
  /**
   * How much of each pixel lies inside the outline moved outward by `edge`, at most as far as the coat `measures`; all of
   * it moved by (dx, dy).
   */
  grown(edge: Px, style?: JoinStyle, dx?: Px, dy?: Px): PlaneRecipe
  /** As `grown`, by a ramp one pixel wide: quicker, and as good for what is blurred afterwards. */
  swollen(edge: Px, dx?: Px, dy?: Px): PlaneRecipe
  /** What `outer` covers beyond `inner`; `above` is the opacity of what covers the inner one. */
  band(inner: PlaneRecipe, outer: PlaneRecipe, above?: number): PlaneRecipe
  /** Gaussian blur; what lies outside the box counts as 0. */
  blurred(plane: PlaneRecipe, sigma: Px): PlaneRecipe
  /** 1 − plane. */
  complemented(plane: PlaneRecipe): PlaneRecipe
  /** (plane − from) · scale, cut to 0..1. */
  ramped(plane: PlaneRecipe, from: number, scale: number): PlaneRecipe
  absolute(plane: PlaneRecipe): PlaneRecipe
  product(a: PlaneRecipe, b: PlaneRecipe): PlaneRecipe
  difference(a: PlaneRecipe, b: PlaneRecipe): PlaneRecipe
  /** (curve(plane) + shift) · scale. */
  mapped(plane: PlaneRecipe, curve: StoredCurve, scale?: number, shift?: number): PlaneRecipe
  /** Grain of an amount 0–1: pixels drawn towards whole or clear by chance, the mean kept. */
  grained(plane: PlaneRecipe, amount: number): PlaneRecipe
  /** Diffuse light on a height field in px. */
  lit(height: PlaneRecipe, light: Light): PlaneRecipe
  /** The outline swept by (dx, dy), its far end scaled by `taper`, its sides lit. */
  swept(dx: Px, dy: Px, taper: number, light: Light): SweptPlanes
}

/** The coat's neighbours, for coats that are placed by them. */
export interface CoatPlace<V> {
  /** Coats of the same kind in the same stack, nearest to the face first, as they are at this moment. */
  siblings: readonly { id: string; on: boolean; opacity: number; values: V; above: boolean }[]
  /** Index of this coat among `siblings`. */
  index: number
}

/** A point of the cross-section at which a hand can change a length of the coat. */
export interface SectionMark {
  parameter: string
  /** Px from the edge, outward positive. */
  at: Px
  /** Px that the point moves for each px of the length; negative where it moves inward. */
  moves: number
  /** True where the slope or light cannot go farther than the shape is deep. */
  deep?: boolean
}

export interface CoatDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What the coat is for, in one sentence. */
  help: string
  parameters: T
  /** The group that a new coat of this kind goes to. */
  group(values: { side?: string }): DepthGroup
  /** True for a new coat that belongs behind the fills of its group, as an outline does; others go in front. */
  underFills?(values: { side?: string }): boolean
  /** What one begins with that is poured beneath another of its kind and side; `above`: the values of that one. */
  beneathAnother?(above: Readonly<Record<string, unknown>>): Readonly<Record<string, StoredValue>>
  /** The value shown on the coat's slab: the parameter that says most. */
  headline: keyof T & string
  /** True where the parts of the coat have blend modes of their own and the common one does not count. */
  ownBlend?: boolean
  /** How far the coat can touch beyond the outline. */
  reach(values: EvaluatedValues<T>, scale: CoatScale, place: CoatPlace<EvaluatedValues<T>>): Insets
  /**
   * How far around a pixel the coat looks in what it made from the outline: it is computed so far beyond the canvas. By
   * default as far as it reaches.
   */
  looks?: Px
  /** How far from the edge the coat measures distances; 0 where it needs none. */
  measures?(values: EvaluatedValues<T>, scale: CoatScale, place: CoatPlace<EvaluatedValues<T>>): Px
  /** True for coats that show offset edges as they are: what is nearest is then measured with the distances at once. */
  showsEdges?: boolean
  /**
   * How far contents may move while the shutter is open for the coat to be made once, of their mean: it must then differ
   * by less than 1.5 of 255 from the mean of coats made one by one. By default they may not move.
   */
  meanUpTo?(values: EvaluatedValues<T>, scale: CoatScale): Px
  /**
   * Where on the cross-section the coat's falloff curve stands: px from the edge at which what it takes in is `x` (0–1).
   * Null while its other values leave no such place.
   */
  falloffAt?(values: EvaluatedValues<T>, scale: CoatScale, x: number): Px | null
  /** Where the cross-section has handles; the edge's outward side points to the right. */
  marks?(values: EvaluatedValues<T>, scale: CoatScale, place: CoatPlace<EvaluatedValues<T>>): SectionMark[]
  layers(values: EvaluatedValues<T>, tools: CoatTools, place: CoatPlace<EvaluatedValues<T>>): Layer[]
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
  on: toggle({ label: 'Shown', help: 'Whether the coat is laid; it changes at a key', default: true }),
} as const

export const even = (reach: Px): Insets => ({ left: reach, top: reach, right: reach, bottom: reach })
export const NO_REACH = even(0)
