import type { Px } from '../units'
import { BOX_GRID, blurReach, gaussTaps, planBlur } from './gauss'
import type { Plane, Segments } from './memory'
import { KernelMemory } from './memory'
import type { Address } from './module'

/** A corner that is joined in a way of its own: see core/outline/corners.ts. */
interface Joint {
  x: Px
  y: Px
  arrives: number
  leaves: number
  come: { x: number; y: number }
  go: { x: number; y: number }
  turn: number
  kind: keyof typeof KINDS
  half: number
  side: number
}

/** Where pixels stand against an outline's edge. */
export interface DistanceField {
  /** Signed distance from pixel centres in px, negative inside; exact up to the reach, farther ones very large. */
  distance: Plane
  /** Index (i32) of the nearest segment, or from the count of segments on of the nearest corner; −1: none. */
  ids: Plane
}

/** The corners of an outline that are not joined by arcs. */
export interface Joins {
  /** A byte a segment: 1 its start is such a corner, 2 its end is. */
  cuts: Address
  corners: Address
  count: number
  /** How fast the distance to one of them changes at most. */
  steepest: number
}

/** As assembly/offset.ts counts them. */
const KINDS = { mitre: 0, bevel: 1, round: 2 }
const FAR = 1e12
/** Steps of a look-up table; linear in between. */
const TABLE = 1024

/** Planes from outlines, and planes from planes. */
export class PlaneKernels extends KernelMemory {
  /** Exact area coverage of the outline. */
  coverage(segments: Segments, w: number, h: number): Plane {
    const plane = this.plane(w, h)
    const mark = this.mark()
    const acc = this.take((w + 4) * h * 4)
    this.run.fillPlane(acc, (w + 4) * h, 0)
    this.run.rasterSegments(segments.at, segments.count, acc, w, h)
    this.run.integrateCoverage(acc, plane.at, w, h)
    this.release(mark)
    return plane
  }

  /** Each segment is measured from all pixels within reach of it. */
  private chargeDistances({ count }: Segments, w: number, h: number, reach: Px): void {
    this.charge(count * Math.min(w, 2 * reach + 1) * Math.min(h, 2 * reach + 1))
  }

  /** Signed distance from pixel centres, negative inside; exact up to `reach`, farther ones are very large. */
  distance(segments: Segments, w: number, h: number, reach: Px): Plane {
    this.chargeDistances(segments, w, h, reach)
    const plane = this.plane(w, h)
    const mark = this.mark()
    const squared = this.plane(w, h, FAR)
    this.run.nearestSegment(segments.at, segments.count, squared.at, w, h, reach)
    this.signed(segments, squared, plane)
    this.release(mark)
    return plane
  }

  /** As `distance`, with what is nearest. */
  distanceField(segments: Segments, w: number, h: number, reach: Px): DistanceField {
    this.chargeDistances(segments, w, h, reach)
    return this.field(segments, w, h, (squared, ids, distance) => {
      this.run.nearestSegmentNamed(segments.at, segments.count, squared.at, ids.at, w, h, reach)
      this.signed(segments, squared, distance)
    })
  }

  private field(
    segments: Segments,
    w: number,
    h: number,
    measure: (squared: Plane, ids: Plane, distance: Plane) => void,
  ): DistanceField {
    const distance = this.plane(w, h)
    const ids = this.plane(w, h)
    this.run.fillNames(ids.at, w * h)
    const mark = this.mark()
    measure(this.plane(w, h, FAR), ids, distance)
    this.release(mark)
    return { distance, ids }
  }

  private signed(segments: Segments, squared: Plane, distance: Plane): void {
    const { w, h } = squared
    const winding = this.plane(w, h, 0)
    this.run.windAtCentres(segments.at, segments.count, winding.at, w, h)
    this.run.signDistance(squared.at, winding.at, distance.at, w, h)
  }

  /** Corners for `joinedField` and `grown`, as the kernels read them. */
  joins(corners: readonly Joint[], segmentCount: number, dx: Px, dy: Px): Joins {
    const cuts = this.take(segmentCount)
    const ends = new Uint8Array(this.memory.buffer, cuts, segmentCount).fill(0)
    for (const { arrives, leaves } of corners) {
      ends[leaves] = ends[leaves]! | 1
      ends[arrives] = ends[arrives]! | 2
    }
    const numbers = corners.flatMap(({ x, y, come, go, turn, kind, half, side }) => [
      ...[x + dx, y + dy, come.x, come.y, go.x, go.y],
      ...[turn, half, KINDS[kind], side],
    ])
    const steepest = corners.reduce((most, { kind, half }) => (kind === 'bevel' ? Math.max(most, 1 / half) : most), 1)
    return { cuts, corners: this.numbers(numbers), count: corners.length, steepest }
  }

