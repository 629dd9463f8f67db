import { z } from 'zod'
import type { Rate } from '../values/rate'
import { perSecond, rateSchema } from '../values/rate'
import { boxPath } from '../outline/box'
import type { Frames } from '../units'
import type { Moment } from '../values/moment'
import { atRest } from '../values/moment'
import { valuesAt } from '../values/evaluated'
import { choice, number } from '../values/parameter-kinds'
import type { Course } from './clock'
import { CLOCK_PARAMETERS, clockOf, clockStand } from './clock'
import { extent, linearLight } from './common-parameters'
import { definePiece } from './definition'

/** Frames of a sequence at the most: some minutes. */
export const MOST_SEQUENCE_FRAMES = 6000

export const sequenceId = z.string().regex(/^sequence-[0-9a-f]{16}$/, 'is no id of a sequence')

/** A sequence that was brought in. */
export interface SequenceName {
  id: string
  /** How many pictures it has. */
  frames: Frames
}

const { clock, clockStart, clockSpeed, clockFrom, clockTo, clockEnd, clockBackward, clockFrame } = CLOCK_PARAMETERS

export const SEQUENCE_PARAMETERS = {
  width: extent('Width', 'Width of its pictures, in px', 600),
  height: extent('Height', 'Height of its pictures, in px', 400),
  linear: linearLight,
  alpha: choice({
    label: 'Alpha',
    help: 'Whether its colours were laid on black or white when it was made: for dark or light rims around it',
    default: 'straight',
    options: [
      { value: 'straight', label: 'Straight' },
      { value: 'black', label: 'On black' },
      { value: 'white', label: 'On white' },
    ],
  }),
  between: choice({
    label: 'Between',
    help: 'What is shown between two pictures, at another rate or speed: the nearest of them in time, or both mixed',
    default: 'nearest',
    options: [
      { value: 'nearest', label: 'Nearest' },
      { value: 'mixed', label: 'Mixed' },
    ],
  }),
  dissolve: {
    ...number({
      label: 'Dissolve',
      help: 'Pictures over which its end goes over into its beginning, as far as there are more of them before or after the cut',
      ...({ default: 0, min: 0, max: 500, step: 1, unit: '', slider: [0, 50] } as const),
    }),
    when: { parameter: 'clockEnd', is: ['again'] },
  },
  clock: choice({
    label: 'Time within',
    help: 'Runs by its clock, or stands at a picture that is keyed by hand',
    default: 'own',
    options: clock.options.filter(({ value }) => value !== 'around'),
  }),
  clockStart,
  clockSpeed,
  clockFrom: { ...clockFrom, help: 'The first of its pictures that is shown, counted from 0' },
  clockTo: { ...clockTo, help: 'The picture at which it ends, which is not shown itself; 0 is its end' },
  clockEnd: { ...clockEnd, default: 'again' },
  clockBackward,
  clockFrame: { ...clockFrame, help: 'The picture that is shown, counted from 0; it can be keyed' },
} as const

interface Played {
  sequence: SequenceName | null
  rate: Rate | null
}

/** A sequence runs through its own pictures, at its own rate: null is a picture for each frame of the card. */
function courseOf(piece: object): Course {
  const { sequence, rate } = piece as Played
  return {
    length: () => sequence?.frames ?? 1,
    pace: ({ ring }) => (rate ? perSecond(rate) / (ring.rate ?? 25) : 1),
  }
}

export const sequence = definePiece({
  kind: 'sequence',
  label: 'Sequence',
  help: 'Pictures over time: numbered PNG files, a video, or a picture that moves, with coats around its opaque parts',
  parameters: SEQUENCE_PARAMETERS,
  own: () => ({
    sequence: z
      .strictObject({ id: sequenceId, frames: z.number().int().min(1).max(MOST_SEQUENCE_FRAMES) })
      .nullable()
      .default(null),
    rate: rateSchema.nullable().default(null),
  }),
  starts: { sequence: null, rate: null },
  coatsFrom: 'alpha',
  holds: 'pixels',
  clock: (piece) => clockOf(piece, courseOf(piece)),
  outline: ({ width, height }, { flat }) => (width > 0 && height > 0 ? flat(boxPath(width, height, [0, 0, 0, 0])) : []),
  reference: ({ width, height }) => Math.min(width, height),
})

