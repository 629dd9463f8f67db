import type { Card } from '../../card/schema'
import type { PieceOutlook } from '../../frame/outlook'
import type { Frames, Px } from '../../units'
import type { WithEngine } from '../with-engine'
import { safeRect } from '../safe-areas'
import type { RowCheck, RowFlag, RowLook } from './definition'
import { onceOf } from './definition'
import type { Room } from './rooms'
import { cutShare, framesToLookAt, holdOf, titleArea, within } from './rooms'

// Whether the words of a row have room: by their bounds in every frame of the hold that differs, and by what masks cut.

/** Height of capitals at 1080 lines below which nobody reads them on a small set: common practice, no published source. */
const LEAST_CAPS: Px = 14
/** Ink that masks take away beyond what they took from the design. */
const CUT = 0.01

/** Overflow, glyphs that are missing and capitals too small. Throws a WaxError where the engine refuses the row. */
export async function fitOfRow({ card, rooms }: Omit<RowLook, 'holds'>, withEngine: WithEngine): Promise<RowFlag[]> {
  const flags: RowFlag[] = []
  for (const frame of framesToLookAt(card)) {
    const outlook = await withEngine((engine) => engine.outlook(card, frame))
    for (const room of rooms) flags.push(...flagsOf(card, room, outlook, frame))
  }
  const { from } = holdOf(card)
  for (const room of rooms) flags.push(...(await cutOf(card, room, from, withEngine)))
  return onceOf(flags)
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

/** What masks cut off: only the picture tells. */
async function cutOf(card: Card, room: Room, frame: Frames, withEngine: WithEngine): Promise<RowFlag[]> {
  const cut = await withEngine((engine) => cutShare(engine, card, room.piece, frame))
  if (cut <= room.cut + CUT) return []
  const message = `Its mask cuts off ${Math.round(cut * 100)} % of it.`
  const remedy = 'Fit it to the width, or make the mask larger.'
  return [{ piece: room.piece, frame, check: 'overflow', message, remedy, fits: true }]
}
