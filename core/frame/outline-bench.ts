import type { Length } from '../card/moving'
import type { CoatBench } from '../coats/definition'
import type { Kernels, Plane } from '../kernels/kernels'
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

/** What coats compute with: planes of one outline in one box, made on demand and kept between frames. */
export class OutlineBench implements CoatBench {
  readonly px: (length: Length) => Px
  readonly lightAzimuth: Degrees
  private readonly planes = new Map<string, Plane>()

  /** `farthest`: the largest distance that a coat will ask for at the outline's own place. */
  constructor(
    private readonly kernels: Kernels,
    private readonly store: PlaneStore,
    private readonly setting: Setting,
    private readonly farthest: Px,
  ) {
    this.px = lengthIn(setting.scale, setting.reference)
    this.lightAzimuth = setting.lightAzimuth
  }

  coverage(dx = 0, dy = 0): Plane {
    return this.plane(`coverage ${dx} ${dy}`, () => {
      const { box } = this.setting
      const segments = this.kernels.segments(this.setting.segments, dx - box.x, dy - box.y)
      return this.kernels.coverage(segments, box.w, box.h)
    })
  }

  distance(reach: Px, dx = 0, dy = 0): Plane {
    // At its own place one plane with the farthest reach serves every coat.
    const far = dx === 0 && dy === 0 ? Math.max(reach, this.farthest) : reach
    return this.plane(`distance ${dx} ${dy} ${far}`, () => {
      const { box } = this.setting
      const segments = this.kernels.segments(this.setting.segments, dx - box.x, dy - box.y)
      return this.kernels.distance(segments, box.w, box.h, far)
    })
  }

  grown(edge: Px, dx = 0, dy = 0): Plane {
    return this.kernels.grown(this.distance(Math.abs(edge) + 1, dx, dy), edge)
  }

  band(inner: Px, outer: Px, above = 0): Plane {
    const reach = Math.max(Math.abs(inner), Math.abs(outer)) + 1
    return this.kernels.band(this.distance(reach), inner, outer, above)
  }

  blurred(plane: Plane, sigma: Px): Plane {
    return this.kernels.blurred(plane, sigma)
  }

  complemented(plane: Plane): Plane {
    this.kernels.complement(plane)
    return plane
  }

  private plane(name: string, make: () => Plane): Plane {
    let plane = this.planes.get(name)
    if (!plane) {
      plane = this.store.plane(this.kernels, `${this.setting.key} ${name}`, make)
      this.planes.set(name, plane)
    }
    return plane
  }
}
