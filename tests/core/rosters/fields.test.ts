import { describe, expect, test } from '@jest/globals'
import type { CardField } from '#core/card/fields'
import { readCard } from '#core/card/read'
import type { Card, PicturePiece, TypePiece } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import { removePiece } from '#core/edit/stack'
import { setStored, storedAt } from '#core/edit/values'
import { listParameters } from '#core/card/addresses'
import { fillCard } from '#core/rosters/fill'
import { movesByKeys } from '#core/rosters/kinds/definition'
import { addPlace, fieldAt, kindFor, makeField, removePlace, renameField, updateSeal } from '#core/rosters/field-edit'
import { fieldKind, FIELD_DEFINITIONS } from '#core/rosters/kinds/table'
import { demoCard, emptyCard, coat } from '../../support/engine'

const lower = demoCard('02-lower-third')

function withFields(card: Card, ...addresses: string[]): Card {
  return addresses.reduce((next, address) => makeField(next, address), card)
}
const cell = (card: Card, text: string, brought = {}) => {
  const last = card.fields.at(-1)!
  return fillCard(card, { [last.id]: text }, { picture: () => null, ...brought })
}

test('values that a field can take are filled with what the card has, and nothing changes', () => {
  const tried = new Set<string>()
  let keyed = 0
  for (const name of ['02-lower-third', '15-flat-made-glossy', '22-fitting-lower-third', '20-marker-ring']) {
    const card = demoCard(name)
    // Some of each sort: a card has hundreds of numbers.
    const seen = new Map<string, number>()
    for (const { address, parameter } of listParameters(card)) {
      const times = (seen.get(parameter.type) ?? 0) + 1
      seen.set(parameter.type, times)
      if (times % 7 !== 1) continue
      const kind = kindFor(card, address)
      if (!kind) {
        expect(['curve', 'path', 'piece', 'pieces', 'paint']).toContain(parameter.type)
        continue
      }
      const made = makeField(card, address)
      if (movesByKeys(card, address)) {
        keyed++
        expect(made).toBe(card)
        continue
      }
      const { card: filled, faults } = cell(made, kind.written(card, made.fields[0]!))
      tried.add(kind.kind)
      expect(faults).toEqual([])
      expect(listParameters(filled)).toEqual(listParameters(made))
    }
  }
  expect(keyed).toBeGreaterThan(0)
  expect([...tried].sort()).toEqual(['choice', 'colour', 'number', 'switch', 'wording'])
})

test('a card with fields is read again as it was; two fields of one name, or of one id, are refused', () => {
  const card = withFields(lower, 'name/wording', 'role/wording', 'hold')
  expect(card.fields.map(({ label, kind }) => [label, kind])).toEqual([
    ['Name', 'wording'],
    ['Role', 'wording'],
    ['Hold', 'hold'],
  ])
  expect(readCard(JSON.parse(JSON.stringify(card))).card).toEqual(card)
  const twice = { ...card, fields: [card.fields[0]!, { ...card.fields[1]!, label: ' NAME ' }] }
  expect(readCard(twice).faults![0]).toMatchObject({ place: 'fields[1].label' })
  const sameId = { ...card, fields: [card.fields[0]!, { ...card.fields[1]!, id: card.fields[0]!.id }] }
  expect(readCard(sameId).faults![0]).toMatchObject({ place: 'fields[1].id' })
})

test('a field fills several values at once; the last one taken out takes the field along', () => {
  const first = withFields(lower, 'name/fill-1/paint/colour')
  const { id } = first.fields[0]!
  const other = listParameters(lower).find(
    ({ address, parameter }) => parameter.type === 'colour' && !address.startsWith('name/'),
  )!.address
  const both = addPlace(first, id, other)
  expect(addPlace(both, id, 'name/wording')).toBe(both)
  const { card } = fillCard(both, { [id]: '9b2d26' })
  const colours = listParameters(card).filter(({ address }) => both.fields[0]!.at.includes(address))
  expect(colours.map(({ value }) => value)).toEqual(['#9B2D26', '#9B2D26'])
  const one = removePlace(both, other)
  expect(fieldAt(one, other)).toBeUndefined()
  expect(removePlace(one, 'name/fill-1/paint/colour').fields).toEqual([])
})

