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

/** Frames of the run with so many holds. Without zones there is one length. */
export function heldLength(card: Zoned, holds: number): Frames {
  const zones = zonesOf(card)
  return zones ? card.length + (holds - 1) * (zones.out - zones.hold) : card.length
}

/** The card's frame at a frame of the run. */
export function heldFrame(card: Zoned, frame: Frames, holds: number): Frames {
  const zones = zonesOf(card)
  if (!zones || frame < zones.out) return frame
  const span = zones.out - zones.hold
  return frame < zones.hold + span * holds ? zones.hold + ((frame - zones.hold) % span) : frame - (holds - 1) * span
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

/** How many whole holds come nearest to a wished length. */
export function holdsFor(card: Zoned, wished: Frames): number {
  const zones = zonesOf(card)
  return zones ? Math.max(1, Math.round(1 + (wished - card.length) / (zones.out - zones.hold))) : 1
}
