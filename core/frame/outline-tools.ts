import type { JoinStyle, Light, SweptPlanes } from '../coats/definition'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Plane, Segments } from '../kernels/kernels'
import type { Outline } from '../outline/outline'
import { sweep } from '../outline/sweep'
import type { Point, Px } from '../units'
import type { EdgeField } from './edge-field'
import type { GridBox } from './grid-box'
import type { ToolSetting, Step } from './recipe-tools'
import { RecipeTools } from './recipe-tools'

/** A placed outline: segments on the render grid. */
export interface PlacedOutline {
  outline: Outline
  segments: Float64Array
  /** Where the middle of the outline's own bounds stands: it turns with the outline. */
  middle: Point
}

const ROUND: JoinStyle = { join: 'round', limit: 1 }
/** Beyond the measured field everything is outside. */
const FAR_OUTSIDE = 1e6

/** The tools of a piece that has an outline. */
export class OutlineTools extends RecipeTools {
  constructor(
    setting: ToolSetting,
    box: GridBox,
    seed: () => number,
    private readonly form: PlacedOutline,
    private readonly field: EdgeField,
  ) {
    super(setting, box, seed)
  }

  coverage(dx = 0, dy = 0): Step {
    const { w, h } = this.box
    return this.step(`coverage(${dx},${dy})`, () => this.kernels.coverage(this.local(this.form.segments, dx, dy), w, h))
  }

  distance(dx = 0, dy = 0): Step {
    const { field } = this
    const name = `distance(${field.reach},${dx},${dy})`
    return this.step(name, () => this.seen(field.distance(), field.box, FAR_OUTSIDE, dx, dy))
  }

  grown(edge: Px, style: JoinStyle = ROUND, dx = 0, dy = 0): Step {
    if (edge === 0) return this.coverage(dx, dy)
    if (this.setting.draft) return this.swollen(edge, dx, dy)
    const limit = style.join === 'mitre' ? style.limit : ''
    const name = `grown(${edge},${style.join},${limit},${this.field.reach},${dx},${dy})`
    // Broken pixels are measured where they lie, so that the edge stays exact.
    const [ix, iy] = [Math.floor(dx), Math.floor(dy)]
    const field = () => this.field.movedBy(dx - ix, dy - iy)
    return this.step(name, () => this.seen(field().grown(edge, style), this.field.box, 0, ix, iy))
  }

  swept(dx: Px, dy: Px, taper: number, { azimuth, elevation }: Light): SweptPlanes {
    const { w, h } = this.box
    const name = `${dx},${dy},${taper},${azimuth},${elevation}`
    const flat = cosDegrees(elevation)
    let body: ReturnType<typeof sweep> | null = null
    let sides: { depth: Plane; shade: Plane } | null = null
    const swept = () =>
      (body ??= sweep(this.form.outline, this.form.segments, { dx, dy, taper, middle: this.form.middle }, [
        cosDegrees(azimuth) * flat,
        -sinDegrees(azimuth) * flat,
      ]))
    const seen = () => {
      const { near, far, lights } = swept()
      return (sides ??= this.kernels.swept(this.local(near), this.local(far), lights, w, h))
    }
    return {
      cover: this.step(`cover(${name})`, () => this.kernels.coverage(this.local(swept().silhouette), w, h)),
      depth: this.step(`depth(${name})`, () => seen().depth),
      shade: this.step(`shade(${name})`, () => seen().shade),
    }
  }

  private local(segments: Float64Array, dx = 0, dy = 0): Segments {
    return this.kernels.segments(segments, dx - this.box.x, dy - this.box.y)
  }
}
