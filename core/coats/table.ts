import { bevel } from './bevel'
import type { CoatDefinition } from './definition'
import { depth } from './depth'
import { fill } from './fill'
import { glow } from './glow'
import { shadow } from './shadow'
import { sheen } from './sheen'
import { stroke } from './stroke'

/** All kinds of coat. A new kind is one file and one line here. */
const TABLE = { fill, stroke, shadow, glow, bevel, sheen, depth }

export type CoatKind = keyof typeof TABLE
// Each definition takes values of its own kind alone; whoever goes through the table gives each the values of its kind.
export const COATS = Object.values(TABLE) as unknown as readonly CoatDefinition[]
export const COAT_KINDS = Object.keys(TABLE) as CoatKind[]

export function coatOf(kind: string): CoatDefinition {
  const coat = COATS.find((definition) => definition.kind === kind)
  if (!coat) throw new Error(`No coat of kind ${kind}`)
  return coat
}
