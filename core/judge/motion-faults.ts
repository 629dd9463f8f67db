import { finishFaults } from './finish-faults'
import { formFaults } from './form-faults'
import { holdFaults } from './hold-faults'
import { sequenceFaults } from './sequence-faults'
import { listParameters } from '../card/addresses'
import type { Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Card } from '../card/schema'
import { canMixPaths } from '../outline/mix-paths'
import { momentOf, typePieces } from '../time/ring'
import { perSecond } from '../values/rate'
import { readFormula } from '../values/formula'
import { linksFrom, MOST_LINKS, sourcesOf } from '../values/links'
import type { Ring } from '../values/moment'
import { motoredNumber } from '../values/moved'
import { wordsFrom } from '../card/wording'
import type { Motor } from '../values/motors/schema'

/** What is wrong with one moving value, or with a finish; the rest of the card plays on. */
export interface MotionFault {
  address: string
  label: string
  /** Which of its motors, from 0; null for its keys. */
  motor: number | null
  message: string
  remedy: string
}

/** Frames at which a formula is tried; fewer where it throws random points each time, so that these are no more than so many. */
const TRIED = 500
const MOST_THROWN = 50_000

/** Everything in the card's motion and finishes that does not do what it was meant to. */
export function motionFaults(card: Card): MotionFault[] {
  const places = listParameters(card).filter(({ value }) => isMoving(value))
  const { ring } = momentOf(card, 0)
  const all = new Set(listParameters(card).map(({ address }) => address))
  return [
    ...linkFaults(card),
    ...finishFaults(card),
    ...formFaults(card),
    ...holdFaults(card),
    ...sequenceFaults(card),
    ...places.flatMap(({ address, label, parameter, value }) => {
      const moving = value as Moving<never>
      const fault = (motor: number | null, message: string, remedy: string): MotionFault => ({
        ...{ address, label, motor, message, remedy },
      })
      const paths = parameter.type === 'path' ? (moving as Moving<string>).keys : []
      // On the ring the first key follows the last.
      const before = (i: number) => paths.at(i === 0 && moving.loop === false ? 0 : i - 1)!
      const unlike = paths.find((key, i) => !canMixPaths(before(i).value, key.value))
      return [
        ...(unlike
          ? [
              fault(
                null,
                `The path at frame ${unlike.frame} has other points than the one before it, so it jumps.`,
                'Give both the same points in the same order: key the path first, then move its points.',
              ),
            ]
          : []),
        ...(moving.motors ?? []).flatMap((motor, i) => {
          if (!motor.on) return []
          if (motor.kind === 'formula') return formulaFault(card, moving, motor, i, fault)
          if (motor.kind === 'follow')
            return followFault(String(motor.source), address, all, ring, (m, r) => fault(i, m, r))
          return []
        }),
      ]
    }),
  ]
}

/** Type whose words are those of a piece that is gone, or of itself over others: it shows its own. */
function linkFaults(card: Card): MotionFault[] {
  const pieces = typePieces(card)
  return [...pieces.values()].flatMap((piece) => {
    if (!piece.linked || wordsFrom(piece, (id) => pieces.get(id)) !== piece) return []
    const place = { address: `${piece.id}/wording`, label: `${piece.name} · wording`, motor: null }
    return pieces.has(piece.linked)
      ? [
          {
            ...place,
            message: 'The links of its words go in a circle.',
            remedy: 'Give one of the pieces its own words.',
          },
        ]
      : [{ ...place, message: 'The piece whose words it shows is gone.', remedy: 'Choose another one, or its own.' }]
  })
}

type Telling = (motor: number | null, message: string, remedy: string) => MotionFault

function formulaFault(card: Card, moving: Moving<number>, motor: Motor, i: number, fault: Telling): MotionFault[] {
  const { run, fault: wrong } = readFormula(String(motor.text))
  if (!run) return [fault(i, `The formula ${wrong}.`, 'Until that is mended, the value stays as it was before it.')]
  const before = motoredNumber(moving, momentOf(card, 0), i)
  const tried = Math.min(TRIED, MOST_THROWN / Math.max(1, thrownUpTo(moving, i)))
  const stride = Math.max(1, Math.ceil(card.length / tried))
  for (let frame = 0; frame < card.length; frame += stride) {
    const rate = perSecond(card.rate)
    const scope = { t: frame / rate, f: frame, p: frame / card.length, v: before(frame) }
    if (Number.isFinite(run(scope))) continue
    return [
      fault(
        i,
        `The formula gives no number at frame ${frame}.`,
        'Look for a division by 0, or a root or logarithm of what is below 0; there the value stays as it was.',
      ),
    ]
  }
  return []
}

/** Random points that the motors of a value throw anew at one moment, up to one of them. */
const thrownUpTo = ({ motors = [] }: Moving<number>, last: number): number =>
  motors.slice(0, last + 1).reduce((sum, { kind, on, text }) => {
    const read = on && kind === 'formula' ? readFormula(String(text)) : null
    return sum + (read?.run ? read.thrown : 0)
  }, 0)

function followFault(
  source: string,
  own: string,
  all: ReadonlySet<string>,
  ring: Ring,
  fault: (message: string, remedy: string) => MotionFault,
): MotionFault[] {
  if (source === '') return [fault('It follows nothing yet.', 'Choose a value to follow.')]
  if (!all.has(source)) return [fault('What it follows is not on the card any more.', 'Choose another value.')]
  const links = linksFrom(ring, own)
  if (links === Infinity && leadsBack(ring, own)) {
    return [
      fault('The links go in a circle: it follows a value that follows it.', 'Let one of them follow something else.'),
    ]
  }
  if (links <= MOST_LINKS || links === Infinity) return []
  return [
    fault(
      `It follows a value over ${links} links; those beyond ${MOST_LINKS} are passed over.`,
      'Let it follow a value that stands nearer to the first one.',
    ),
  ]
}

/** Whether the links that start at an address come back to it. */
function leadsBack(ring: Ring, own: string): boolean {
  const seen = new Set<string>()
  const open = sourcesOf(ring.read?.(own))
  for (let address = open.pop(); address !== undefined; address = open.pop()) {
    if (address === own) return true
    if (seen.has(address)) continue
    seen.add(address)
    open.push(...sourcesOf(ring.read?.(address)))
  }
  return false
}
