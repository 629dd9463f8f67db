import type { FieldKindDefinition } from './definition'
import { parameterAt } from '../../card/addresses'
import { filledAt, putValue, standing, unreadable } from './definition'

export const choiceField: FieldKindDefinition = {
  kind: 'choice',
  label: 'Choice',
  help: 'One of the names that the choice shows; an empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => parameterAt(card, address)?.parameter.type === 'choice',
  written: (card, { at }) => String(standing(card, at[0]!)),
  fill: (filled, field, cell) =>
    filledAt(filled, field, (card, address) => {
      const { parameter } = parameterAt(card, address)!
      if (parameter.type !== 'choice') return card
      const word = cell.trim().toLowerCase()
      const option = parameter.options.find(({ value, label }) => [value, label.toLowerCase()].includes(word))
      if (!option) {
        const names = parameter.options.map(({ value }) => value).join(', ')
        throw unreadable(field, `“${cell}” is none of the choices.`, `Write one of ${names}.`)
      }
      return putValue(card, field, address, option.value)
    }),
}
