import { isMoving } from '../../values/moving'
import { storedAt } from '../../edit/values'
import type { FieldKindDefinition } from './definition'
import { parameterAt } from '../../card/addresses'
import { filledAt, putValue, standing, unreadable } from './definition'

/** A number with point or comma, and its unit where it has one. */
const NUMBER = /^([-+−]?\d+(?:[.,]\d+)?)\s*(px|%|°|‰)?$/

export const number: FieldKindDefinition = {
  kind: 'number',
  label: 'Number',
  help: 'A number, with point or comma, in the unit of the value; lengths may say px or %. An empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => ['number', 'length'].includes(parameterAt(card, address)?.parameter.type ?? ''),
  written: (card, { at }) => {
    const value = standing(card, at[0]!)
    return typeof value === 'object' && value !== null ? `${(value as { value: number }).value} %` : String(value)
  },
  fill: (filled, field, cell) => {
    const [, digits, unit] = NUMBER.exec(cell.trim()) ?? []
    if (digits === undefined) throw unreadable(field, `“${cell}” is no number.`, 'Write digits alone, such as 12.5.')
    const value = Number(digits.replace(',', '.').replace('−', '-'))
    return filledAt(filled, field, (card, address) => {
      const { parameter } = parameterAt(card, address)!
      if (parameter.type !== 'number' && parameter.type !== 'length') return card
      if (value < parameter.min || value > parameter.max) {
        const { min, max } = parameter
        throw unreadable(field, `${digits} is out of range.`, `It goes from ${min} to ${max}.`)
      }
      if (parameter.type === 'number') {
        if (unit !== undefined && unit !== parameter.unit) {
          const own = parameter.unit === '' ? 'has no unit' : `is in ${parameter.unit}`
          throw unreadable(field, `“${cell}” has another unit: this value ${own}.`, 'Leave the unit out.')
        }
        return putValue(card, field, address, value)
      }
      const stored = storedAt(card, address)
      if (isMoving(stored)) return putValue(card, field, address, value)
      const percent = unit === '%' || (unit === undefined && typeof stored === 'object' && stored !== null)
      return putValue(card, field, address, percent ? { unit: '%', value } : value)
    })
  },
}
