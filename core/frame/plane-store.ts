import type { Kernels, Plane } from '../kernels/kernels'

interface Kept {
  w: number
  h: number
  values: Float32Array
}

/**
 * Planes kept between frames by the content they were made from. A plane is stored when it is asked for the
 * second time: what changes every frame is never copied in vain. The least recently used go first.
 */
export class PlaneStore {
  private readonly kept = new Map<string, Kept>()
  private seen = new Set<string>()
  private bytes = 0

  constructor(private readonly limit = 256 * 1024 * 1024) {}

  /** The plane for `key`, from the store or made now. It belongs to the current mark of the kernels. */
  plane(kernels: Kernels, key: string, make: () => Plane): Plane {
    const kept = this.kept.get(key)
    if (kept) {
      this.kept.delete(key)
      this.kept.set(key, kept)
      return kernels.planeFrom(kept.w, kept.h, kept.values)
    }
    const plane = make()
    if (this.seen.has(key)) this.store(key, { w: plane.w, h: plane.h, values: kernels.floats(plane).slice() })
    if (this.seen.size > 10_000) this.seen = new Set()
    this.seen.add(key)
    return plane
  }

  private store(key: string, kept: Kept): void {
    this.kept.set(key, kept)
    this.bytes += kept.values.byteLength
    for (const [oldest, { values }] of this.kept) {
      if (this.bytes <= this.limit) break
      this.kept.delete(oldest)
      this.bytes -= values.byteLength
    }
  }
}
