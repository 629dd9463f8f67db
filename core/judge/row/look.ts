import type { Card } from '../../card/schema'
import { wordingAt } from '../../card/wording'
import { WaxError } from '../../errors'
import type { FramePicture } from '../../frame/engine'
import type { PieceOutlook } from '../../frame/outlook'
import { momentOf } from '../../time/ring'
import type { Frames, Px } from '../../units'
import { perSecond } from '../../values/rate'
import { readingTime, wordsIn } from '../measures/reading'
import { PLAIN_GROUNDS } from '../proof/grounds'
import { contrastOver } from '../proof/legibility'
import type { WithEngine } from '../proof/look'
import { lettersOf } from '../proof/look'
import { safeRect } from '../safe-areas'
import type { Room } from './rooms'
import { cutShare, framesToLookAt, holdOf, titleArea, typesOf, within } from './rooms'

// What is wrong with a row of a roster: the engine makes it, on every frame of the hold that differs, and measures its ink.

export const ROW_CHECKS = [
  {
    id: 'overflow',
    label: 'Overflow',
    how: 'Ink outside its box, its bar, its mask or the safe area, on any frame of the hold',
  },
  { id: 'glyphs', label: 'Missing glyphs', how: 'Characters that none of its fonts has' },
  {
    id: 'legibility',
    label: 'Legibility',
    how: 'Capitals too small, contrast too low, or too many words for the hold',
  },
  { id: 'render', label: 'Not to be rendered', how: 'What the engine refuses' },
] as const
export type RowCheck = (typeof ROW_CHECKS)[number]['id']

export interface RowFlag {
  check: RowCheck
  /** The words that it is about; null for the whole row. */
  piece: string | null
  frame: Frames | null
  message: string
  remedy: string
  /** Whether it helps to fit the words to the width. */
  fits: boolean
}

/** Height of capitals at 1080 lines below which nobody reads them on a small set: common practice, no published source. */
const LEAST_CAPS: Px = 14
/** WCAG 2.2, 1.4.3: large type. */
const LEAST_CONTRAST = 3
/** Ink that masks take away beyond what they took from the design. */
const CUT = 0.01

export interface RowLook {
  /** The card filled by the row. */
  card: Card
  /** What the design gives: see rooms.ts. */
  rooms: readonly Room[]
  /** How often the hold is played. */
  holds: number
}

/** Everything that is to be said of a row. */
export async function lookAtRow({ card, rooms, holds }: RowLook, withEngine: WithEngine): Promise<RowFlag[]> {
  try {
    const flags: RowFlag[] = []
    for (const frame of framesToLookAt(card)) {
      const outlook = await withEngine((engine) => engine.outlook(card, frame))
      for (const room of rooms) flags.push(...flagsOf(card, room, outlook, frame))
    }
    const { from } = holdOf(card)
    for (const room of rooms) flags.push(...(await pictureFlags(card, room, from, withEngine)))
    return once([...flags, ...readingFlags(card, rooms, holds)])
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    const { message, remedy } = error.fault
    return [{ check: 'render', piece: null, frame: null, message, remedy, fits: false }]
  }
}

