import type { GroupPiece, SequencePiece, TwinPiece } from '#core/card/schema'
import { CLOCK_PARAMETERS } from '#core/pieces/clock'
import type { Moment } from '#core/values/evaluated'
import { valuesAt } from '#core/values/evaluated'
import { isMoving } from '#core/values/moving'

/** What a clock does, in a few words; null for none of its own. */
export function clockWords(piece: GroupPiece | TwinPiece | SequencePiece, at: Moment): string | null {
  if (piece.clock === 'around') return null
  const { clockFrame, clockSpeed, clockBackward, clockEnd } = valuesAt(CLOCK_PARAMETERS, piece, at)
  const round = (v: number) => Math.round(v * 10) / 10
  if (piece.clock === 'keyed')
    return isMoving(piece.clockFrame) ? 'frame by hand' : `held at frame ${round(clockFrame)}`
  const then = CLOCK_PARAMETERS.clockEnd.options.find(({ value }) => value === clockEnd)!.label.toLowerCase()
  return [clockBackward ? 'backward' : '', clockSpeed === 100 ? '' : `${round(clockSpeed)} %`, then]
    .filter(Boolean)
    .join(', ')
}
