import { motorGaps, roomOf, seamReport } from '../judge/seam'
import { actingKeys } from '../values/keyframes'
import type { ParameterPlace } from '../card/addresses'
import { listParameters } from '../card/addresses'
import type { Moving } from '../values/moving'
import { turnOf } from '../values/parameter-kinds'
import type { Card } from '../card/schema'
import { setStored } from './values'

export interface LoopChange {
  address: string
  label: string
  /** What becomes of it: `its last key takes the value of the first`. */
  says: string
}

export interface ClosedLoop {
  card: Card
  changes: LoopChange[]
  /** What still jumps, and why it could not be mended. */
  left: { address: string; label: string; why: string[] }[]
}

/** A gap of this share of the loop is wide enough to glide across. */
const WIDE = 0.1

/** The card with its seam closed as far as it can be, and in words what that changes. */
export function closeLoop(card: Card): ClosedLoop {
  const changes: LoopChange[] = []
  const places = new Map(listParameters(card).map((place) => [place.address, place]))
  let closed = card
  for (const { address, label, verdict } of seamReport(card)) {
    if (verdict !== 'jump') continue
    const { value, says } = mended(card, places.get(address)!)
    if (says.length === 0) continue
    closed = setStored(closed, address, value)
    changes.push(...says.map((words) => ({ address, label, says: words })))
  }
  const left = seamReport(closed)
    .filter(({ verdict }) => verdict === 'jump')
    .map(({ address, label, why }) => ({ address, label, why }))
  return { card: closed, changes, left }
}

function mended(card: Card, { parameter, value }: ParameterPlace): { value: Moving<unknown>; says: string[] } {
  const moving = value as Moving<number>
  const says: string[] = []
  let next: Moving<number> = moving
  const keys = actingKeys(moving, card.length)
  const [first, last] = [keys[0]!, keys.at(-1)!]
  const room = roomOf(card, moving)
  if (first.value !== last.value && (moving.loop === false || room <= 1)) {
    if (room >= Math.max(2, card.length * WIDE)) {
      next = { ...next, loop: true }
      says.push('glides from its last key back to its first, across the seam')
    } else {
      next = { ...next, keys: moving.keys.map((key) => (key === last ? { ...key, value: first.value } : key)) }
      says.push(`its last key takes the value of its first, ${String(first.value)}`)
    }
  }
  const mends = motorGaps(card, moving, turnOf(parameter))
  const motors = next.motors?.map((motor, i) => {
    const mend = mends[i]?.mend
    if (!mend) return motor
    says.push(mend.says)
    return { ...motor, ...mend.values }
  })
  return { value: motors ? { ...next, motors } : next, says }
}
