import { valuesAt } from '../values/evaluated'
import type { Clock, Moment } from '../values/moment'
import type { Frames } from '../units'
import { choice, number, toggle } from '../values/parameter-kinds'

// The clock of what lies in a piece: how its time follows from the time around it.

const own = { when: { parameter: 'clock', is: ['own'] } } as const
const frames = { min: -216_000, max: 216_000, step: 1, unit: '', slider: [0, 250] } as const

export const CLOCK_PARAMETERS = {
  clock: choice({
    label: 'Time within',
    help: 'What lies in it runs with the time around it, by a clock of its own, or stands at a frame that is keyed by hand',
    default: 'around',
    options: [
      { value: 'around', label: 'As around' },
      { value: 'own', label: 'Own clock' },
      { value: 'keyed', label: 'By hand' },
    ],
  }),
  clockStart: {
    ...number({ label: 'Starts at', help: 'The frame around it at which the clock starts', default: 0, ...frames }),
    ...own,
  },
  clockSpeed: {
    ...number({
      label: 'Speed',
      help: 'How fast it runs, in %. For a speed that changes let the time run by hand and key the frame',
      ...({ default: 100, min: 1, max: 10_000, step: 1, unit: '%', slider: [10, 400] } as const),
    }),
    ...own,
  },
  clockFrom: {
    ...number({ label: 'From', help: 'The first frame within that is shown', default: 0, ...frames }),
    ...own,
  },
  clockTo: {
    ...number({
      label: 'To',
      help: 'The frame within at which it ends, which is not shown itself; 0 is the end of the loop',
      ...{ default: 0, ...frames },
    }),
    ...own,
  },
  clockEnd: {
    ...choice({
      label: 'Then',
      help:
        'What follows at its end, and goes before its start: nothing is shown; the last frame is held, before the start the first; ' +
        'again from the first; or to and fro, each end once',
      default: 'hold',
      options: [
        { value: 'stop', label: 'Stop' },
        { value: 'hold', label: 'Hold' },
        { value: 'again', label: 'Again' },
        { value: 'fro', label: 'To and fro' },
      ],
    }),
    ...own,
  },
  clockBackward: {
    ...toggle({ label: 'Backward', help: 'Runs from its last frame to its first', default: false }),
    ...own,
  },
  clockFrame: {
    ...number({ label: 'Frame', help: 'The frame within that is shown; it can be keyed', default: 0, ...frames }),
    when: { parameter: 'clock', is: ['keyed'] },
  },
} as const

/** How a clock of its own runs, in whole and broken frames. */
interface Run {
  start: Frames
  /** Frames within for each one around. */
  speed: number
  from: Frames
  /** Frames that it shows. */
  count: Frames
  end: 'stop' | 'hold' | 'again' | 'fro'
  backward: boolean
}

/** What a clock runs through. */
export interface Course {
  /** Frames within, where nothing says otherwise. */
  length(at: Moment): Frames
  /** Frames within for each one around, at full speed. */
  pace(at: Moment): number
}

const AS_AROUND: Course = { length: ({ ring }) => ring.length, pace: () => 1 }

function runAt(piece: object, at: Moment, { length, pace }: Course): Run {
  const { clockStart, clockSpeed, clockFrom, clockTo, clockEnd, clockBackward } = valuesAt(CLOCK_PARAMETERS, piece, at)
  const to = clockTo === 0 ? length(at) : clockTo
  return {
    ...{ start: clockStart, speed: (clockSpeed / 100) * pace(at), from: clockFrom, count: Math.max(1, to - clockFrom) },
    ...{ end: clockEnd, backward: clockBackward },
  }
}

const modulo = (value: number, by: number) => value - Math.floor(value / by) * by

/** Where a clock stands. */
export interface ClockStand {
  /** The frame within. */
  frame: Frames
  /** Whether it goes down from here. */
  back: boolean
}

/** The frame within, `run` frames after the start. */
function shownAt({ from, count, end, backward }: Run, run: Frames): ClockStand {
  const last = count - 1
  if (end === 'again') {
    const way = modulo(run, count)
    return { frame: from + (backward ? modulo(last - way, count) : way), back: backward }
  }
  const { way, back } = end === 'fro' ? toAndFro(run, last) : { way: Math.min(Math.max(0, run), last), back: false }
  return { frame: from + (backward ? last - way : way), back: back !== backward }
}

