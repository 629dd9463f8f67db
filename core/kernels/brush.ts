import { cosDegrees, sinDegrees } from './exact'
import type { Degrees, Px } from '../units'
import type { Plane } from './memory'
import type { Address } from './module'
import { SpreadKernels } from './spread'

/** A dab on the render grid. */
interface PlacedDab {
  x: Px
  y: Px
  radius: Px
  /** 0–1. */
  flow: number
}

/** Dabs of a brush, laid on what a plane at (x, y) of the render grid covers: c becomes c + m − c·m. See assembly/brush.ts. */
export class BrushKernels extends SpreadKernels {
  /** A disc, whole out to `hardness` (0–1) of its radius. */
  addDisc({ at, w, h }: Plane, { x, y }: { x: Px; y: Px }, dab: PlacedDab, hardness: number): void {
    this.chargeDab(dab)
    const { radius, flow } = dab
    this.run.addDisc(at, w, h, x, y, dab.x, dab.y, radius, radius * hardness, flow)
  }

  /** A tip of side × side values, turned anticlockwise. */
  addTip(
    { at, w, h }: Plane,
    { x, y }: { x: Px; y: Px },
    dab: PlacedDab & { turn: Degrees },
    tip: { at: Address; side: number },
  ): void {
    this.chargeDab(dab)
    const { radius, turn, flow } = dab
    const [c, s] = [cosDegrees(turn), sinDegrees(turn)]
    this.run.addTip(at, w, h, x, y, dab.x, dab.y, radius, c, s, tip.at, tip.side, flow)
  }

  /** A pixel of a dab takes about as long as sixteen bytes. */
  private chargeDab({ radius }: PlacedDab): void {
    this.charge(64 * (radius + 1) ** 2)
  }
}
