import { defaultsOf } from '#core/values/parameters'
import type { LetterRange, RangeValues } from '#core/type/ranges'
import { RANGE_PARAMETERS } from '#core/type/ranges'

/** A range with the values of its table, at one moment. */
export const evaluatedRange = (values: Partial<RangeValues>) =>
  ({ ...defaultsOf(RANGE_PARAMETERS), colour: [1, 0, 0, 1], ...values }) as RangeValues

/** A range as a card holds it. */
export const letterRange = (values: Partial<LetterRange>) =>
  ({ id: 'range-1', name: 'Range', on: true, ...defaultsOf(RANGE_PARAMETERS), ...values }) as LetterRange
