import type { JoinStyle } from '../coats/definition'
import type { DistanceField, Joins, Kernels, Plane, Segments } from '../kernels/kernels'
import { cornersOf } from '../outline/corners'
import type { Outline } from '../outline/outline'
import type { Point, Px } from '../units'
import type { GridBox } from './grid-box'
import type { Shelf } from './shelf'

const NO_SHIFT: Point = { x: 0, y: 0 }

/**
 * The distances around one placed outline, measured once for all its coats, as far as the one that needs most.
 * `key` names outline and placement.
 */
export class EdgeField {
  private field: DistanceField | null = null
  private bare: Plane | null = null
  private local: Segments | null = null
  private readonly joined = new Map<string, { field: DistanceField; joins: Joins | null }>()
  private readonly name: string
  private readonly moved = new Map<string, EdgeField>()

  constructor(
    private readonly kernels: Kernels,
    private readonly shelf: Shelf<Plane>,
    private readonly form: { key: string; outline: Outline; segments: Float64Array },
    readonly box: GridBox,
    readonly reach: Px,
    /** Whether what is nearest will be asked for too. */
    private readonly named: boolean,
    /** Moves the outline within the box. */
    private readonly shift: Point = NO_SHIFT,
  ) {
    this.name = `${form.key} field ${box.x} ${box.y} ${box.w} ${box.h} ${reach} ${shift.x} ${shift.y}`
  }

  /** The same outline moved by a part of a pixel, measured anew in the same box. */
  movedBy(x: Px, y: Px): EdgeField {
    if (x === 0 && y === 0) return this
    const name = `${x} ${y}`
    const { kernels, shelf, form, box, reach, named } = this
    const found = this.moved.get(name) ?? new EdgeField(kernels, shelf, form, box, reach, named, { x, y })
    this.moved.set(name, found)
    return found
  }

  distance(): Plane {
    if (this.field || this.named) return this.plain().distance
    const { w, h } = this.box
    const make = () => this.kernels.distance(this.segments(), w, h, this.reach)
    this.bare ??= this.shelf.of(`${this.name} bare`, make)
    return this.bare
  }

  /** How much of each pixel lies within the outline moved outward by `edge`. */
  grown(edge: Px, style: JoinStyle): Plane {
    const { join, limit } = style
    return this.shelf.of(`${this.name} grown ${edge} ${join} ${join === 'mitre' ? limit : ''}`, () => {
      const { field, joins } = this.withJoins(style)
      return this.kernels.grown(field, this.segments(), edge, joins)
    })
  }

  private segments(): Segments {
    const { box, form, shift } = this
    this.local ??= this.kernels.segments(form.segments, shift.x - box.x, shift.y - box.y)
    return this.local
  }

  private plain(): DistanceField {
    if (!this.field) {
      const { w, h } = this.box
      let made: DistanceField | null = null
      const make = () => (made ??= this.kernels.distanceField(this.segments(), w, h, this.reach))
      this.field = {
        distance: this.shelf.of(`${this.name} distance`, () => make().distance),
        ids: this.shelf.of(`${this.name} ids`, () => make().ids),
      }
    }
    return this.field
  }

  private withJoins({ join, limit }: JoinStyle): { field: DistanceField; joins: Joins | null } {
    const name = `${join} ${limit}`
    let found = this.joined.get(name)
    if (!found) {
      const { outline, segments } = this.form
      const corners = cornersOf(outline, segments, { join, limit }, this.reach)
      if (corners.length === 0) found = { field: this.plain(), joins: null }
      else {
        const { x, y, w, h } = this.box
        const local = this.segments()
        const joins = this.kernels.joins(corners, local.count, this.shift.x - x, this.shift.y - y)
        found = { field: this.kernels.joinedField(local, joins, w, h, this.reach), joins }
      }
      this.joined.set(name, found)
    }
    return found
  }
}
