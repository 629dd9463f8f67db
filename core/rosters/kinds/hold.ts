import { HOLD_ADDRESS } from '../../card/fields'
import { WaxError } from '../../errors'
import { zonesOf } from '../../time/held'
import { holdsForHold } from '../../time/hold-still'
import { timecode, readTimecode } from '../../time/timecode'
import type { Frames } from '../../units'
import type { Rate } from '../../values/rate'
import { perSecond } from '../../values/rate'
import type { FieldKindDefinition } from './definition'
import { unreadable } from './definition'

const SECONDS = /^(\d+(?:[.,]\d+)?)\s*s(?:ec(?:onds?)?)?$/i

/** Frames of a length that a cell says: `4.5 s`, frames, or timecode. Throws a WaxError for what is none. */
export function framesIn(cell: string, rate: Rate): Frames {
  const [, seconds] = SECONDS.exec(cell.trim()) ?? []
  return seconds === undefined
    ? readTimecode(cell, rate)
    : Math.round(Number(seconds.replace(',', '.')) * perSecond(rate))
}

export const hold: FieldKindDefinition = {
  kind: 'hold',
  label: 'Length of the hold',
  help: 'How long it stands between coming in and going out: 4.5 s, frames, or timecode; an empty cell keeps the card’s',
  empty: 'kept',
  takes: (_card, address) => address === HOLD_ADDRESS,
  written: (card) => {
    const zones = zonesOf(card)
    return zones ? timecode(zones.out - zones.hold, card.rate) : ''
  },
  fill: ({ card, holds: before }, field, cell) => {
    if (!zonesOf(card)) {
      throw new WaxError(
        'no-zones',
        field.label,
        'The card has no zones, so it has no hold.',
        'Set its zones on the ribbon, or leave the cell empty.',
      )
    }
    const frames = read(cell, card.rate)
    if (frames === null || frames < 1) {
      throw unreadable(field, `“${cell}” is no length.`, 'Write 4.5 s, a number of frames, or seconds:frames.')
    }
    return { card, holds: holdsForHold(card, frames) ?? before }
  },
}

function read(cell: string, rate: Rate): Frames | null {
  try {
    return framesIn(cell, rate)
  } catch {
    return null
  }
}
