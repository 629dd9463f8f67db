import type { Frames, Rect } from '../../../units'
import { within } from '../../row/rooms'
import { SAFE_AREAS, safeRect } from '../../safe-areas'
import type { CoursePiece } from '../course'
import { standing } from '../course'
import type { ProofCheck, ProofFinding } from '../definition'
import { foundOr } from '../definition'
import type { Looked } from '../look'
import { at, inRows, once } from './findings'

// Whether all is there, and where it may stand: in every frame.

/** A piece at a frame of the hold; `rests`: whether it stands where it did in the frame before. */
interface Placed extends CoursePiece {
  frame: Frames
  rests: boolean
}

export const PLACE_CHECKS: readonly ProofCheck[] = [
  {
    id: 'missing',
    label: 'Fonts, pictures and glyphs',
    how: 'All that the card names is here, and its fonts have every letter of every frame',
    source: 'What the engine finds',
    judge: ({ missing, course, rows }) => {
      const glyphs = course.flatMap(({ frame, pieces }) =>
        pieces.flatMap(({ piece, type }): ProofFinding[] => {
          if (!type || type.missing.length === 0) return []
          const letters = type.missing.slice(0, 8).join(' ')
          return [at(piece.id, frame, `Its font has no ${letters}`, 'Choose a fallback font that has them.')]
        }),
      )
      const gone = missing.map(({ message, remedy }): ProofFinding => ({ piece: null, frame: null, message, remedy }))
      return foundOr(
        [...gone, ...once(glyphs), ...inRows(rows, 'glyphs'), ...inRows(rows, 'render')],
        'bad',
        'not complete',
        'all here',
      )
    },
  },
  {
    id: 'overflow',
    label: 'Type within its room',
    how: 'Words that do not fit their box, or stand beyond the frame; those of rows also beside the bar, mask and title area of the design',
    source: 'What the engine finds',
    judge: (looked) => {
      const { card, rows, rowCount } = looked
      const frame = safeRect(card.frame, 1)
      const found = placed(looked).flatMap((one): ProofFinding[] => {
        if (!one.type) return []
        if (one.type.overflows)
          return [at(one.piece.id, one.frame, 'Its words do not fit.', 'Fit them to the width, or make them smaller.')]
        // What flies in passes the edge of the frame.
        if (one.rests && !within(one.bounds, frame))
          return [at(one.piece.id, one.frame, 'It reaches beyond the frame.', 'Move it in, or make it smaller.')]
        return []
      })
      const all = [...once(found), ...inRows(rows, 'overflow')]
      const fits = rowCount > 0 ? `all fits, in ${rowCount} ${rowCount === 1 ? 'row' : 'rows'} too` : 'all fits'
      return foundOr(all, 'bad', `${all.length} without room`, fits)
    },
  },
  {
    id: 'safe',
    label: 'Safe areas',
    how: 'Bounds of type in every frame of the hold against the title area, of all else that stands still against the action area',
    source: 'SMPTE ST 2046-1, EBU R 95: 90 % and 93 % of the frame',
    judge: (looked) => {
      const { card } = looked
      const [action, title] = SAFE_AREAS.map(({ share }) => safeRect(card.frame, share)) as [Rect, Rect]
      const frame = safeRect(card.frame, 1)
      const all = placed(looked)
      const outside = all.filter(({ type, bounds }) => type && !within(bounds, title))
      const resting = outside.filter(({ rests }) => rests)
      // Where it stands outside nothing is said of its way there.
      const passing = outside.filter(({ piece }) => !resting.some((one) => one.piece.id === piece.id))
      const bare = all.filter(
        // What bleeds over the edge is meant to.
        ({ type, rests, bounds }) => !type && rests && within(bounds, frame) && !within(bounds, action),
      )
      const own = once([
        ...resting.map(({ piece, frame: when }) =>
          at(piece.id, when, 'It stands outside the title area.', 'Move it in: older sets cut it off.'),
        ),
        ...passing.map(({ piece, frame: when }) =>
          at(
            piece.id,
            when,
            'It leaves the title area on its way.',
            'Set in and out where that is how it comes and goes; else keep it in.',
          ),
        ),
        ...bare.map(({ piece, frame: when }) =>
          at(piece.id, when, 'It stands outside the action area.', 'Move it in, or let it run over the edge.'),
        ),
      ])
      return foundOr(own, resting.length > 0 ? 'bad' : 'look', `${own.length} outside`, 'all inside')
    },
  },
]

/** Distance from one frame to the next within which a piece rests, as a share of the frame's width. */
const RESTS = 0.0005

/** What stands there in the frames of the hold, as strong as it gets: with ink, and whether it rests. */
function placed({ card, course, hold }: Looked): Placed[] {
  const still = card.frame.width * RESTS
  const frames = course.slice(hold.from, hold.to)
  const all = frames.flatMap(({ frame, pieces }, i) => {
    const beside = [frames[i - 1], frames[i + 1]].map(
      (one) => new Map(one?.pieces.map(({ piece, bounds }) => [piece.id, bounds])),
    )
    return pieces.map((one): Placed => {
      const rests = beside.every((other) => apart(one.bounds, other.get(one.piece.id) ?? one.bounds) <= still)
      return { ...one, frame, rests }
    })
  })
  return standing(
    all.filter(({ bounds }) => bounds.right > bounds.left),
    ({ piece }) => piece.id,
    ({ opacity }) => opacity,
  )
}

/** How far it went. What only grows, as words do that change, stays where one of its sides or its middle is. */
function apart(one: Rect, other: Rect): number {
  const [left, right] = [one.left - other.left, one.right - other.right]
  const [top, bottom] = [one.top - other.top, one.bottom - other.bottom]
  const least = (a: number, b: number) => Math.min(Math.abs(a), Math.abs(b), Math.abs(a + b) / 2)
  return Math.max(least(left, right), least(top, bottom))
}