/** One of a sequence's pictures, and its share in what is shown. All shares together are 1. */
export interface ShownPicture {
  index: Frames
  share: number
}

/** Times closer to a picture are that picture's: quotients of rates are not exact. */
const CLOSE = 1e-6

/** The pictures of a sequence that are seen at a moment; none where it has none. */
export function shownPictures(piece: object & Played, now: Moment): ShownPicture[] {
  const { sequence } = piece
  if (!sequence) return []
  const at = atRest(now)
  const { between, dissolve, clock, clockEnd, clockFrame } = valuesAt(SEQUENCE_PARAMETERS, piece, at)
  const last = sequence.frames - 1
  const parted = (frame: Frames, back: boolean, next: (index: Frames) => Frames) => {
    const near = Math.round(frame)
    const exact = Math.abs(frame - near) < CLOSE
    if (exact) return [{ index: near, share: 1 }]
    // Half-way between two it is the one that has begun.
    if (between === 'nearest') return [{ index: back ? Math.floor(frame + 0.5) : Math.ceil(frame - 0.5), share: 1 }]
    const index = Math.floor(frame)
    return [
      { index, share: 1 - (frame - index) },
      { index: next(index + 1), share: frame - index },
    ]
  }
  const within = (shown: readonly ShownPicture[]) =>
    together(shown.map(({ index, share }) => ({ index: Math.min(last, Math.max(0, index)), share })))
  if (clock === 'keyed') return within(parted(clockFrame, false, (index) => index))
  const { frame, back, from, count } = clockStand(piece, at, courseOf(piece))
  const to = from + count
  // After the last one comes the first again, or the last one stays.
  const next = (index: Frames) => (index < to ? index : clockEnd === 'again' ? from : to - 1)
  const round = (shown: readonly ShownPicture[]) =>
    shown.map(({ index, share }) => ({ index: index < to ? index : next(index), share }))
  const shown = round(parted(frame, back, next))
  const over = clockEnd === 'again' ? seamAt(frame - from, { from, count, frames: sequence.frames }, dissolve) : null
  if (!over) return within(shown)
  const other = parted(frame + over.by, back, (index) => index)
  return within([
    ...shown.map(({ index, share }) => ({ index, share: share * (1 - over.share) })),
    ...other.map(({ index, share }) => ({ index, share: share * over.share })),
  ])
}

/**
 * What is mixed in over the seam of a cut, `way` after its beginning: the picture so many further, and its share. Its end goes over into
 * what lies before its beginning; where there is more after its end, its beginning comes out of that.
 */
function seamAt(
  way: Frames,
  { from, count, frames }: { from: Frames; count: Frames; frames: Frames },
  dissolve: Frames,
): { by: Frames; share: number } | null {
  const [before, after] = [Math.min(from, count), Math.min(frames - (from + count), count)]
  const long = Math.min(dissolve, Math.max(before, after))
  if (long < 1) return null
  if (before >= long) {
    const into = way - (count - long)
    return into > -1 + CLOSE ? { by: -count, share: Math.min(1, (into + 1) / (long + 1)) } : null
  }
  return way < long - CLOSE ? { by: count, share: 1 - (way + 1) / (long + 1) } : null
}

/** Every picture once. */
function together(shown: readonly ShownPicture[]): ShownPicture[] {
  const shares = new Map<Frames, number>()
  for (const { index, share } of shown) if (share > 0) shares.set(index, (shares.get(index) ?? 0) + share)
  return [...shares].map(([index, share]) => ({ index, share }))
}
