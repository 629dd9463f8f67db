import type { Coat, Piece } from '../card/schema'
import type { Moment } from '../values/evaluated'
import { valuesAt, numberValue, switchValue } from '../values/evaluated'
import type { CoatDefinition, CoatPlace, CoatScale, DepthGroup, Insets } from '../coats/definition'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { coatOf } from '../coats/table'
import type { BlendMode } from '../kernels/blend-modes'
import type { Px } from '../units'

/** A coat with its values at this moment. */
export interface LaidCoat {
  id: string
  group: DepthGroup
  definition: CoatDefinition
  values: never
  opacity: number
  blend: BlendMode
  place: CoatPlace<never>
  /** Where it stands in the card, for errors. */
  address: string
}

const laid = new WeakMap<Moment, WeakMap<Piece['coats'], readonly LaidCoat[]>>()

/** Coats that are on, back to front, with their values and neighbours. Found once for a moment: letters ask again and again. */
export function laidCoats({ id, coats }: Piece, at: Moment): readonly LaidCoat[] {
  const here = laid.get(at) ?? new WeakMap<Piece['coats'], readonly LaidCoat[]>()
  laid.set(at, here)
  const found = here.get(coats) ?? laidAt(id, coats, at)
  here.set(coats, found)
  return found
}

function laidAt(id: string, coats: Piece['coats'], at: Moment): LaidCoat[] {
  return (['behind', 'face'] as const).flatMap((group) =>
    [...coats[group]]
      .reverse()
      .filter((coat) => switchValue(coat.on, at))
      .map((coat) => {
        const definition = coatOf(coat.kind)
        return {
          id: coat.id,
          ...{ group, definition },
          // Of the coat's own kind, as its definition asks.
          values: valuesAt(definition.parameters, coat, at) as never,
          opacity: numberValue(coat.opacity, at, COMMON_COAT_PARAMETERS.opacity) / 100,
          blend: valuesAt(COMMON_COAT_PARAMETERS, coat, at).blend,
          place: placeAmong(coat, coats, at),
          address: `${id}/${coat.id}`,
        }
      })
      .filter((coat) => coat.opacity > 0),
  )
}

/** Coats of the same kind, in the order in which the stack is read from the front. */
function placeAmong(coat: Coat, coats: Piece['coats'], at: Moment): CoatPlace<never> {
  const { parameters } = coatOf(coat.kind)
  const same = [...coats.face, ...coats.behind].filter((other) => other.kind === coat.kind)
  const index = same.indexOf(coat)
  const siblings = same.map((other, i) => ({
    id: other.id,
    on: switchValue(other.on, at),
    opacity: numberValue(other.opacity, at, COMMON_COAT_PARAMETERS.opacity) / 100,
    // Of the same kind as the coat that asks.
    values: valuesAt(parameters, other, at) as never,
    above: i < index,
  }))
  return { siblings, index }
}

/** How far a piece's coats can touch beyond its outline. */
export function reachOf(coats: readonly LaidCoat[], scale: CoatScale): Insets {
  const reaches = coats.map((coat) => coat.definition.reach(coat.values, scale, coat.place))
  const most = (side: keyof Insets) => Math.max(1, ...reaches.map((reach) => reach[side]))
  return { left: most('left'), top: most('top'), right: most('right'), bottom: most('bottom') }
}

/** How far beyond the canvas a coat must be computed. */
export function lookOf({ definition, values, place }: LaidCoat, scale: CoatScale): Px {
  if (definition.looks !== undefined) return definition.looks
  const { left, top, right, bottom } = definition.reach(values, scale, place)
  return Math.max(left, top, right, bottom)
}

/** How far distances are needed by any of the coats. */
export function measured(coats: readonly LaidCoat[], scale: CoatScale): Px {
  return Math.max(0, ...coats.map(({ definition, values, place }) => definition.measures?.(values, scale, place) ?? 0))
}

/**
 * How far around the outline distances are wanted: as far as coats measure, before they move what they made of it; and as
 * far as those coats reach, because mitres stick out farther.
 */
export function fieldReach(coats: readonly LaidCoat[], scale: CoatScale): Insets {
  const least = measured(coats, scale)
  const measuring = coats.filter(
    ({ definition, values, place }) => (definition.measures?.(values, scale, place) ?? 0) > 0,
  )
  const { left, top, right, bottom } = reachOf(measuring, scale)
  const most = (side: Px) => Math.max(least, side)
  return { left: most(left), top: most(top), right: most(right), bottom: most(bottom) }
}

/** A seed for the grain of a coat: the card's own, and the coat's name (FNV-1a, Fowler, Noll, Vo 1991). */
export const seedOf = (card: { seed: number }, { id }: Pick<LaidCoat, 'id'>): number => seedFrom(card.seed, id)

/** A seed of 32 bits from that of the card and an id (FNV-1a). */
export function seedFrom(seed: number, id: string): number {
  let hash = 0x811c9dc5 ^ seed
  for (const character of id) hash = Math.imul(hash ^ character.codePointAt(0)!, 0x01000193)
  return hash >>> 0
}
