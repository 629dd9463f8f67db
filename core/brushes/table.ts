import type { TipDefinition } from './definition'
import { isOwnTip, ownTip } from './own-tip'
import { bristle, chalk, crack, roundHard, roundSoft, snow, spatter } from './tips'

/** All tips, in the order in which they are offered. A new one is one definition and one name here. */
export const TIPS: readonly TipDefinition[] = [roundHard, roundSoft, chalk, bristle, crack, spatter, snow]
export const TIP_KINDS = TIPS.map(({ kind }) => kind)

/** A tip by its kind, or by the id of the picture that it is. */
export function tipOf(kind: string): TipDefinition {
  if (isOwnTip(kind)) return ownTip(kind)
  const tip = TIPS.find((definition) => definition.kind === kind)
  if (!tip) throw new Error(`No tip of kind ${kind}`)
  return tip
}