/** What its bounds tell at one frame. */
function flagsOf(card: Card, room: Room, outlook: readonly PieceOutlook[], frame: Frames): RowFlag[] {
  const entry = outlook.find(({ id }) => id === room.piece)
  if (!entry?.type) return []
  const flag = (check: RowCheck, message: string, remedy: string, fits = false): RowFlag => ({
    ...{ check, message, remedy, fits },
    ...{ piece: room.piece, frame },
  })
  const { bounds, type } = entry
  const flags: RowFlag[] = []
  if (type.missing.length > 0) {
    const signs = type.missing.slice(0, 8).join(' ')
    flags.push(flag('glyphs', `Its font has no ${signs}`, 'Give the type a fallback font that has them.'))
  }
  const caps = capsOf(entry) * (1080 / card.frame.height)
  if (caps > 0 && caps < LEAST_CAPS) {
    flags.push(flag('legibility', `Its capitals are ${caps.toFixed(0)} px high.`, 'Say less, or break it into lines.'))
  }
  if (bounds.right <= bounds.left) return flags
  const fit = 'Fit it to the width, or say less.'
  const bar = outlook.find(({ id }) => id === room.bar)
  if (type.overflows) flags.push(flag('overflow', 'Its words have no room in their box.', fit, true))
  else if (room.inFrame && !within(bounds, safeRect(card.frame, 1))) {
    flags.push(flag('overflow', 'It reaches beyond the frame.', fit, true))
  } else if (bar && !within(bounds, bar.bounds)) flags.push(flag('overflow', 'It reaches beyond its bar.', fit, true))
  else if (room.inSafe && !within(bounds, titleArea(card))) {
    flags.push(flag('overflow', 'It reaches beyond the title area.', fit, true))
  }
  return flags
}

/** Height of the capitals as they are set, on the card. */
function capsOf({ type, placement }: PieceOutlook): Px {
  const letter = type?.letters.find(({ blank }) => !blank)
  if (!letter) return 0
  const [top, bottom] = [letter.corners[0]!, letter.corners[3]!]
  return Math.sqrt((bottom.x - top.x) ** 2 + (bottom.y - top.y) ** 2) * placement.scale
}

/** What only its picture tells: what masks cut, and contrast. */
async function pictureFlags(card: Card, room: Room, frame: Frames, withEngine: WithEngine): Promise<RowFlag[]> {
  const piece = typesOf(card).find(({ id }) => id === room.piece)
  if (!piece) return []
  const flags: RowFlag[] = []
  const at = { piece: piece.id, frame }
  const cut = await withEngine((engine) => cutShare(engine, card, piece.id, frame))
  if (cut > room.cut + CUT) {
    const message = `Its mask cuts off ${Math.round(cut * 100)} % of it.`
    flags.push({
      ...at,
      check: 'overflow',
      message,
      remedy: 'Fit it to the width, or make the mask larger.',
      fits: true,
    })
  }
  const letters = await lettersOf(card, piece, frame, withEngine)
  const picture: FramePicture = await withEngine((engine) => engine.render(card, frame))
  const unread = PLAIN_GROUNDS.flatMap((ground) => {
    const ratio = contrastOver(letters, picture, ground)
    return ratio !== null && ratio < LEAST_CONTRAST ? [`${ratio.toFixed(1)} : 1 over ${ground.label}`] : []
  })
  if (unread.length > 1) {
    flags.push({
      ...{ ...at, check: 'legibility', fits: false },
      ...{ message: `Its contrast is ${unread.join(', ')}.`, remedy: 'Choose colours that lie further apart.' },
    })
  }
  return flags
}

/** Words that are gone before they are read: less than half of the time that two readings take. */
function readingFlags(card: Card, rooms: readonly Room[], holds: number): RowFlag[] {
  const { from, to } = holdOf(card)
  const now = momentOf(card, from)
  const words = typesOf(card)
    .filter(({ id }) => rooms.some(({ piece }) => piece === id))
    .reduce((sum, piece) => sum + wordsIn(wordingAt(piece, now)), 0)
  const [seen, needed] = [((to - from) * holds) / perSecond(card.rate), readingTime(words)]
  if (seen >= needed / 2) return []
  const message = `It is held for ${seen.toFixed(1)} s; to read ${words} words twice takes ${needed.toFixed(1)} s.`
  return [
    { check: 'legibility', piece: null, frame: null, message, remedy: 'Hold it longer, or say less.', fits: false },
  ]
}

/** Each once, at the first frame where it was found. */
function once(flags: readonly RowFlag[]): RowFlag[] {
  const known = new Set<string>()
  return flags.filter(({ check, piece, message }) => {
    const key = `${check} ${piece} ${check === 'overflow' ? '' : message}`
    return known.has(key) ? false : Boolean(known.add(key))
  })
}
