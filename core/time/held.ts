import type { Card } from '../card/schema'
import type { Frames } from '../units'
import { onRing } from '../values/moment'

// A card with zones comes in, holds and goes out. Its hold can be played several times, to fill a wished length: the
// frames of such a longer run are those of the card, those of the hold again and again.

type Zoned = Pick<Card, 'length' | 'zones'>

/** The zones as far as they lie in the loop, which may have been made shorter since; null where no hold is left. */
export function zonesOf({ length, zones }: Zoned): Card['zones'] {
  if (!zones) return null
  const out = Math.min(zones.out, length)
  return zones.hold < out ? { hold: zones.hold, out } : null
}

/** Frames that so many holds take, one at least. Parts of a hold are for cards whose hold stands still: see hold-still.ts. */
const heldSpan = ({ hold, out }: NonNullable<Card['zones']>, holds: number): Frames =>
  Math.max(1, Math.round((out - hold) * holds))

/** Frames of the run with so many holds. Without zones there is one length. */
export function heldLength(card: Zoned, holds: number): Frames {
  const zones = zonesOf(card)
  return zones ? card.length - (zones.out - zones.hold) + heldSpan(zones, holds) : card.length
}

/** The card's frame at a frame of the run. */
export function heldFrame(card: Zoned, frame: Frames, holds: number): Frames {
  const zones = zonesOf(card)
  if (!zones || frame < zones.hold) return frame
  const [span, held] = [zones.out - zones.hold, heldSpan(zones, holds)]
  return frame < zones.hold + held ? zones.hold + ((frame - zones.hold) % span) : frame - held + span
}

/**
 * The frame that is played so many frames after another one. The loop comes round; `holding`, it goes in and then plays
 * the hold again and again.
 */
export function frameInPlay(card: Zoned, from: Frames, after: Frames, holding: boolean): Frames {
  const zones = holding ? zonesOf(card) : null
  if (!zones) return onRing(from + after, card.length)
  // What is going out comes in again first.
  const at = (from >= zones.out ? from - card.length : from) + after
  if (at < zones.out) return onRing(at, card.length)
  return zones.hold + ((at - zones.hold) % (zones.out - zones.hold))
}
