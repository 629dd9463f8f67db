import type { Point } from '../units'

/**
 * Points on a whole-numbered grid, each with a mark: a hash table over plain arrays (open addressing with linear probing,
 * D. Knuth, The Art of Computer Programming 3, §6.4), since names of points cost more than the work they are looked up for.
 */
export class GridPoints {
  private readonly places: Float64Array
  /** 0 where nothing is; else 1 and the mark. */
  private readonly marks: Uint8Array
  private readonly mask: number

  /** Holds so many points at most. */
  constructor(most: number) {
    let size = 16
    while (size < most * 2) size *= 2
    this.places = new Float64Array(size * 2)
    this.marks = new Uint8Array(size)
    this.mask = size - 1
  }

  /** Of several points in one place one marked one marks the place. */
  put(point: Readonly<Point>, marked: boolean): void {
    const slot = this.slotOf(point)
    this.places[slot * 2] = point.x
    this.places[slot * 2 + 1] = point.y
    this.marks[slot]! |= marked ? 3 : 1
  }

  has(point: Readonly<Point>): boolean {
    return this.marks[this.slotOf(point)] !== 0
  }

  /** False also for a point that is not there. */
  marked(point: Readonly<Point>): boolean {
    return this.marks[this.slotOf(point)] === 3
  }

  /** Where a point lies, or the empty slot in which it would. */
  private slotOf({ x, y }: Readonly<Point>): number {
    const { places, marks, mask } = this
    const mixed = Math.imul(x, 0x85ebca6b) ^ Math.imul(y, 0xc2b2ae35)
    let slot = (mixed ^ (mixed >>> 15)) & mask
    while (marks[slot] !== 0 && (places[slot * 2] !== x || places[slot * 2 + 1] !== y)) slot = (slot + 1) & mask
    return slot
  }
}
