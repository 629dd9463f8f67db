import type { JoinStyle, Light, SweptPlanes } from '../coats/definition'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Plane, Segments } from '../kernels/kernels'
import type { Outline } from '../outline/outline'
import { sweep } from '../outline/sweep'
import type { Px } from '../units'
import type { EdgeField } from './edge-field'
import type { GridBox } from './grid-box'
import type { BenchSetting, Step } from './recipe-bench'
import { RecipeBench } from './recipe-bench'

/** A placed outline: segments on the render grid. */
export interface PlacedOutline {
  outline: Outline
  segments: Float64Array
}

const ROUND: JoinStyle = { join: 'round', limit: 1 }
/** Beyond the measured field everything is outside. */
const FAR_OUTSIDE = 1e6

/** The bench of a piece that has an outline. */
export class OutlineBench extends RecipeBench {
  constructor(
    setting: BenchSetting,
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

  distance(): Step {
    const { field } = this
    return this.step(`distance(${field.reach})`, () => this.fromField(field.distance(), FAR_OUTSIDE))
  }

  grown(edge: Px, style: JoinStyle = ROUND): Step {
    if (edge === 0) return this.coverage()
    if (this.setting.draft) return this.swollen(edge)
    const limit = style.join === 'mitre' ? style.limit : ''
    const name = `grown(${edge},${style.join},${limit},${this.field.reach})`
    return this.step(name, () => this.fromField(this.field.grown(edge, style), 0))
  }

  swept(dx: Px, dy: Px, taper: number, { azimuth, elevation }: Light): SweptPlanes {
    const { w, h } = this.box
    const name = `${dx},${dy},${taper},${azimuth},${elevation}`
    const flat = cosDegrees(elevation)
    let body: ReturnType<typeof sweep> | null = null
    let sides: { depth: Plane; shade: Plane } | null = null
    const swept = () =>
      (body ??= sweep(this.form.outline, this.form.segments, { dx, dy, taper }, [
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

  private fromField(plane: Plane, outside: number): Plane {
    const { box, field } = this
    return this.kernels.cropped(plane, box.x - field.box.x, box.y - field.box.y, box.w, box.h, outside)
  }

  private local(segments: Float64Array, dx = 0, dy = 0): Segments {
    return this.kernels.segments(segments, dx - this.box.x, dy - this.box.y)
  }
}