/** 0, 1 … last … 1, 0, 1: each end is shown once. */
function toAndFro(run: Frames, last: Frames): { way: Frames; back: boolean } {
  if (last <= 0) return { way: 0, back: false }
  const way = modulo(run, 2 * last)
  return way <= last ? { way, back: false } : { way: 2 * last - way, back: true }
}

/** All runs after which a frame within is shown, as those of one period and how long that is; 0 for never again. */
function runsTo({ from, count, end, backward }: Run, frame: Frames): { runs: Frames[]; period: Frames } {
  const last = count - 1
  const way = backward ? last - (frame - from) : frame - from
  if (end === 'again') {
    const inside = frame >= from && frame < from + count
    return { runs: inside ? [modulo(way, count)] : [], period: count }
  }
  const runs = way >= 0 && way <= last ? [way] : []
  if (end !== 'fro') return { runs, period: 0 }
  return { runs: last > 0 ? runs.flatMap((run) => [run, 2 * last - run]) : runs, period: Math.max(1, 2 * last) }
}

/** The clock of a piece that carries these parameters; null where all in it runs with the time around. */
export function clockOf(piece: object, course = AS_AROUND): Clock | null {
  const { clock } = piece as { clock: 'around' | 'own' | 'keyed' }
  if (clock === 'own') return OWN(piece, course)
  return clock === 'keyed' ? KEYED(piece) : null
}

/** Where a clock of its own stands, and the frames that it runs through, [from, from + count). */
export function clockStand(
  piece: object,
  at: Moment,
  course = AS_AROUND,
): ClockStand & { from: Frames; count: Frames } {
  const run = runAt(piece, at, course)
  return { ...shownAt(run, (at.frame - run.start) * run.speed), from: run.from, count: run.count }
}

const OWN = (piece: object, course: Course): Clock => ({
  inside: (at) => clockStand(piece, at, course).frame,
  stopped(at) {
    const run = runAt(piece, at, course)
    const way = (at.frame - run.start) * run.speed
    return run.end === 'stop' && (way < 0 || way >= run.count)
  },
  outside(frame, near) {
    const run = runAt(piece, near, course)
    const { runs, period } = runsTo(run, frame)
    const around = runs.flatMap((way) => {
      const first = run.start + way / run.speed
      if (period === 0) return [first]
      const turn = period / run.speed
      const nearest = first + Math.round((near.frame - first) / turn) * turn
      return [nearest - turn, nearest, nearest + turn]
    })
    return nearestOf(
      around.filter((one) => one >= 0 && one < near.ring.length),
      near.frame,
    )
  },
})

/** Frames of a loop that are looked through for one within. */
const MOST_SOUGHT = 20_000

const KEYED = (piece: object): Clock => {
  const shown = (at: Moment) => valuesAt(CLOCK_PARAMETERS, piece, at).clockFrame
  return {
    inside: shown,
    stopped: () => false,
    outside(frame, near) {
      const found: Frames[] = []
      let before = shown({ ...near, frame: 0 })
      for (let i = 0; i < Math.min(near.ring.length, MOST_SOUGHT); i++) {
        const after = shown({ ...near, frame: i + 1 })
        if (before === frame) found.push(i)
        else if ((before < frame && frame < after) || (after < frame && frame < before)) {
          found.push(i + (frame - before) / (after - before))
        }
        before = after
      }
      return nearestOf(found, near.frame)
    },
  }
}

const nearestOf = (frames: readonly Frames[], to: Frames): Frames | null =>
  frames.reduce<Frames | null>(
    (best, one) => (best === null || Math.abs(one - to) < Math.abs(best - to) ? one : best),
    null,
  )

/** A clock whose frames are shown so many frames later. */
export const delayed = (clock: Clock | null, delay: (at: Moment) => Frames): Clock => ({
  inside: (at) => (clock ? clock.inside(at) : at.frame) - delay(at),
  stopped: (at) => clock?.stopped(at) ?? false,
  outside: (frame, near) => {
    const shown = frame + delay(near)
    return clock ? clock.outside(shown, near) : modulo(shown, near.ring.length)
  },
})
