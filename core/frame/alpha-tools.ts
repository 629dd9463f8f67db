import type { JoinStyle, SweptPlanes } from '../coats/definition'
import type { Plane } from '../kernels/kernels'
import type { Point, Px } from '../units'
import type { GridBox } from './grid-box'
import type { ToolSetting, Step } from './recipe-tools'
import { RecipeTools } from './recipe-tools'

/** What a picture's coats are computed from. */
export interface AlphaForm {
  alpha: Plane
  /** Where the alpha lies. */
  box: GridBox
  distance: () => Plane
  /** Where the distances lie. */
  far: GridBox
  /** How far they are exact. */
  reach: Px
  middle: Point
}

/** The tools of what has no outline but alpha: a group. Joins are always round. */
export class AlphaTools extends RecipeTools {
  constructor(
    setting: ToolSetting,
    box: GridBox,
    seed: () => number,
    private readonly form: AlphaForm,
  ) {
    super(setting, box, seed)
  }

  coverage(dx = 0, dy = 0): Step {
    const { alpha, box } = this.form
    return this.step(`coverage(${dx},${dy})`, () => this.seen(alpha, box, 0, dx, dy))
  }

  distance(dx = 0, dy = 0): Step {
    const { distance, far, reach } = this.form
    return this.step(`distance(${reach},${far.x},${far.y},${far.w},${far.h},${dx},${dy})`, () =>
      this.seen(distance(), far, 1e6, dx, dy),
    )
  }

  grown(edge: Px, _style?: JoinStyle, dx = 0, dy = 0): Step {
    return edge === 0 ? this.coverage(dx, dy) : this.swollen(edge, dx, dy)
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
}
