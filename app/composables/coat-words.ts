import { coatOf } from '#core/coats/table'
import type { Coat } from '#core/card/schema'
import type { Moment } from '#core/card/settled'
import { settleLength, settleNumber } from '#core/card/settled'
import type { StoredPaint } from '#core/card/moving'

/** `Stroke, outside`. */
export function coatTitle(coat: Coat): string {
  const { label } = coatOf(coat.kind)
  return typeof coat.side === 'string' ? `${label}, ${coat.side}` : label
}

/** The value that says most of a coat, as its slab shows it. */
export function coatHeadline(coat: Coat, at: Moment): string {
  const { headline, parameters } = coatOf(coat.kind)
  const parameter = parameters[headline]!
  if (parameter.type === 'paint') {
    const paint = coat[headline] as StoredPaint
    return paint.type === 'linear' ? `${Math.round(settleNumber(paint.angle, at))}°` : ''
  }
  const value = settleLength(coat[headline], at)
  const amount = typeof value === 'number' ? value : value.value
  return `${Math.round(amount * 10) / 10} ${typeof value === 'number' ? 'px' : '%'}`
}

/** The paint that a slab is drawn with. */
export function coatPaint(coat: Coat): StoredPaint {
  if (coat.paint) return coat.paint as StoredPaint
  return { type: 'solid', colour: (coat.colour ?? '#000000') as string }
}
