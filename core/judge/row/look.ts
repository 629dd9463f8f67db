import type { Card } from '../../card/schema'
import { wordingAt } from '../../card/wording'
import type { FramePicture } from '../../frame/engine'
import { momentOf } from '../../time/ring'
import type { Frames } from '../../units'
import { perSecond } from '../../values/rate'
import { readAloud, readingTime, wordsIn } from '../measures/reading'
import { PLAIN_GROUNDS } from '../proof/grounds'
import { contrastsOver, isUnread, leastOf } from '../proof/legibility'
import type { WithEngine } from '../with-engine'
import { lettersOf, letterSpots } from '../proof/letters'
import type { RowFlag, RowLook } from './definition'
import { onceOf, refusedRow } from './definition'
import { fitOfRow } from './fit'
import type { Room } from './rooms'
import { holdOf, typesOf } from './rooms'

// What is wrong with a row of a roster: the engine makes it, on every frame of the hold that differs, and measures its ink.

/** Everything that is to be said of a row. */
export async function lookAtRow({ card, rooms, holds }: RowLook, withEngine: WithEngine): Promise<RowFlag[]> {
  try {
    const flags = await fitOfRow({ card, rooms }, withEngine)
    const { from } = holdOf(card)
    for (const room of rooms) flags.push(...(await contrastFlags(card, room, from, withEngine)))
    return onceOf([...flags, ...readingFlags(card, rooms, holds)])
  } catch (error) {
    return [refusedRow(error)]
  }
}

/** Words against what is seen close around them. */
async function contrastFlags(card: Card, room: Room, frame: Frames, withEngine: WithEngine): Promise<RowFlag[]> {
  const piece = typesOf(card).find(({ id }) => id === room.piece)
  if (!piece) return []
  const letters = await lettersOf(card, piece, frame, withEngine)
  const outlook = await withEngine((engine) => engine.outlook(card, frame))
  const entry = outlook.find(({ id }) => id === piece.id)
  const spots = entry ? letterSpots(entry, wordingAt(piece, momentOf(card, frame))) : []
  const picture: FramePicture = await withEngine((engine) => engine.render(card, frame))
  const unread = contrastsOver(letters, picture, PLAIN_GROUNDS, spots).flatMap((contrast, i) =>
    contrast && isUnread(contrast) ? [`${leastOf(contrast).ratio.toFixed(1)} : 1 over ${PLAIN_GROUNDS[i]!.label}`] : [],
  )
  if (unread.length <= 1) return []
  const message = `Its contrast is ${unread.join(', ')}.`
  const remedy = 'Choose colours that lie further apart.'
  return [{ check: 'legibility', piece: piece.id, frame, message, remedy, fits: false }]
}

/** Words that are gone before they are read: less than half of the time that two readings take. */
function readingFlags(card: Card, rooms: readonly Room[], holds: number): RowFlag[] {
  const { from, to } = holdOf(card)
  const now = momentOf(card, from)
  const wordings = typesOf(card)
    .filter(({ id }) => rooms.some(({ piece }) => piece === id))
    .map((piece) => wordingAt(piece, now))
  const total = (of: (wording: string) => number) => wordings.reduce((sum, wording) => sum + of(wording), 0)
  const words = total(wordsIn)
  const [seen, needed] = [((to - from) * holds) / perSecond(card.rate), readingTime(total(readAloud))]
  if (seen >= needed / 2) return []
  const message = `It is held for ${seen.toFixed(1)} s; to read ${words} words twice takes ${needed.toFixed(1)} s.`
  return [
    { check: 'legibility', piece: null, frame: null, message, remedy: 'Hold it longer, or say less.', fits: false },
  ]
}
