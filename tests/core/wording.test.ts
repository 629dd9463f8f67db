import { describe, expect, test } from '@jest/globals'
import { createCard } from '#core/card/create'
import { readCard } from '#core/card/read'
import type { Card, Piece, TypePiece } from '#core/card/schema'
import { addPiece, changePiece, duplicatePiece } from '#core/edit/stack'
import { toggleKey } from '#core/edit/values'
import { namedByWords, writeWording } from '#core/edit/wording'
import { freeLabel } from '#core/rosters/field-edit'

const empty = createCard('Words', { width: 800, height: 450, rate: { numerator: 25, denominator: 1 }, length: 100 })
const titled = (name?: string): Card => {
  const { card, id } = addPiece(empty, 'type')
  return name === undefined ? card : changePiece(card, id, { name } as Partial<Piece>)
}
const said = (card: Card, words: string, id = 'type-1') => writeWording(card, id, 0, words)
const named = (card: Card) => card.pieces.map(({ name }) => name)

describe('a type piece that nobody named is called by its words', () => {
  test('letter by letter, by its first line, no longer than can be read in the stack', () => {
    const typed = ['H', 'He', 'Heat 3', 'Heat 3\nUpper lock'].reduce((card, words) => said(card, words), titled())
    expect(named(typed)).toEqual(['Heat 3'])
    const [long] = named(said(titled(), `  ${'🏮'.repeat(60)}`))
    expect([...long!]).toHaveLength(40)
    expect(long).not.toContain('\uFFFD')
  })

  test('the second one as well, and a copy by what it says now', () => {
    const two = said(addPiece(said(titled(), 'Isolde'), 'type').card, 'Ferrywoman', 'type-2')
    expect(named(two)).toEqual(['Ferrywoman', 'Isolde'])
    const { card, id } = duplicatePiece(two, 'type-1')
    expect(named(said(card, 'Wren', id)).sort()).toEqual(['Ferrywoman', 'Isolde', 'Wren'])
    const again = duplicatePiece(card, id)
    expect(again.card.pieces.map(({ name }) => name)).toContain('Isolde, copy, copy')
    expect(named(said(again.card, 'Wren', again.id))).toContain('Wren')
    // In the middle of a name it is somebody's word.
    const own = changePiece(card, id, { name: 'Isolde, copy, blue' } as Partial<Piece>)
    expect(named(said(own, 'Wren', id))).toContain('Isolde, copy, blue')
    expect(named(said(said(titled(), 'Carbon, copy it'), 'Ink'))).toEqual(['Ink'])
  })

  test('without words by its kind, and by words again', () => {
    const none = said(said(titled(), 'Heat'), ' \n')
    expect(named(none)).toEqual(['Type'])
    expect(named(said(none, 'Final'))).toEqual(['Final'])
  })

  test.each(['Name', 'Typed', 'Heat 3, big'])('a name that somebody gave stays: %s', (name) => {
    const card = said(titled(name), 'Heat 3')
    expect(named(card)).toEqual([name])
    expect((card.pieces[0] as TypePiece).wording).toBe('Heat 3')
  })

  test('as well where a field of theirs is written', () => {
    const card = said(titled(), 'Isolde Brook')
    const filled = changePiece(card, 'type-1', { wording: 'Ada Reed' } as Partial<Piece>)
    expect(named(namedByWords(card, filled, ['type-1', 'gone']))).toEqual(['Ada Reed'])
  })

  test('a column for it is not called by what the first row says', () => {
    const card = said(titled(), 'Isolde Brook')
    expect(freeLabel(card, 'type-1/wording')).toBe('Words')
    expect(freeLabel(card, 'type-1/size')).toBe('Words size')
    expect(freeLabel(said(titled('Name'), 'Isolde Brook'), 'type-1/wording')).toBe('Name')
  })

  test('words that change over time name nothing; what is made is a card', () => {
    const moving = toggleKey(titled(), 'type-1/wording', 0)
    expect(named(said(moving, 'Heat 3'))).toEqual(named(moving))
    expect(readCard(said(titled(), '\u202Eabc\n'.repeat(200))).faults).toBeNull()
  })
})
