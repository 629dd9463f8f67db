import type { FieldKindDefinition } from './definition'
import { parameterAt } from '../../card/addresses'
import { filledAt, putValue, standing, unreadable } from './definition'

const ON = new Set(['on', 'yes', 'y', 'true', '1', 'x', '✓'])
const OFF = new Set(['off', 'no', 'n', 'false', '0', '-', '–'])

/** Whether a cell says on or off; null where it says neither. */
export function switchIn(cell: string): boolean | null {
  const word = cell.trim().toLowerCase()
  return ON.has(word) ? true : OFF.has(word) ? false : null
}

export const switchField: FieldKindDefinition = {
  kind: 'switch',
  label: 'Switch',
  help: 'on or off (yes, no, true, false, 1, 0, x); an empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => parameterAt(card, address)?.parameter.type === 'toggle',
  written: (card, { at }) => (standing(card, at[0]!) === true ? 'on' : 'off'),
  fill: (filled, field, cell) => {
    const on = switchIn(cell)
    if (on === null) throw unreadable(field, `“${cell}” is neither on nor off.`, 'Write on or off.')
    return filledAt(filled, field, (card, address) => putValue(card, field, address, on))
  },
}
