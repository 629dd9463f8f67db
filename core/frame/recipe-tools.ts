import type { Length } from '../values/moving'
import type { CoatTools, JoinStyle, Light, PlaneRecipe, SweptPlanes } from '../coats/definition'
import type { StoredCurve } from '../curves/curve'
import { curveName, readCurve } from '../curves/curve'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Kernels, Plane } from '../kernels/kernels'
import type { Px } from '../units'
import type { GridBox } from './grid-box'
import type { Shelf } from './shelf'

/** A recipe with the way to carry it out. */
export interface Step extends PlaneRecipe {
  make(): Plane
}

/** With this surfaceScale the light sees a plane at its own slope: a relief of 100 % with a straight profile is 45°. */
const TRUE_SLOPE = 0.5

/** What all toolSets of a piece share. */
export interface ToolSetting {
  kernels: Kernels
  shelf: Shelf<Plane>
  /** See View.draft. */
  draft: boolean
  /** Names the form and its placement: equal keys, equal planes. */
  key: string
  /** Render pixels per px of a coat: view scale times piece scale. */
  scale: number
  /** Render pixels that 100 % stands for. */
  reference: Px
  light: Light
  innerDepth: () => Px
  extent: { w: Px; h: Px }
}

/** Lengths of coats in render pixels. */
export function lengthIn(scale: number, reference: Px): (length: Length) => Px {
  return (length) => (typeof length === 'number' ? length * scale : (length.value / 100) * reference)
}

/**
 * What coats compute with: planes in one box, made on demand and kept between frames. What a form itself gives
 * (coverage, distance, sides) comes from its own kind of tools; all that follows from planes is here.
 */
export abstract class RecipeTools implements CoatTools {
  readonly px: (length: Length) => Px
  readonly light: Light
  readonly extent: { w: Px; h: Px }
  private readonly planes = new Map<string, Plane>()
  private readonly place: string

  constructor(
    protected readonly setting: ToolSetting,
    readonly box: GridBox,
    /** Seeds the grain of the coat in work. */
    private readonly seed: () => number,
  ) {
    this.px = lengthIn(setting.scale, setting.reference)
    this.light = setting.light
    this.extent = setting.extent
    this.place = `${setting.key} ${box.x} ${box.y} ${box.w} ${box.h}`
  }

  abstract coverage(dx?: Px, dy?: Px): Step
  abstract distance(dx?: Px, dy?: Px): Step
  abstract grown(edge: Px, style?: JoinStyle, dx?: Px, dy?: Px): Step
  abstract swept(dx: Px, dy: Px, taper: number, light: Light): SweptPlanes

  protected get kernels(): Kernels {
    return this.setting.kernels
  }

  innerDepth(): Px {
    return this.setting.innerDepth()
  }

  swollen(edge: Px, dx = 0, dy = 0): Step {
    return this.ramped(this.distance(dx, dy), edge + 0.5, -1)
  }

  band(inner: PlaneRecipe, outer: PlaneRecipe, above = 0): Step {
    const name = `band(${inner.name},${outer.name},${above})`
    return this.step(name, () => this.kernels.band(this.plane(inner), this.plane(outer), above))
  }

  blurred(plane: PlaneRecipe, sigma: Px): Step {
    if (sigma <= 0) return plane as Step
    return this.step(`blurred(${sigma},${plane.name})`, () => this.kernels.blurred(this.plane(plane), sigma))
  }

  complemented(plane: PlaneRecipe): Step {
    return this.step(`complemented(${plane.name})`, () => this.kernels.complemented(this.plane(plane)))
  }

  ramped(plane: PlaneRecipe, from: number, scale: number): Step {
    const name = `ramped(${from},${scale},${plane.name})`
    return this.step(name, () => this.kernels.ramped(this.plane(plane), from, scale))
  }

  absolute(plane: PlaneRecipe): Step {
    return this.step(`absolute(${plane.name})`, () => this.kernels.absolute(this.plane(plane)))
  }

  product(a: PlaneRecipe, b: PlaneRecipe): Step {
    return this.step(`product(${a.name},${b.name})`, () => this.kernels.product(this.plane(a), this.plane(b)))
  }

  difference(a: PlaneRecipe, b: PlaneRecipe): Step {
    return this.step(`difference(${a.name},${b.name})`, () => this.kernels.difference(this.plane(a), this.plane(b)))
  }

  mapped(plane: PlaneRecipe, curve: StoredCurve, scale = 1, shift = 0): Step {
    // A straight line needs no table.
    if (curve === 'linear') {
      if (scale === 1 && shift === 0) return plane as Step
      const name = `scaled(${scale},${shift},${plane.name})`
      return this.step(name, () => this.kernels.placeScaled(this.plane(plane), -shift, scale))
    }
    const name = `mapped(${curveName(curve)},${scale},${shift},${plane.name})`
    return this.step(name, () => this.kernels.mapped(this.plane(plane), readCurve(curve), scale, shift))
  }

  grained(plane: PlaneRecipe, amount: number): Step {
    const seed = this.seed()
    const { x, y } = this.box
    const name = `grained(${amount},${seed},${plane.name})`
    return this.step(name, () => this.kernels.grained(this.plane(plane), x, y, amount, seed))
  }

  lit(height: PlaneRecipe, { azimuth, elevation }: Light): Step {
    // The direction to the light, y down (Filter Effects 1 §9.3, feDistantLight).
    const flat = cosDegrees(elevation)
    const light = { x: cosDegrees(azimuth) * flat, y: -sinDegrees(azimuth) * flat, z: sinDegrees(elevation) }
    const name = `lit(${azimuth},${elevation},${height.name})`
    return this.step(name, () => this.kernels.lit(this.plane(height), light, TRUE_SLOPE))
  }

  /** The part of a plane that a window shows. */
  cropped(plane: PlaneRecipe, window: GridBox): Step {
    const { x, y } = this.box
    const { w, h } = window
    const name = `cropped(${window.x},${window.y},${w},${h},${plane.name})`
    return this.step(name, () => this.kernels.cropped(this.plane(plane), window.x - x, window.y - y, w, h))
  }

  /** Carries a recipe out. The plane is shared: nobody writes to it. */
  plane(recipe: PlaneRecipe): Plane {
    let plane = this.planes.get(recipe.name)
    if (!plane) {
      plane = this.setting.shelf.of(`${this.place} ${recipe.name}`, () => (recipe as Step).make())
      this.planes.set(recipe.name, plane)
    }
    return plane
  }

  /**
   * What this box shows of a plane that lies elsewhere, moved by (dx, dy); bilinear where that is a broken number
   * of pixels. Beyond the plane stands `outside`.
   */
  protected seen(plane: Plane, { x, y }: GridBox, outside: number, dx = 0, dy = 0): Plane {
    const { kernels, box } = this
    const [ix, iy] = [Math.floor(dx), Math.floor(dy)]
    const [left, top] = [box.x - x - ix, box.y - y - iy]
    if (dx === ix && dy === iy) return kernels.cropped(plane, left, top, box.w, box.h, outside)
    // A pixel more at the left and the top is mixed in; widths are whole vectors.
    const wide = kernels.cropped(plane, left - 4, top - 1, box.w + 4, box.h + 1, outside)
    return kernels.cropped(kernels.shifted(wide, dx - ix, dy - iy), 4, 1, box.w, box.h)
  }

  protected step(name: string, make: () => Plane): Step {
    return { name, make }
  }
}
