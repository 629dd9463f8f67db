import type { StartingPoint } from './definition'
import { closingCard } from './designs/closing-card'
import { countdownRing } from './designs/countdown-ring'
import { cutTitle } from './designs/cut-title'
import { glossPill } from './designs/gloss-pill'
import { mapPin } from './designs/map-pin'
import { neonSign } from './designs/neon-sign'
import { nextStrip } from './designs/next-strip'
import { paperSlip } from './designs/paper-slip'
import { pouredTitle } from './designs/poured-title'
import { quietStrip } from './designs/quiet-strip'
import { raceTicket } from './designs/race-ticket'
import { scoreLine } from './designs/score-line'
import { spokenWord } from './designs/spoken-word'
import { stackedBlocks } from './designs/stacked-blocks'

/** Every starting point, in the order in which they are shown. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  ...[quietStrip, stackedBlocks, paperSlip, glossPill],
  ...[pouredTitle, neonSign, cutTitle],
  ...[nextStrip, raceTicket],
  mapPin,
  spokenWord,
  scoreLine,
  countdownRing,
  closingCard,
]
