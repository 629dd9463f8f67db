import type { Length } from '../card/moving'
import type { CoatBench, PlaneRecipe } from '../coats/definition'
import type { Kernels, Plane, Segments } from '../kernels/kernels'
import type { Degrees, Px } from '../units'
import type { GridBox } from './grid-box'
import type { PlaneStore } from './plane-store'

/** Where a piece stands in the render, and what its lengths mean. */
export interface Setting {
  /** Names outline and placement: equal keys, equal planes. */
  key: string
  /** Segments in render pixels. */
  segments: Float64Array
  box: GridBox
  /** Render pixels per px of a coat: view scale times piece scale. */
  scale: number
  /** Render pixels that 100 % stands for. */
  reference: Px
  lightAzimuth: Degrees
}

/** Lengths of coats in render pixels. */
export function lengthIn(scale: number, reference: Px): (length: Length) => Px {
  return (length) => (typeof length === 'number' ? length * scale : (length.value / 100) * reference)
}

/** A recipe with the way to carry it out. */
interface Step extends PlaneRecipe {
  make(): Plane
}

/** What coats compute with: planes of one outline in one box, made on demand and kept between frames. */
export class OutlineBench implements CoatBench {
  readonly px: (length: Length) => Px
  readonly lightAzimuth: Degrees
  private readonly planes = new Map<string, Plane>()
  private readonly place: string

  constructor(
    private readonly kernels: Kernels,
    private readonly store: PlaneStore,
    private readonly setting: Setting,
  ) {
    const { key, box } = setting
    this.px = lengthIn(setting.scale, setting.reference)
    this.lightAzimuth = setting.lightAzimuth
    this.place = `${key} ${box.x} ${box.y} ${box.w} ${box.h}`
  }

  coverage(dx = 0, dy = 0): Step {
    const { w, h } = this.setting.box
    const make = () => this.kernels.coverage(this.segments(dx, dy), w, h)
    return { name: `coverage(${dx},${dy})`, make }
  }

  grown(edge: Px, reach: Px, dx = 0, dy = 0): Step {
    const distance = this.distance(reach, dx, dy)
    return { name: `grown(${edge},${distance.name})`, make: () => this.kernels.grown(this.plane(distance), edge) }
  }

  band(inner: Px, outer: Px, reach: Px, above = 0): Step {
    const distance = this.distance(reach, 0, 0)
    const make = () => this.kernels.band(this.plane(distance), inner, outer, above)
    return { name: `band(${inner},${outer},${above},${distance.name})`, make }
  }

  blurred(plane: PlaneRecipe, sigma: Px): Step {
    return { name: `blurred(${sigma},${plane.name})`, make: () => this.kernels.blurred(this.plane(plane), sigma) }
  }

  complemented(plane: PlaneRecipe): Step {
    return { name: `complemented(${plane.name})`, make: () => this.kernels.complemented(this.plane(plane)) }
  }

  /** Carries a recipe out. The plane is shared: nobody writes to it. */
  plane(recipe: PlaneRecipe): Plane {
    let plane = this.planes.get(recipe.name)
    if (!plane) {
      plane = this.store.plane(this.kernels, `${this.place} ${recipe.name}`, () => (recipe as Step).make())
      this.planes.set(recipe.name, plane)
    }
    return plane
  }

  private distance(reach: Px, dx: Px, dy: Px): Step {
    const { w, h } = this.setting.box
    const make = () => this.kernels.distance(this.segments(dx, dy), w, h, reach)
    return { name: `distance(${reach},${dx},${dy})`, make }
  }

  private segments(dx: Px, dy: Px): Segments {
    const { box, segments } = this.setting
    return this.kernels.segments(segments, dx - box.x, dy - box.y)
  }
}
