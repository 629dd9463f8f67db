import { HEX_COLOUR } from '../../values/colour'
import type { FieldKindDefinition } from './definition'
import { parameterAt } from '../../card/addresses'
import { filledAt, putValue, standing, unreadable } from './definition'

const SHORT = /^#?([0-9a-f])([0-9a-f])([0-9a-f])$/i

/** The hex colour that a cell means, as the card writes it; null for none. A number sign that a spreadsheet lost is put back. */
export function colourIn(cell: string): string | null {
  const text = cell.trim()
  const short = SHORT.exec(text)
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')}`.toUpperCase()
  const hex = text.startsWith('#') ? text : `#${text}`
  return HEX_COLOUR.test(hex) ? hex.toUpperCase() : null
}

export const colour: FieldKindDefinition = {
  kind: 'colour',
  label: 'Colour',
  help: 'A hex colour such as #9B2D26, #92D or, with opacity, #9B2D26CC; an empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => parameterAt(card, address)?.parameter.type === 'colour',
  written: (card, { at }) => String(standing(card, at[0]!)),
  fill: (filled, field, cell) => {
    const hex = colourIn(cell)
    if (!hex) throw unreadable(field, `“${cell}” is no colour.`, 'Write it as #RRGGBB.')
    return filledAt(filled, field, (card, address) => putValue(card, field, address, hex))
  },
}
