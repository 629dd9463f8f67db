import { COMMON_FINISH_PARAMETERS } from '#core/finishes/definition'
import { finishOf, FINISH_KINDS } from '#core/finishes/table'
import { COMMON_MASK_PARAMETERS, parametersOfMask } from '#core/masks/definition'
import { MASK_KINDS, maskOf } from '#core/masks/table'
import { COMMON_STEP_PARAMETERS } from '#core/steps/definition'
import { stepOf } from '#core/steps/table'
import type { Entry, EntryFamily } from '#core/edit/entries'
import { curveName } from '#core/curves/curve'
import type { Parameters } from '#core/values/parameter-kinds'
import { counts } from '#core/values/parameter-kinds'
import type { Moment } from '#core/values/evaluated'
import { valueAt } from '#core/values/evaluated'
import type { Length } from '#core/values/moving'

/** What an entry is: no kind is in both tables. */
export const familyOf = ({ kind }: Entry): EntryFamily =>
  FINISH_KINDS.includes(kind) ? 'finish' : MASK_KINDS.includes(kind) ? 'mask' : 'step'

const DEFINITIONS = { finish: finishOf, step: stepOf, mask: maskOf }

/** The definition of a finish, an outline step or a mask. */
export const definitionOf = (entry: Entry) => DEFINITIONS[familyOf(entry)](entry.kind)

/** Its parameters, with those that all of its family have. */
export function allParametersOf(entry: Entry): Parameters {
  const family = familyOf(entry)
  if (family === 'mask') return parametersOfMask(maskOf(entry.kind))
  return {
    ...definitionOf(entry).parameters,
    ...(family === 'finish' ? COMMON_FINISH_PARAMETERS : COMMON_STEP_PARAMETERS),
  }
}

/** The name that it was given, or that of its kind: `Blur, along`. */
export function entryTitle(entry: Entry): string {
  if (entry.name) return entry.name
  const { label, parameters } = definitionOf(entry)
  const { form } = parameters
  const option = form?.type === 'choice' ? form.options.find(({ value }) => value === entry.form) : undefined
  return option ? `${label}, ${option.label.toLowerCase()}` : label
}

/** The value that says most of it, as its slab shows it. */
export function entryHeadline(entry: Entry, at: Moment): string {
  const definition = definitionOf(entry)
  // Of a mask, what it does says more than how large it is.
  if (!('headline' in definition)) {
    return COMMON_MASK_PARAMETERS.mode.options.find(({ value }) => value === entry.mode)!.label.toLowerCase()
  }
  const { headline, parameters } = definition
  // Where the headline does not count, the first amount does.
  const name = counts(parameters[headline]!, entry)
    ? headline
    : Object.keys(parameters).find(
        (other) => ['length', 'number'].includes(parameters[other]!.type) && counts(parameters[other]!, entry),
      )
  if (!name) return ''
  const parameter = parameters[name]!
  const value = valueAt(parameter, entry[name], at)
  const round = (v: number) => Math.round(v * 10) / 10
  if (parameter.type === 'length') {
    const length = value as Length
    return typeof length === 'number' ? `${round(length)} px` : `${round(length.value)} %`
  }
  if (parameter.type === 'number') return `${round(value as number)} ${parameter.unit}`.trim()
  if (parameter.type === 'curve' && typeof entry[name] === 'string') return curveName(entry[name] as 'linear')
  return ''
}
