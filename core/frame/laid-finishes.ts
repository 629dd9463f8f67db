import type { Finish, Piece } from '../card/schema'
import type { FinishDefinition, FinishScale } from '../finishes/definition'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { finishOf } from '../finishes/table'
import { alongOf, fittedTo, lookedAt } from '../card/links'
import type { Frames, Px, Rect } from '../units'
import { isMoving } from '../values/moving'
import { numberValue, switchValue, valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import { stepped } from '../values/moment'
import { joined } from './grid-box'
import { hasRestlessSteps } from './laid-steps'
import { spread } from './piece'
import { even } from '../coats/definition'

/** A finish with its values at a moment. */
export interface LaidFinish {
  id: string
  /** Its place among all finishes of the piece, in the order in which they work. */
  rank: number
  definition: FinishDefinition
  values: never
  /** 0–1. */
  strength: number
  /** Where it stands in the card, for errors. */
  address: string
}

const laid = new WeakMap<Moment, WeakMap<Piece['finishes'], readonly LaidFinish[]>>()

/** Finishes that do something, in the order in which they work. Found once for a moment. */
export function laidFinishes({ id, finishes }: Piece, at: Moment): readonly LaidFinish[] {
  if (finishes.length === 0) return NONE
  const here = laid.get(at) ?? new WeakMap<Piece['finishes'], readonly LaidFinish[]>()
  laid.set(at, here)
  const found = here.get(finishes) ?? laidAt(id, finishes, at)
  here.set(finishes, found)
  return found
}

/** The finishes of a wash: its picture may be held for some frames. */
export const washFinishes = (wash: Piece, at: Moment): readonly LaidFinish[] =>
  laidFinishes(wash, stepped(at, wash.steps))

const NONE: readonly LaidFinish[] = []

function laidAt(piece: string, finishes: readonly Finish[], at: Moment): LaidFinish[] {
  return [...finishes].reverse().flatMap((finish, rank): LaidFinish[] => {
    if (!switchValue(finish.on, at)) return []
    const strength = numberValue(finish.strength, at, COMMON_FINISH_PARAMETERS.strength) / 100
    const definition = finishOf(finish.kind)
    // Of the finish's own kind, as its definition asks.
    const values = valuesAt(definition.parameters, finish, at) as never
    if (strength <= 0 || definition.idle?.(values)) return []
    return [{ id: finish.id, rank, definition, values, strength, address: `${piece}/${finish.id}` }]
  })
}

/** Whether a piece changes from frame to frame by what its steps and finishes do, though none of its values moves. */
export const isRestless = (piece: Piece): boolean =>
  hasRestlessSteps(piece) ||
  leansOnPlaces(piece) ||
  piece.finishes.some((finish) => (isMoving(finish.on) || finish.on) && finishOf(finish.kind).restless?.(finish))

/** Whether a piece's own form follows from others on the card. */
export const leansOnPlaces = (piece: Piece): boolean =>
  piece.weave !== null || fittedTo(piece).length > 0 || alongOf(piece) !== null

/** Whether a piece looks at other pieces, or its finishes at other moments. */
export const looksElsewhere = (piece: Piece): boolean =>
  leansOnPlaces(piece) ||
  piece.finishes.some((finish) => finishOf(finish.kind).moments !== undefined || lookedAt(finish) !== null)

/** Frames from now at which a finish asks for what came in. */
export const momentsOf = ({ definition, values }: LaidFinish): readonly Frames[] => definition.moments?.(values) ?? []

/** How far around its canvas the input of some finishes is needed; Infinity for all of it. */
export const looksOf = (finishes: readonly LaidFinish[], scale: FinishScale): Px =>
  finishes.reduce((sum, { definition, values }) => sum + (definition.reach?.(values, scale) ?? 0), 0)

/** How far from the edges of what came in anything of it can be seen. */
function reachFrom({ definition, values }: LaidFinish, scale: FinishScale, bounds: Rect): Px {
  const reach = definition.reach?.(values, scale) ?? 0
  return Number.isFinite(reach) ? reach : (definition.far?.(values, scale, bounds) ?? 0)
}

/** What finishes can touch of what came in within some bounds; `earlier` gives what came in at other frames. */
export function finishedBounds(
  finishes: readonly LaidFinish[],
  scale: FinishScale,
  bounds: Rect | null,
  earlier: (frames: Frames, finish: LaidFinish) => Rect | null,
): Rect | null {
  let all = bounds
  for (const finish of finishes) {
    const { definition, values } = finish
    for (const frames of momentsOf(finish)) all = joined(all, earlier(frames, finish))
    if (all) all = spread(all, even(reachFrom(finish, scale, all)))
    all = joined(all, definition.paints?.(values, scale) ?? null)
  }
  return all
}
