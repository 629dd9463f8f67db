import { headingOf } from '../../card/fields'
import { pressVariant } from '../../seals/press'
import type { FieldKindDefinition } from './definition'
import { filledAt, pieceOf, unreadable } from './definition'

/** `title/seal`: the look of one of the variants of the seal that the piece carries. */
export const variantField: FieldKindDefinition = {
  kind: 'variant',
  label: 'Variant of a seal',
  help: 'The name of a variant of the seal, such as on dark; an empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => {
    const piece = pieceOf(card, address)
    return piece !== undefined && piece.kind !== 'wash' && address === `${piece.id}/seal`
  },
  written: (card, { at }) => pieceOf(card, at[0]!)?.seal?.variant ?? '',
  fill: (filled, field, cell) => {
    const variant = field.variants.find(({ name }) => headingOf(name) === headingOf(cell))
    if (!variant) {
      const names = field.variants.map(({ name }) => name).join(', ')
      throw unreadable(field, `“${cell}” is no variant of the seal.`, `Write one of ${names}.`)
    }
    return filledAt(filled, field, (card, address) => pressVariant(card, pieceOf(card, address)!.id, variant))
  },
}
