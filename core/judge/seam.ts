import type { ParameterPlace } from '../card/addresses'
import { listParameters } from '../card/addresses'
import type { Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import { turnOf } from '../values/parameter-kinds'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Part } from '../card/parts'
import { partOf } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import { numberValue, switchValue } from '../values/evaluated'
import { pathTo, piecesIn } from '../card/tree'
import { frameIn, hasClock, momentIn } from '../time/clock'
import { momentOf } from '../time/ring'
import { perSecond } from '../values/rate'
import { actingKeys, segmentAt } from '../values/keyframes'
import { colourAt, motoredNumber, motorPlace } from '../values/moved'
import type { MotorPlace } from '../values/motors/definition'
import { motorOf } from '../values/motors/table'

/** What happens to one moving parameter across the seam. */
export interface SeamEntry {
  address: string
  label: string
  /**
   * closed: value and speed go on. turn: the value goes on, the speed changes, as at any key. held: it jumps, as it
   * does elsewhere in the loop. unseen: it jumps while what it belongs to is not seen. jump: the seam is seen.
   */
  verdict: 'closed' | 'turn' | 'held' | 'unseen' | 'jump'
  /** Just before the seam, at it, and the difference (of an angle: the part of a turn). Largest channel of a colour. */
  value: { before: number; after: number; jump: number }
  /** Units per frame on both sides. */
  speed: { before: number; after: number }
  /** The step from the last frame to the first, and the largest other step between neighbouring frames. */
  step: { seam: number; largest: number }
  /** Why it does not close, in words. */
  why: string[]
}

/** Part of a frame over which limits and speeds are measured. */
const MOMENT = 1 / 256
/** Frames that are looked at; longer loops are sampled. */
const MOST_STEPS = 2000

/** The seam of every moving parameter, in stack order. Words and switches, which are held, have none. */
export function seamReport(card: Card): SeamEntry[] {
  return listParameters(card)
    .filter(({ value, parameter }) => isMoving(value) && ['number', 'length', 'colour'].includes(parameter.type))
    .map((place) => entryOf(card, place))
}

type Seam = Pick<SeamEntry, 'value' | 'speed' | 'step'> & { verdict: Exclude<SeamEntry['verdict'], 'unseen'> }

const known = new WeakMap<Moving<unknown>, { length: number; rate: number; turn: number | null; seam: Seam }>()

/** What keys alone do at the seam is found once for a value: many lanes stay as they are at an edit. */
function seamOf(card: Card, place: ParameterPlace): Seam {
  const moving = place.value as Moving<unknown>
  if (moving.motors?.length) return measuredSeam(card, place)
  const { length } = card
  const [rate, turn] = [perSecond(card.rate), turnOf(place.parameter)]
  const before = known.get(moving)
  if (before && before.length === length && before.rate === rate && before.turn === turn) return before.seam
  const seam = measuredSeam(card, place)
  if (!hasClock(card, place.piece)) known.set(moving, { length, rate, turn, seam })
  return seam
}

function entryOf(card: Card, place: ParameterPlace): SeamEntry {
  const { address, label } = place
  const { verdict, ...seam } = seamOf(card, place)
  const seen = verdict === 'jump' && isUnseen(card, place) ? 'unseen' : verdict
  return { address, label, verdict: seen, ...seam, why: seen === 'jump' ? reasons(card, place) : [] }
}

function measuredSeam(card: Card, place: ParameterPlace): Seam {
  const { parameter } = place
  const channels = channelsOf(card, place)
  const turn = turnOf(parameter)
  const sides = channels.map((at) => sidesOf(at, card.length, turn))
  const worst = sides.reduce((a, b) => (Math.abs(b.value.jump) > Math.abs(a.value.jump) ? b : a))
  const steps = channels.map((at) => stepsOf(at, card.length, turn))
  const step = steps.reduce((a, b) => (b.seam > a.seam ? b : a))
  const range = Math.max(...steps.map((s) => s.range), 1e-9)
  const moves = Math.abs(worst.value.jump) > range * 1e-4
  const leaps = step.seam > 2 * step.largest + range * 1e-4
  const bends = Math.max(...sides.map(({ speed }) => Math.abs(speed.after - speed.before))) > range * 1e-3
  const jumpsElsewhere = () =>
    Math.max(...channels.map((at) => largestJump(at, card.length, turn))) > Math.abs(worst.value.jump) / 2
  const isJump = leaps || (moves && !jumpsElsewhere())
  const verdict = isJump ? 'jump' : moves ? 'held' : bends ? 'turn' : 'closed'
  return { verdict, value: worst.value, speed: worst.speed, step }
}