  /** A field in which the corners that have joins of their own are measured to the edges of those joins. */
  joinedField(segments: Segments, joins: Joins, w: number, h: number, reach: Px): DistanceField {
    this.chargeDistances(segments, w, h, reach)
    return this.field(segments, w, h, (squared, ids, distance) => {
      const { at, count } = segments
      this.run.nearestSegmentCut(at, count, squared.at, ids.at, joins.cuts, w, h, reach)
      this.signed(segments, squared, distance)
      this.run.measureCorners(joins.corners, joins.count, count, distance.at, ids.at, w, h, reach)
    })
  }

  /** How much of each pixel lies within the outline moved outward by `edge`. */
  grown({ distance, ids }: DistanceField, segments: Segments, edge: Px, joins: Joins | null = null): Plane {
    const { w, h } = distance
    const plane = this.plane(w, h)
    const { at, count } = segments
    const [cuts, corners] = [joins?.cuts ?? 0, joins?.corners ?? 0]
    this.run.offsetMask(distance.at, ids.at, at, cuts, corners, count, plane.at, w, h, edge, joins?.steepest ?? 1)
    return plane
  }

  /** Signed distance to where a plane of alpha passes one half; exact up to `reach`, farther ones may be very large. */
  fieldDistance({ at, w, h }: Plane, reach: Px = w + h): Plane {
    const plane = this.plane(w, h)
    const mark = this.mark()
    const [right, down, aside, below] = [0, 1, 2, 3].map(() => this.plane(w, h).at) as [number, number, number, number]
    this.run.fieldDistance(at, plane.at, w, h, right, down, aside, below, this.take(64), Math.min(reach, w + h) + 2)
    this.release(mark)
    return plane
  }

  /** A new plane: the Gaussian blur; outside the plane counts as 0. */
  blurred(src: Plane, sigma: Px): Plane {
    const { w, h } = src
    const dst = this.plane(w, h)
    // Rows that are clear, and too far from any that is not, stay clear: the same bits, because the rest is cut on the
    // blur's grid.
    const reach = blurReach(sigma)
    const first = this.run.firstRow(src.at, w, h)
    const top = Math.max(0, Math.floor((first - reach) / BOX_GRID) * BOX_GRID)
    const bottom = first < h ? Math.min(h, this.run.lastRow(src.at, w, h) + 1 + reach) : top
    this.run.fillPlane(dst.at, top * w, 0)
    this.run.fillPlane(dst.at + bottom * w * 4, (h - bottom) * w, 0)
    const rows = (plane: Plane): Plane => ({ at: plane.at + top * w * 4, w, h: bottom - top })
    if (bottom > top) this.blurInto(rows(src), rows(dst), sigma)
    return dst
  }

  private blurInto(src: Plane, dst: Plane, sigma: Px): void {
    const { levels, sigma: low, radius } = planBlur(sigma)
    if (radius === 0) {
      this.run.copyRows(src.at, 0, dst.at, 0, src.w * src.h * 4, 1)
      return
    }
    const mark = this.mark()
    const row = this.take((src.w * 4 + 1024) * 4)
    const steps: Plane[] = [src]
    for (let i = 0; i < levels; i++) {
      const from = steps[i]!
      const to = this.plane((Math.ceil(from.w / 2) + 3) & ~3, Math.ceil(from.h / 2))
      this.run.halve(from.at, to.at, from.w, from.h, to.w, to.h, row)
      steps.push(to)
    }
    const lowest = steps[levels]!
    const taps = this.take((radius + 1) * 4)
    new Float32Array(this.memory.buffer, taps, radius + 1).set(gaussTaps(low, radius))
    const between = this.plane(lowest.w, lowest.h)
    this.run.convolveColumns(lowest.at, between.at, lowest.w, lowest.h, taps, radius)
    let current = levels === 0 ? dst : lowest
    this.run.convolveRows(between.at, current.at, lowest.w, lowest.h, taps, radius, row)
    for (let i = levels - 1; i >= 0; i--) {
      // The finer plane's own contents are no longer needed, except the source's.
      const to = i === 0 ? dst : steps[i]!
      this.run.double(current.at, to.at, current.w, current.h, to.w, to.h, row)
      current = to
    }
    this.release(mark)
  }

  /** What `outer` covers and `inner` does not; `above` is the opacity of what lies over the inner one. */
  band(inner: Plane, outer: Plane, above: number): Plane {
    const plane = this.plane(outer.w, outer.h)
    this.run.bandMask(inner.at, outer.at, plane.at, plane.w * plane.h, above)
    return plane
  }

  /** A new plane: 1 − plane. */
  complemented({ at, w, h }: Plane): Plane {
    const plane = this.plane(w, h)
    this.run.complement(at, plane.at, w * h)
    return plane
  }

  /** A new plane: (plane − from) · scale, cut to 0..1. */
  ramped({ at, w, h }: Plane, from: number, scale: number): Plane {
    const plane = this.plane(w, h)
    this.run.rampMask(at, plane.at, w * h, from, scale)
    return plane
  }

