import { interpolate } from 'd3'
import { createCard, createCoat, createPiece } from '../core/card/create'
import type { Key } from '../core/values/moving'
import type { Card, Piece } from '../core/card/schema'
import { listParameters } from '../core/card/addresses'
import { evaluateCard } from '../core/time/evaluate'
import { momentOf } from '../core/time/ring'
import { valueAt } from '../core/values/evaluated'
import { createMotor } from '../core/values/motors/schema'
import type { Row } from './measure'
import { beside } from './measure'

const PIECES = 200
const LENGTH = 500
const LANES = ['x', 'y', 'rotation', 'opacity', 'scale'] as const
const KINDS = ['sway', 'jitter', 'spin', 'settle', 'formula'] as const

/** 200 pieces with 2,000 keys (ten each) and 500 motors. */
function busyCard(): Card {
  const card = createCard('Busy', {
    width: 1920,
    height: 1080,
    rate: { numerator: 25, denominator: 1 },
    length: LENGTH,
  })
  let motors = 0
  const pieces = Array.from({ length: PIECES }, (_, i): Piece => {
    const lanes = LANES.map((name, k) => {
      const keys: Key<number>[] = [0, 1].map((n) => ({
        frame: (i * 7 + k * 31 + n * 211) % LENGTH,
        value: 20 + ((i * 13 + n * 29 + k) % 60),
        easing: 'ease-in-out',
      }))
      const kind = KINDS[(i + k) % KINDS.length]!
      const own = motors < 500 && (i + k) % 2 === 0 ? [createMotor(kind)] : []
      motors += own.length
      return [name, { keys: keys.sort((a, b) => a.frame - b.frame), ...(own.length > 0 ? { motors: own } : {}) }]
    })
    const fill = { ...createCoat('fill', `fill-${i}`) }
    return {
      ...createPiece('box', card),
      ...(Object.fromEntries(lanes) as Partial<Piece>),
      id: `box-${i}`,
      coats: { face: [fill], behind: [] },
    } as Piece
  })
  return { ...card, pieces }
}

/** All values of the busy card at one frame; beside it a general library interpolating as many numbers, without motors. */
export async function motionRows(): Promise<Row[]> {
  const card = busyCard()
  const moving = listParameters(card).filter(
    ({ value }) => typeof value === 'object' && value !== null && 'keys' in value,
  )
  const peers = moving.map(() => interpolate(20, 80))
  let frame = 0
  const evaluate = () => {
    const at = momentOf(card, frame++ % LENGTH)
    for (const { parameter, value } of moving) valueAt(parameter, value, at)
  }
  const whole = () => void evaluateCard(card, frame++ % LENGTH)
  const peer = () => {
    const at = (frame++ % LENGTH) / LENGTH
    for (const run of peers) run(at)
  }
  const library = 'd3-interpolate, as many plain numbers'
  const rows = [
    await beside('200 pieces, 2,000 keys, 500 motors: moving values of a frame', many(evaluate), library, many(peer)),
    await beside('200 pieces, 2,000 keys, 500 motors: all values of a frame', many(whole), library, many(peer)),
  ]
  return rows.map((row) => ({ ...row, ours_ms: row.ours_ms / FRAMES, peer_ms: row.peer_ms! / FRAMES }))
}

const FRAMES = 40
const many = (work: () => void) => () => {
  for (let i = 0; i < FRAMES; i++) work()
}
