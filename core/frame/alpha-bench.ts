import type { SweptPlanes } from '../coats/definition'
import type { Plane } from '../kernels/kernels'
import type { Point, Px } from '../units'
import type { GridBox } from './grid-box'
import type { BenchSetting, Step } from './recipe-bench'
import { RecipeBench } from './recipe-bench'

/** The bench of what has no outline but alpha: a group. Joins are always round. */
export class AlphaBench extends RecipeBench {
  constructor(
    setting: BenchSetting,
    box: GridBox,
    seed: () => number,
    private readonly form: { alpha: Plane; box: GridBox; distance: () => Plane; middle: Point },
  ) {
    super(setting, box, seed)
  }

  coverage(dx = 0, dy = 0): Step {
    const plain = this.step('coverage', () => this.window(this.form.alpha, 0))
    return dx === 0 && dy === 0 ? plain : this.moved(plain, dx, dy)
  }

  distance(): Step {
    return this.step('distance', () => this.window(this.form.distance(), 1e6))
  }

  grown(edge: Px): Step {
    return edge === 0 ? this.coverage() : this.swollen(edge)
  }

  swept(dx: Px, dy: Px, taper: number): SweptPlanes {
    const { w, h } = this.box
    let made: { cover: Plane; depth: Plane } | null = null
    const [cx, cy] = [this.form.middle.x - this.box.x, this.form.middle.y - this.box.y]
    const smeared = () => (made ??= this.kernels.smeared(this.plane(this.coverage()), dx, dy, taper, cx, cy))
    const name = `${dx},${dy},${taper}`
    return {
      cover: this.step(`cover(${name})`, () => smeared().cover),
      depth: this.step(`depth(${name})`, () => smeared().depth),
      // Sides of a picture have no edges to tell apart: evenly lit.
      shade: this.step('shade', () => this.kernels.plane(w, h, 0.5)),
    }
  }

  private window(plane: Plane, outside: number): Plane {
    const { box, form } = this
    return this.kernels.cropped(plane, box.x - form.box.x, box.y - form.box.y, box.w, box.h, outside)
  }
}