  absolute({ at, w, h }: Plane): Plane {
    const plane = this.plane(w, h)
    this.run.absolute(at, plane.at, w * h)
    return plane
  }

  product(a: Plane, b: Plane): Plane {
    const plane = this.plane(a.w, a.h)
    this.run.product(a.at, b.at, plane.at, a.w * a.h)
    return plane
  }

  /** Adds the cover of a plane to another of its size, at most to 1. */
  addCover(src: Plane, to: Plane): void {
    this.run.addCover(src.at, to.at, to.w * to.h)
  }

  /** A new plane: the share of a cover that has no room beside another one; see assembly/mask.ts. */
  overlapping(own: Plane, other: Plane): Plane {
    const plane = this.plane(own.w, own.h)
    this.run.overlapMask(own.at, other.at, plane.at, own.w * own.h)
    return plane
  }

  /** A new plane: through it a part joins others that cover so much already, without a line between them; see assembly/mask.ts. */
  beside(own: Plane, other: Plane): Plane {
    const plane = this.plane(own.w, own.h)
    this.run.besideMask(own.at, other.at, plane.at, own.w * own.h)
    return plane
  }

  difference(a: Plane, b: Plane): Plane {
    const plane = this.plane(a.w, a.h)
    this.run.difference(a.at, b.at, plane.at, a.w * a.h)
    return plane
  }

  /** A new plane: (curve(plane) + shift) · scale; values are cut to 0..1 before the curve. */
  mapped({ at, w, h }: Plane, curve: (x: number) => number, scale = 1, shift = 0): Plane {
    const plane = this.plane(w, h)
    const mark = this.mark()
    const table = this.numbers(Float32Array.from({ length: TABLE + 1 }, (_, i) => (curve(i / TABLE) + shift) * scale))
    this.run.mapTable(at, plane.at, w * h, table, TABLE)
    this.release(mark)
    return plane
  }

  /** A new plane: x²(3 − 2x), values cut to 0–1: a rise without corners. */
  smoothStepped({ at, w, h }: Plane): Plane {
    const plane = this.plane(w, h)
    this.run.smoothStep(at, plane.at, w * h)
    return plane
  }

  /** A new plane with grain: pixels drawn towards whole or clear by chance. (x0, y0) is its place on the card. */
  grained({ at, w, h }: Plane, x0: number, y0: number, amount: number, seed: number): Plane {
    const plane = this.plane(w, h)
    this.run.grainMask(at, plane.at, w, h, x0, y0, amount, seed)
    return plane
  }

  /** A new plane: light on a height field (px) from a direction, 0..1; see assembly/light.ts. */
  lit({ at, w, h }: Plane, light: { x: number; y: number; z: number }, surfaceScale = 1): Plane {
    const plane = this.plane(w, h)
    this.run.diffuse(at, plane.at, w, h, light.x, light.y, light.z, surfaceScale)
    return plane
  }

  /** Depth and brightness of a swept body's sides; see assembly/sweep.ts. */
  swept(near: Segments, far: Segments, lights: Float32Array, w: number, h: number): { depth: Plane; shade: Plane } {
    const depth = this.plane(w, h)
    const shade = this.plane(w, h)
    const mark = this.mark()
    const table = this.numbers(lights)
    const samples = [this.take(w * h * 36), this.take(w * h * 36)] as const
    this.run.sweepSides(near.at, far.at, table, near.count, ...samples, depth.at, shade.at, w, h)
    this.release(mark)
    return { depth, shade }
  }

  /** A new plane: moved by (dx, dy), bilinear; 0 comes in from beyond the border. */
  shifted({ at, w, h }: Plane, dx: Px, dy: Px): Plane {
    const plane = this.plane(w, h)
    const [ix, iy] = [Math.floor(dx), Math.floor(dy)]
    this.run.shiftPlane(at, plane.at, w, h, ix, iy, dx - ix, dy - iy)
    return plane
  }

  /** A plane of alpha smeared along a vector; see assembly/mask.ts. */
  smeared({ at, w, h }: Plane, dx: Px, dy: Px, taper: number, cx: Px, cy: Px): { cover: Plane; depth: Plane } {
    const cover = this.plane(w, h)
    const depth = this.plane(w, h)
    const steps = Math.min(2000, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy), Math.abs(taper - 1) * Math.max(w, h))))
    this.run.smearPlane(at, cover.at, depth.at, w, h, dx, dy, taper, cx, cy, steps)
    return { cover, depth }
  }

  /** A new plane with the window (x, y, w, h) of another; beyond it stands `outside`. */
  cropped(plane: Plane, x: number, y: number, w: number, h: number, outside = 0): Plane {
    if (x === 0 && y === 0 && w === plane.w && h === plane.h) return plane
    const cut = this.plane(w, h)
    this.run.cropPlane(plane.at, plane.w, plane.h, cut.at, w, h, x, y, outside)
    return cut
  }
}
