import type { CardField, FieldVariant } from '../card/fields'
import { headingOf, HOLD_ADDRESS, MOST_FIELDS } from '../card/fields'
import { firstFree } from '../card/create'
import { parameterAt } from '../card/addresses'
import type { Card } from '../card/schema'
import { isCalledByItsWords } from '../edit/wording'
import { pressedWith, updatePressed } from '../seals/press'
import type { Seal } from '../seals/schema'
import type { FieldKindDefinition } from './kinds/definition'
import { movesByKeys, pieceOf } from './kinds/definition'
import { FIELD_DEFINITIONS, fieldKind } from './kinds/table'

// Edits of a card's fields.

/** The kind of field that a value can be; null where rows cannot fill it. */
export const kindFor = (card: Card, address: string): FieldKindDefinition | null =>
  FIELD_DEFINITIONS.find((definition) => definition.takes(card, address)) ?? null

/** The field that fills a value; undefined where none does. */
export const fieldAt = ({ fields }: Pick<Card, 'fields'>, address: string): CardField | undefined =>
  fields.find(({ at }) => at.includes(address))

/** Whether all that a field fills is still on the card. */
export const isWhole = (card: Card, field: CardField): boolean =>
  field.at.every((address) => fieldKind(field.kind).takes(card, address))

/** A name for a new field that no other has: words are called after their piece where it has a name of its own, other values after what they are too. */
export function freeLabel(card: Card, address: string): string {
  const taken = new Set(card.fields.map(({ label }) => headingOf(label)))
  const own = plainLabel(card, address).slice(0, 76)
  if (!taken.has(headingOf(own))) return own
  let n = 2
  while (taken.has(headingOf(`${own} ${n}`))) n++
  return `${own} ${n}`
}

function plainLabel(card: Card, address: string): string {
  if (address === HOLD_ADDRESS) return 'Hold'
  const piece = pieceOf(card, address)
  // A column called “Isolde Brook” would say nothing of what belongs into it.
  const name = piece?.kind === 'type' && isCalledByItsWords(piece) ? 'Words' : (piece?.name ?? 'Card')
  if (address === `${piece?.id}/wording` || address === `${piece?.id}/picture`) return name
  if (address === `${piece?.id}/seal`) return `${name} variant`
  return `${name} ${parameterAt(card, address)?.parameter.label.toLowerCase() ?? 'value'}`
}

/** Makes a value a field; the card as it is where rows cannot fill it, because it moves by keys too, or where it is one. `variants` are those of the seal that it is about. */
export function makeField(card: Card, address: string, variants: readonly FieldVariant[] = []): Card {
  const kind = kindFor(card, address)
  if (!kind || movesByKeys(card, address) || fieldAt(card, address) || card.fields.length >= MOST_FIELDS) return card
  const id = firstFree(new Set(card.fields.map((field) => field.id)), 'field')
  const made: CardField = {
    ...{ id, label: freeLabel(card, address), kind: kind.kind, at: [address] },
    variants: kind.kind === 'variant' ? [...variants] : [],
  }
  return { ...card, fields: [...card.fields, made] }
}

/** Lets a field fill one more value of its kind. */
export function addPlace(card: Card, id: string, address: string): Card {
  const field = card.fields.find((one) => one.id === id)
  if (!field || movesByKeys(card, address) || fieldAt(card, address) || kindFor(card, address)?.kind !== field.kind)
    return card
  return withField(card, id, { at: [...field.at, address] })
}

/** Takes a value out of its field; with its last one the field goes. */
export function removePlace(card: Card, address: string): Card {
  const field = fieldAt(card, address)
  if (!field) return card
  const at = field.at.filter((one) => one !== address)
  return at.length > 0 ? withField(card, field.id, { at }) : removeField(card, field.id)
}

export const removeField = (card: Card, id: string): Card => ({
  ...card,
  fields: card.fields.filter((field) => field.id !== id),
})

/** Renames a field; the card as it is where another has the name. */
export function renameField(card: Card, id: string, label: string): Card {
  const wanted = label.trim().slice(0, 80)
  const taken = card.fields.some((field) => field.id !== id && headingOf(field.label) === headingOf(wanted))
  return wanted === '' || taken ? card : withField(card, id, { label: wanted })
}

/** Moves a field; `to` counts after it was taken out. */
export function moveField(card: Card, id: string, to: number): Card {
  const field = card.fields.find((one) => one.id === id)
  if (!field) return card
  const rest = card.fields.filter((one) => one.id !== id)
  return { ...card, fields: [...rest.slice(0, to), field, ...rest.slice(to)] }
}

const withField = (card: Card, id: string, change: Partial<CardField>): Card => ({
  ...card,
  fields: card.fields.map((field) => (field.id === id ? { ...field, ...change } : field)),
})

/** The looks of a seal as a field keeps them. */
export const variantsOf = ({ variants }: Pick<Seal, 'variants'>): FieldVariant[] =>
  variants.map(({ name, coats, finishes }) => ({ name, coats, finishes: finishes ?? null }))

/** Presses a changed seal again on every piece that carries it; fields of its variants get those that it has now. */
export function updateSeal(card: Card, seal: Seal & { id: string }): Card {
  const carriers = new Set(pressedWith(card, seal.id).map(({ id }) => `${id}/seal`))
  return card.fields.reduce(
    (next, { id, kind, at }) =>
      kind === 'variant' && at.some((address) => carriers.has(address))
        ? withField(next, id, { variants: variantsOf(seal) })
        : next,
    updatePressed(card, seal),
  )
}