test('a field is renamed, but not to what another is called', () => {
  const card = withFields(lower, 'name/wording', 'role/wording')
  const [, second] = card.fields
  expect(renameField(card, second!.id, 'name')).toBe(card)
  expect(renameField(card, second!.id, ' Trade ').fields[1]!.label).toBe('Trade')
})

describe('cells', () => {
  const faultOf = (card: Card, text: string, brought = {}) => cell(card, text, brought).faults[0]

  test('words are taken as they are, an empty cell shows none; 2,001 characters are refused', () => {
    const card = withFields(lower, 'name/wording')
    const words = (text: string) => (cell(card, text).card.pieces.find(({ id }) => id === 'name') as TypePiece).wording
    expect(words('Tam\r\nVoss')).toBe('Tam\nVoss')
    expect(words('')).toBe('')
    expect(words('x'.repeat(500))).toHaveLength(500)
    expect(faultOf(card, 'x'.repeat(2001))).toMatchObject({ code: 'unreadable-cell', place: 'Name', field: 'field-1' })
  })

  test('numbers with point or comma and their unit; what is out of range or in another unit is told', () => {
    const card = withFields(lower, 'name/size')
    const size = (text: string) => (cell(card, text).card.pieces.find(({ id }) => id === 'name') as TypePiece).size
    expect([size('80,5'), size('80.5 px'), size(' 12 ')]).toEqual([80.5, 80.5, 12])
    expect(size('')).toBe((lower.pieces[0] as TypePiece).size)
    expect(faultOf(card, '0')!.remedy).toMatch(/from 1 to 5000/)
    expect(faultOf(card, '80 %')!.message).toMatch(/another unit: this value is in px/)
    expect(faultOf(card, '1e3')!.message).toMatch(/no number/)
  })

  test('lengths keep their unit, or take the one that is written', () => {
    const base = { ...emptyCard(200, 100) }
    const piece = { ...createPiece('box', base), coats: { face: [], behind: [coat('stroke', 's', { width: 4 })] } }
    const card = withFields({ ...base, pieces: [piece] }, 'box-1/s/width')
    const width = (text: string) => (cell(card, text).card.pieces[0]!.coats.behind[0] as { width?: unknown }).width
    expect([width('6'), width('6 %'), width('6px')]).toEqual([6, { unit: '%', value: 6 }, 6])
    const inPercent = setStored(card, 'box-1/s/width', { unit: '%', value: 3 })
    expect(cell(inPercent, '6').card.pieces[0]!.coats.behind[0]).toMatchObject({ width: { unit: '%', value: 6 } })
  })

  test('colours, switches and choices, and what is none', () => {
    const colour = withFields(lower, 'name/fill-1/paint/colour')
    expect(cell(colour, '#fa0').card.pieces[0]!.coats.face[0]).toMatchObject({ paint: { colour: '#FFAA00' } })
    expect(faultOf(colour, 'sunny')).toMatchObject({ message: '“sunny” is no colour.' })
    const shown = withFields(lower, 'name/on')
    expect(['no', 'OFF', '0'].map((text) => cell(shown, text).card.pieces[0]!.on)).toEqual([false, false, false])
    expect(faultOf(shown, 'maybe')).toMatchObject({ code: 'unreadable-cell' })
    const aligned = withFields(lower, 'name/align')
    expect(cell(aligned, 'Right').card.pieces[0]).toMatchObject({ align: 'right' })
    expect(faultOf(aligned, 'up')!.remedy).toBe('Write one of left, centre, right, justify.')
  })

  test('a picture stands within the box of the card’s own, in its own shape; one that is not here is named', () => {
    const base = emptyCard(400, 200)
    const own = { ...createPiece('picture', base), width: 200, height: 100 } as PicturePiece
    const card = withFields({ ...base, pieces: [own] }, 'picture-1/picture')
    const picture = (name: string) =>
      name === 'boat.png' ? { id: 'picture-0123456789abcdef', width: 50, height: 50 } : null
    expect(cell(card, 'boat.png', { picture }).card.pieces[0]).toMatchObject({
      ...{ picture: 'picture-0123456789abcdef', width: 100, height: 100 },
    })
    expect(faultOf(card, 'oar.png', { picture })).toMatchObject({
      message: 'The picture “oar.png” is not here.',
      remedy: 'Bring its file in, or mend its name.',
    })
  })

  test('a variant of a seal is pressed by its name', () => {
    const variants = ['On dark', 'On light'].map((name, i) => ({
      name,
      coats: { face: [coat('fill', 'f', { opacity: 50 + i })], behind: [] },
      finishes: null,
    }))
    const sealed = {
      ...lower,
      pieces: lower.pieces.map((piece) => ({ ...piece, seal: { id: 's', variant: 'On dark' } })),
    }
    const card = makeField(sealed, 'name/seal', variants)
    const name = cell(card, 'on light').card.pieces[0]!
    expect(name.seal).toEqual({ id: 's', variant: 'On light' })
    expect(name.coats.face.map(({ opacity }) => opacity)).toEqual([51])
    expect(faultOf(card, 'quiet')!.remedy).toBe('Write one of On dark, On light.')
    expect(readCard(JSON.parse(JSON.stringify(card))).card).toEqual(card)
    // A seal that is changed is pressed again, and what rows may ask for is what it has now.
    const changed = updateSeal(card, {
      id: 's',
      name: 'Seal',
      tags: [],
      variants: [{ ...variants[0]!, name: 'Quiet' }],
    })
    expect(changed.fields.at(-1)!.variants.map((variant) => variant.name)).toEqual(['Quiet'])
    expect(cell(changed, 'quiet').faults).toEqual([])
  })

  test('a hold lasts as long as its cell says, exactly where nothing moves in it', () => {
    const still = withFields({ ...emptyCard(100, 100, 50), zones: { hold: 10, out: 40 } }, 'hold')
    const holds = (card: Card, text: string) => cell(card, text).holds
    expect(holds(still, '60')).toBe(2)
    expect(holds(still, '1.8 s') * 30).toBeCloseTo(45, 9)
    expect(holds(still, '0:15') * 30).toBeCloseTo(15, 9)
    expect(holds(still, '')).toBe(1)
    const piece = {
      ...createPiece('box', still),
      x: {
        keys: [
          { frame: 0, value: 0 },
          { frame: 25, value: 50 },
        ],
      },
    }
    expect(holds({ ...still, pieces: [piece] }, '45')).toBe(2)
    expect(faultOf(still, 'long')).toMatchObject({ place: 'Hold' })
    expect(faultOf({ ...still, zones: null }, '45')).toMatchObject({ code: 'no-zones' })
  })

  test('what moves by keys has no one value: it is made no field, and told where it moved later; one key is filled', () => {
    expect(withFields(lower, 'name/x').fields).toEqual([])
    const card = withFields(setStored(lower, 'name/x', 5), 'name/x')
    expect(addPlace(card, 'field-1', 'role/x')).toBe(card)
    expect(faultOf(setStored(card, 'name/x', storedAt(lower, 'name/x')), '100')).toMatchObject({ code: 'field-moves' })
    const around = setStored(card, 'name/x', { keys: [{ frame: 3, value: 5 }], motors: [] })
    expect(cell(around, '100').card.pieces[0]!.x).toEqual({ keys: [{ frame: 3, value: 100 }], motors: [] })
  })

  test('a field whose piece was deleted is told at its cell, and the others are filled', () => {
    const card = removePiece(withFields(lower, 'name/wording', 'role/wording'), 'name')
    const { card: filled, faults } = fillCard(card, { 'field-1': 'Tam Voss', 'field-2': 'Pilot' })
    expect(faults).toEqual([expect.objectContaining({ field: 'field-1', code: 'field-gone', place: 'Name' })])
    expect(filled.pieces.find(({ id }) => id === 'role')).toMatchObject({ wording: 'Pilot' })
  })
})

test('every kind of field says what a cell is, and is found in the table', () => {
  for (const { kind, label, help } of FIELD_DEFINITIONS) {
    expect(label.length * help.length).toBeGreaterThan(0)
    expect(fieldKind(kind as CardField['kind']).kind).toBe(kind)
  }
})
