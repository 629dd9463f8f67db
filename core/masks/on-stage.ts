import { acosDegrees } from '../kernels/exact'
import type { Ring } from '../outline/contour'
import { flatten, flattenStretches } from '../outline/contour'
import type { Placement } from '../outline/outline'
import { place, unplace } from '../outline/outline'
import { grownRings } from '../outline/grown'
import { spanOf } from '../outline/span'
import { readPathData } from '../outline/svg-path'
import { unite } from '../outline/unite'
import type { OutlineWork } from '../pieces/definition'
import type { Grip } from '../steps/grips'
import type { Point, Px } from '../units'
import type { EvaluatedValues } from '../values/evaluated'
import type { Length } from '../values/moving'
import type { AREA_PARAMETERS, COMMON_MASK_PARAMETERS } from './definition'
import { maskOf } from './table'

// What a mask shows on the stage: its edge, and points to take hold of.

/** As fine as a screen shows it. */
const TOLERANCE = 0.1
const GRID = 64

const WORK: OutlineWork = {
  flat: (path) => flatten(path, TOLERANCE),
  united: (rings, rule) => unite(rings, GRID, rule),
  line: (path, style) => ({ ...style, side: 'across', strands: flattenStretches(path, TOLERANCE), within: [] }),
  path: (data) => readPathData(data, 'path'),
}

/** The edge of a mask around its own place, without what grows it; none where its path cannot be read. */
export function maskRings(kind: string, values: never): Ring[] {
  try {
    return maskOf(kind).outline?.(values, WORK) ?? []
  } catch {
    return []
  }
}

/** The same edge, moved outward by some px. */
export const grownEdge = (rings: readonly Ring[], by: Px): Ring[] =>
  grownRings(rings, by, 'round', { tolerance: TOLERANCE, grid: GRID })

/** How far beyond the edge the hand stands that turns. */
const TURNER: Px = 60

/**
 * Points to take hold of, in the space in which the mask's place counts: its place, what its kind has, its turn and its feather.
 * `side`: px that 100 % of a length stands for.
 */
export function maskGrips(
  kind: string,
  values: never,
  { x, y, rotation, feather, grow }: EvaluatedValues<typeof AREA_PARAMETERS & typeof COMMON_MASK_PARAMETERS>,
  rings: readonly Ring[],
  side: Px,
): Grip[] {
  if (!maskOf(kind).outline) return []
  const px = (length: Length) => (typeof length === 'number' ? length : (length.value / 100) * side)
  const stands: Placement = { scale: 1, rotation, x, y }
  const at = { x, y }
  const placeGrip: Grip = { label: 'Place', at, values: (point) => ({ x: point.x, y: point.y }) }
  const whole = spanOf(rings)
  if (!whole) return [placeGrip]
  const { left, top, right, bottom } = whole
  const edge = right + px(grow)
  const own = [
    ...(maskOf(kind).grips?.(values, { px, whole, line: null }) ?? []),
    {
      label: 'Feather',
      from: { x: edge, y: (top + bottom) / 2 },
      at: { x: edge + px(feather), y: (top + bottom) / 2 },
      values: (point: Point) => ({ feather: Math.max(0, point.x - edge) }),
    },
  ]
  const above = { x: (left + right) / 2, y: top }
  return [
    placeGrip,
    ...own.map((grip) => ({
      ...grip,
      ...{ at: place(stands, grip.at), from: grip.from && place(stands, grip.from) },
      values: (point: Point) => grip.values(unplace(stands, point)),
    })),
    {
      label: 'Rotation',
      from: place(stands, above),
      at: place(stands, { x: above.x, y: above.y - TURNER }),
      // What stands above the place when nothing is turned, seen from there.
      values: (point) => {
        const off = angleOf({ x: above.x, y: above.y - TURNER })
        const turn = angleOf({ x: point.x - x, y: point.y - y }) - off
        return { rotation: turn + 360 * Math.round((rotation - turn) / 360) }
      },
    },
  ]
}

/** The direction of a point, in degrees anticlockwise on screen; 0 is to the right. */
function angleOf({ x, y }: Point): number {
  const length = Math.sqrt(x * x + y * y)
  return length > 0 ? (y <= 0 ? 1 : -1) * acosDegrees(x / length) : 0
}