/** Whether the piece or the entry of a value is clear, off or outside of its span on both sides of the seam. */
function isUnseen(card: Card, { piece, address }: ParameterPlace): boolean {
  const way = pathTo(card.pieces, piece ?? '')
  if (!way) return false
  let pieces: readonly Piece[] = card.pieces
  const holders: (Piece | Part)[] = way.map((index) => {
    const here = pieces[index]!
    pieces = piecesIn(here)
    return here
  })
  const own = holders.at(-1) as Piece
  const part = partOf(own, address.split('/')[1] ?? '')
  if (part) holders.push(part.entry)
  const clear = (frame: number) =>
    holders.some((holder) => {
      // Entries of a piece's lists run as it does.
      const at = momentIn(card, 'span' in holder ? holder.id : own.id, frame)
      const span = 'span' in holder ? (holder.span as Piece['span']) : null
      if (!switchValue(holder.on, at) || (span && (at.frame < span.in || at.frame >= span.out))) return true
      const opacity = 'opacity' in holder ? holder.opacity : 100
      return numberValue(opacity, at, PLACE_PARAMETERS.opacity) <= 0
    })
  return clear(card.length - 1) && clear(0)
}

type Curve = (frame: number) => number

/** What a value does over the card's frames: a number, or the four channels of a colour. */
function channelsOf(card: Card, { piece, parameter, value }: ParameterPlace): Curve[] {
  if (parameter.type === 'colour') {
    return [0, 1, 2, 3].map((c) => (frame) => colourAt(value as Moving<string>, momentIn(card, piece, frame))[c]!)
  }
  const run = motoredNumber(value as Moving<number>, momentOf(card, 0))
  return [hasClock(card, piece) ? (frame) => run(frameIn(card, piece, frame)) : run]
}

/** The shortest way between two values: of an angle at most half a turn. */
function between(from: number, to: number, turn: number | null): number {
  const by = to - from
  return turn === null ? by : by - Math.round(by / turn) * turn
}

function sidesOf(at: Curve, length: number, turn: number | null) {
  const [a, b] = [at(length - 2 * MOMENT), at(length - MOMENT)]
  const [c, d] = [at(0), at(MOMENT)]
  const before = b + (b - a)
  return {
    value: { before, after: c, jump: between(before, c, turn) },
    speed: { before: (b - a) / MOMENT, after: (d - c) / MOMENT },
  }
}

function stepsOf(at: Curve, length: number, turn: number | null) {
  const stride = Math.max(1, Math.ceil(length / MOST_STEPS))
  const values: number[] = []
  let largest = 0
  for (let frame = 0; frame < length; frame += stride) {
    const here = at(frame)
    values.push(here)
    if (frame === 0) continue
    largest = Math.max(largest, Math.abs(between(at(frame - 1), here, turn)))
  }
  const range =
    values.reduce((most, v) => Math.max(most, v), -Infinity) - values.reduce((least, v) => Math.min(least, v), Infinity)
  return { seam: Math.abs(between(at(length - 1), at(0), turn)), largest, range }
}

/** Parts of a frame in which jumps within the loop are looked for: they need not stand on whole frames. */
const PARTS = 8

/** The largest step within the loop that stands out between its neighbours: what is held jumps so. */
function largestJump(at: Curve, length: number, turn: number | null): number {
  const count = Math.min(length * PARTS, MOST_STEPS * PARTS)
  const values = Array.from({ length: count }, (_, i) => at((i / count) * length))
  const steps = values.slice(1).map((value, i) => Math.abs(between(values[i]!, value, turn)))
  return steps.reduce((most, step, i) => {
    const around = Math.max(steps[i - 1] ?? 0, steps[i + 1] ?? 0)
    return step > 4 * around && step > most ? step : most
  }, 0)
}

function reasons(card: Card, { parameter, value }: ParameterPlace): string[] {
  const moving = value as Moving<number>
  const keys = actingKeys(moving, card.length)
  const [first, last] = [keys[0]!, keys.at(-1)!]
  const why: string[] = []
  if (moving.loop === false && first.value !== last.value)
    why.push('its keys end at another value than they begin with')
  else if (first.value !== last.value && roomOf(card, moving) <= 1) {
    why.push('its last key stands right before the seam with another value than the first')
  }
  const { from, to, progress } = segmentAt(moving, card.length - MOMENT, card.length)
  const near = from.value + (to.value - from.value) * progress
  if (moving.loop !== false && Math.abs(to.value - near) > Math.abs(to.value - from.value) / 2) {
    why.push('the way from its last key to its first is held, and jumps at its end')
  }
  return [...why, ...motorGaps(card, moving, turnOf(parameter)).flatMap(({ gap }) => gap ?? [])]
}

/** Frames between the last key and the first one of the next turn. */
export function roomOf(card: Card, moving: Moving<unknown>): number {
  const keys = actingKeys(moving, card.length)
  return card.length - keys.at(-1)!.frame + keys[0]!.frame
}

/** What each motor says of the seam. */
export function motorGaps(card: Card, moving: Moving<number>, turn: number | null) {
  return (moving.motors ?? []).map((motor, i) => {
    const place: MotorPlace = {
      ...motorPlace(moving, momentOf(card, 0)),
      turn,
      before: motoredNumber(moving, momentOf(card, 0), i),
    }
    const definition = motorOf(motor.kind)
    // A motor's values are those of its own kind.
    const gap = motor.on ? definition.gap(motor as never, place) : null
    return { index: i, gap, mend: gap === null ? null : (definition.mend?.(motor as never, place) ?? null) }
  })
}
