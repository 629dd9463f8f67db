import type { Kernels, Plane } from '../kernels/kernels'
import type { Address } from '../kernels/module'

interface Kept {
  plane: Plane
  bytes: number
  /** The frame in which it was last asked for. */
  used: number
}

const MB = 1024 * 1024

/**
 * Planes kept between frames by the content they were made from, in the kernels' own memory, so that they are used
 * where they lie. A plane is kept when it is asked for the second time: what changes every frame is never copied in
 * vain. The shelf is a ring: new planes take the place of the oldest, never of one that this frame uses.
 */
export class PlaneShelf {
  private readonly kept = new Map<string, Kept>()
  private seen = new Set<string>()
  private readonly start: Address
  private next: Address
  private frame = 0

  constructor(
    private readonly kernels: Kernels,
    private readonly bytes = 112 * MB,
  ) {
    this.start = kernels.reserve(bytes)
    this.next = this.start
  }

  /** Planes that were asked for before this may be replaced from now on. */
  beginFrame(): void {
    this.frame++
  }

  /** The plane for `key`: kept, or made now and valid until the kernels' present mark is released. */
  plane(key: string, make: () => Plane): Plane {
    const kept = this.kept.get(key)
    if (kept) {
      kept.used = this.frame
      return kept.plane
    }
    const made = make()
    if (this.seen.has(key)) return this.keep(key, made) ?? made
    if (this.seen.size > 10_000) this.seen = new Set()
    this.seen.add(key)
    return made
  }

  private keep(key: string, made: Plane): Plane | null {
    const bytes = Math.ceil((made.w * made.h * 4) / 64) * 64
    if (bytes > this.bytes / 2) return null
    let at = this.next
    if (at + bytes > this.start + this.bytes) at = this.start
    for (const [other, { plane, bytes: size, used }] of this.kept) {
      if (plane.at + size <= at || plane.at >= at + bytes) continue
      if (used === this.frame) return null
      this.kept.delete(other)
    }
    const plane = this.kernels.copyPlane(made, at)
    this.kept.set(key, { plane, bytes, used: this.frame })
    this.next = at + bytes
    return plane
  }
}
