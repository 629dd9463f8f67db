import type { Kernels, Layers, Plane } from '../kernels/kernels'
import type { Address } from '../kernels/module'
import type { GridBox } from './grid-box'

/** Pixels that were laid, and where they lie on the render grid. */
export interface LaidPicture extends Layers {
  readonly box: GridBox
}

interface Kept<T> {
  thing: T
  bytes: number
  /** The frame in which it was last asked for. */
  used: number
}

/** How things of one sort are laid on a shelf. */
interface Sort<T> {
  bytes(thing: T): number
  /** A copy at an address. */
  copy(thing: T, to: Address): T
}

/**
 * Planes or pictures kept between frames by the content they were made from, in the kernels' own memory, so that they are
 * used where they lie. A thing is kept when it is asked for the second time: what changes every frame is never copied in
 * vain. The shelf is a ring: new things take the place of the oldest, never of one that this frame uses. Without room
 * nothing is kept.
 */
export class Shelf<T extends { readonly at: Address }> {
  private readonly kept = new Map<string, Kept<T>>()
  private seen = new Set<string>()
  private readonly start: Address
  private next: Address
  private frame = 0

  constructor(
    kernels: Kernels,
    private readonly room: number,
    private readonly sort: Sort<T>,
  ) {
    this.start = kernels.reserve(room)
    this.next = this.start
  }

  /** Things that were asked for before this may be replaced from now on. */
  beginFrame(): void {
    this.frame++
  }

  /** What is kept under a key; null for nothing. */
  get(key: string): T | null {
    const kept = this.kept.get(key)
    if (!kept) return null
    kept.used = this.frame
    return kept.thing
  }

  /** The thing for `key`: kept, or made now and valid until the kernels' present mark is released. */
  of(key: string, make: () => T): T {
    const kept = this.get(key)
    if (kept) return kept
    const made = make()
    return this.comesAgain(key) ? (this.keep(key, made) ?? made) : made
  }

  /** Whether a key was asked for before: what it names will probably be asked for again. */
  comesAgain(key: string): boolean {
    if (this.kept.has(key) || this.seen.has(key)) return true
    if (this.seen.size > MOST_SEEN) this.seen = new Set()
    this.seen.add(key)
    return false
  }

  /** Keeps a copy; gives it, or null where there is no room. */
  keep(key: string, made: T): T | null {
    const bytes = Math.ceil(this.sort.bytes(made) / 64) * 64
    if (bytes > this.room) return null
    let at = this.next
    if (at + bytes > this.start + this.room) at = this.start
    for (const [other, { thing, bytes: size, used }] of this.kept) {
      if (thing.at + size <= at || thing.at >= at + bytes) continue
      if (used === this.frame) return null
      this.kept.delete(other)
    }
    const thing = this.sort.copy(made, at)
    this.kept.set(key, { thing, bytes, used: this.frame })
    this.next = at + bytes
    return thing
  }
}

const MOST_SEEN = 10_000

export const planeShelf = (kernels: Kernels, room: number): Shelf<Plane> =>
  new Shelf(kernels, room, {
    bytes: ({ w, h }) => w * h * 4,
    copy: (plane, to) => kernels.copyPlane(plane, to),
  })

export const pictureShelf = (kernels: Kernels, room: number): Shelf<LaidPicture> =>
  new Shelf(kernels, room, {
    bytes: ({ w, h }) => w * h * 16,
    copy(picture, at) {
      const { w, h, box } = picture
      const copied = { at, w, h, stride: w * 16, box }
      kernels.copy(picture, copied)
      return copied
    },
  })
