import { boxMask } from './box'
import type { MaskDefinition } from './definition'
import { ellipseMask } from './ellipse'
import { matte } from './matte'
import { paintedMask } from './painted'
import { pathMask } from './path'

/** All kinds of mask, in the order in which they are offered. A new kind is one file and one line here. */
const TABLE = [boxMask, ellipseMask, pathMask, paintedMask, matte]

// Each definition takes values of its own kind alone; whoever goes through the table gives each the values of its kind.
export const MASKS = TABLE as unknown as readonly MaskDefinition[]
export const MASK_KINDS = MASKS.map(({ kind }) => kind)

export function maskOf(kind: string): MaskDefinition {
  const mask = MASKS.find((definition) => definition.kind === kind)
  if (!mask) throw new Error(`No mask of kind ${kind}`)
  return mask
}
