import type { LengthParameter } from '#core/values/parameter-kinds'
import { counts } from '#core/values/parameter-kinds'
import { GRADIENT_PARAMETERS } from '#core/values/paints'
import { coatOf } from '#core/coats/table'
import type { Coat } from '#core/card/schema'
import type { Moment } from '#core/values/evaluated'
import { lengthValue, numberValue } from '#core/values/evaluated'
import type { StoredPaint } from '#core/values/moving'
import { isGradient } from '#core/values/moving'

/** The name that it was given, or `Stroke, outside`. */
export function coatTitle(coat: Coat): string {
  if (coat.name) return coat.name
  const { label } = coatOf(coat.kind)
  return typeof coat.side === 'string' ? `${label}, ${coat.side}` : label
}

/** The value that says most of a coat, as its slab shows it. */
export function coatHeadline(coat: Coat, at: Moment): string {
  const { headline, parameters } = coatOf(coat.kind)
  // Where the headline does not count, another length of the coat does.
  const name = counts(parameters[headline]!, coat)
    ? headline
    : Object.keys(parameters).find((other) => parameters[other]!.type === 'length' && counts(parameters[other]!, coat))
  const parameter = name ? parameters[name]! : null
  if (!name || !parameter) return ''
  if (parameter.type === 'paint') {
    const paint = coat[name] as StoredPaint
    return isGradient(paint) && paint.type === 'linear'
      ? `${Math.round(numberValue(paint.angle, at, GRADIENT_PARAMETERS.angle))}°`
      : ''
  }
  const value = lengthValue(coat[name], at, parameter as LengthParameter)
  const amount = typeof value === 'number' ? value : value.value
  return `${Math.round(amount * 10) / 10} ${typeof value === 'number' ? 'px' : '%'}`
}

/** The paint that a slab is drawn with: the first of the coat's paints or colours. */
export function coatPaint(coat: Coat): StoredPaint {
  for (const [name, { type }] of Object.entries(coatOf(coat.kind).parameters)) {
    if (type === 'paint') return coat[name] as StoredPaint
    if (type === 'colour') return { type: 'solid', colour: coat[name] as string }
  }
  return { type: 'solid', colour: '#000000' }
}
