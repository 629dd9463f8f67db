import type { FieldKindDefinition } from './definition'
import { parameterAt } from '../../card/addresses'
import { filledAt, putValue, standing, unreadable } from './definition'

/** Words are taken as they are: an empty cell shows none. */
export const wording: FieldKindDefinition = {
  kind: 'wording',
  label: 'Wording',
  help: 'The words themselves; an empty cell shows none',
  empty: 'taken',
  takes: (card, address) => parameterAt(card, address)?.parameter.type === 'text',
  written: (card, { at }) => String(standing(card, at[0]!)),
  fill: (filled, field, cell) =>
    filledAt(filled, field, (card, address) => {
      const parameter = parameterAt(card, address)!.parameter
      const longest = parameter.type === 'text' ? parameter.longest : 0
      if (cell.length > longest) {
        throw unreadable(field, `It has ${cell.length} characters.`, `The most is ${longest}: say less.`)
      }
      return putValue(card, field, address, cell.replace(/\r\n?/g, '\n'))
    }),
}
