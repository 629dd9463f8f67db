import type { CoatDefinition } from './definition'
import { fill } from './fill'
import { shadow } from './shadow'
import { stroke } from './stroke'

/** All kinds of coat. A new kind is one file and one line here. */
export const COATS = [fill, stroke, shadow] as unknown as readonly CoatDefinition[]

export const COAT_KINDS = ['fill', 'stroke', 'shadow'] as const
export type CoatKind = (typeof COAT_KINDS)[number]

const byKind = new Map(COATS.map((coat) => [coat.kind, coat]))

export function coatOf(kind: string): CoatDefinition {
  const coat = byKind.get(kind)
  if (!coat) throw new Error(`No coat of kind ${kind}`)
  return coat
}
