import { bands } from './bands'
import { bloom } from './bloom'
import { blur } from './blur'
import { colour } from './colour'
import { colourSteps } from './colour-steps'
import { curve } from './curve'
import type { FinishDefinition } from './definition'
import { displace } from './displace'
import { edge } from './edge'
import { exposure } from './exposure'
import { flare } from './flare'
import { fringe } from './fringe'
import { glint } from './glint'
import { grain } from './grain'
import { lines } from './lines'
import { move } from './move'
import { tint } from './tint'
import { tone } from './tone'
import { trails } from './trails'
import { turbulence } from './turbulence'
import { vignette } from './vignette'

/** All kinds of finish, in the order in which they are offered. A new kind is one file and one line here. */
const TABLE = [
  ...[blur, bloom, grain, colourSteps],
  ...[exposure, tone, curve, colour, tint],
  ...[displace, turbulence, bands, move, fringe],
  ...[trails, lines, glint, vignette, flare, edge],
]

// Each definition takes values of its own kind alone; whoever goes through the table gives each the values of its kind.
export const FINISHES = TABLE as unknown as readonly FinishDefinition[]
export const FINISH_KINDS = FINISHES.map(({ kind }) => kind)

export function finishOf(kind: string): FinishDefinition {
  const finish = FINISHES.find((definition) => definition.kind === kind)
  if (!finish) throw new Error(`No finish of kind ${kind}`)
  return finish
}
