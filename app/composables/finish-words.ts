import { finishOf } from '#core/finishes/table'
import type { Finish } from '#core/card/schema'
import { curveName } from '#core/curves/curve'
import { counts } from '#core/values/parameter-kinds'
import type { Moment } from '#core/values/evaluated'
import { valueAt } from '#core/values/evaluated'
import type { Length } from '#core/values/moving'

/** The name that it was given, or that of its kind: `Blur, along`. */
export function finishTitle(finish: Finish): string {
  if (finish.name) return finish.name
  const { label, parameters } = finishOf(finish.kind)
  const { form } = parameters
  const option = form?.type === 'choice' ? form.options.find(({ value }) => value === finish.form) : undefined
  return option ? `${label}, ${option.label.toLowerCase()}` : label
}

/** The value that says most of a finish, as its slab shows it. */
export function finishHeadline(finish: Finish, at: Moment): string {
  const { headline, parameters } = finishOf(finish.kind)
  // Where the headline does not count, the first amount of the finish does.
  const name = counts(parameters[headline]!, finish)
    ? headline
    : Object.keys(parameters).find(
        (other) => ['length', 'number'].includes(parameters[other]!.type) && counts(parameters[other]!, finish),
      )
  if (!name) return ''
  const parameter = parameters[name]!
  const value = valueAt(parameter, finish[name], at)
  const round = (v: number) => Math.round(v * 10) / 10
  if (parameter.type === 'length') {
    const length = value as Length
    return typeof length === 'number' ? `${round(length)} px` : `${round(length.value)} %`
  }
  if (parameter.type === 'number') return `${round(value as number)} ${parameter.unit}`.trim()
  if (parameter.type === 'curve' && typeof finish[name] === 'string') return curveName(finish[name] as 'linear')
  return ''
}
