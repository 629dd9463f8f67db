import { describe, expect, test } from '@jest/globals'
import { listParameters, parameterAt } from '#core/card/addresses'
import { createCard, createCoat, createPiece } from '#core/card/create'
import { addCoat, addPiece } from '#core/edit/stack'
import { storedAt, setStored } from '#core/edit/values'
import { PIECE_KINDS } from '#core/pieces/table'
import { readCard, readCardText } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { COATS } from '#core/coats/table'
import { addFinish } from '#core/edit/finishes'
import { FINISHES } from '#core/finishes/table'

const SIZE = { width: 1920, height: 1080, rate: { numerator: 25, denominator: 1 }, length: 100 }

/** A document as a stranger may have written it. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- any place may hold anything
type Loose = any

/** A card with every kind of piece, each with every kind of coat, and a wash with every kind of finish. */
function fullCard(): Card {
  let card = createCard('Everything', SIZE)
  for (const kind of Object.keys(PIECE_KINDS) as (keyof typeof PIECE_KINDS)[]) {
    const added = addPiece(card, kind)
    card = added.card
    for (const coat of COATS) card = addCoat(card, added.id, coat.kind).card
    // One kind of piece has all finishes: checks go through every parameter of the card.
    if (kind !== 'wash') continue
    for (const finish of FINISHES) card = addFinish(card, added.id, finish.kind).card
  }
  return card
}

test('a parameter is found at its address, in the card as it is after an edit', () => {
  const card = fullCard()
  const places = listParameters(card)
  for (const place of places) expect(parameterAt(card, place.address)).toBe(place)
  expect(parameterAt(card, 'nowhere/x')).toBeUndefined()
  // Pieces that an edit does not touch keep their list; the one that it does gets another.
  const [first, other] = card.pieces.map(({ id }) => `${id}/x`) as [string, string]
  const edited = setStored(card, first, 12.5)
  expect(parameterAt(edited, first)!.value).toBe(12.5)
  expect(parameterAt(card, first)!.value).not.toBe(12.5)
  expect(parameterAt(edited, other)).toBe(parameterAt(card, other))
})

describe('the card file', () => {
  test('what the application makes, it reads; written and read again nothing changes', () => {
    const card = fullCard()
    const { card: read, faults } = readCardText(JSON.stringify(card))
    expect(faults).toBeNull()
    expect(read).toEqual(card)
  })

  test('values that are left out take the defaults of the definitions', () => {
    const bare = {
      format: 'wax-ribbon-card',
      version: 1,
      name: 'Bare',
      frame: { width: 640, height: 360 },
      rate: { numerator: 25, denominator: 1 },
      length: 10,
      pieces: [
        { id: 'a', kind: 'type', name: 'A', wording: 'A', font: 'anton', coats: { face: [{ id: 'f', kind: 'fill' }] } },
      ],
    }
    const { card } = readCard(bare)
    const [piece] = card!.pieces
    expect(piece!.coats.face[0]).toEqual({ ...createCoat('fill', 'f') })
    expect(piece!.scale).toBe(100)
  })

  /** Breaks one place of a good card and gives the faults. */
  function faultsOf(change: (card: Loose) => void) {
    const card = JSON.parse(JSON.stringify(fullCard())) as Loose
    change(card)
    return readCard(card).faults
  }

  test.each<[string, (card: Loose) => void, string, RegExp]>([
    ['an unknown coat', (c) => (c.pieces[1].coats.face[0].kind = 'varnish'), 'pieces[1].coats.face[0].kind', /varnish/],
    ['a value out of range', (c) => (c.pieces[0].opacity = 140), 'pieces[0].opacity', /too large/],
    [
      'a key out of range',
      (c) => (c.pieces[0].opacity = { keys: [{ frame: 0, value: -3 }] }),
      'pieces[0].opacity.keys[0].value',
      /too small/,
    ],
    ['a frame of 20,000 px', (c) => (c.frame.width = 20000), 'frame.width', /too large/],
    ['a misspelt name', (c) => (c.pieces[0].opacitty = 1), 'pieces[0]', /opacitty/],
    [
      'a colour that is none',
      (c) => (c.pieces[1].coats.behind[2].colour = 'red'),
      'pieces[1].coats.behind[2].colour',
      /RRGGBB/,
    ],
    [
      'an easing that is none',
      (c) => (c.pieces[0].x = { keys: [{ frame: 0, value: 1, easing: 'wobble' }] }),
      'pieces[0].x.keys[0].easing',
      /easing/,
    ],
    [
      'keys out of order',
      (c) =>
        (c.pieces[0].x = {
          keys: [
            { frame: 5, value: 1 },
            { frame: 2, value: 1 },
          ],
        }),
      'pieces[0].x.keys[1].frame',
      /later/,
    ],
    ['an id used twice', (c) => (c.pieces[1].id = c.pieces[0].id), 'pieces[1].id', /taken/],
    ['a text for a number', (c) => (c.length = 'long'), 'length', /number/],
    ['a loop of no frames', (c) => (c.length = 0), 'length', /too small/],
  ])('%s is refused with its place', (_, change, place, words) => {
    const faults = faultsOf(change)
    expect(faults).toHaveLength(1)
    expect(faults![0]!.place).toBe(place)
    expect(faults![0]!.message + faults![0]!.remedy).toMatch(words)
    expect(faults![0]!.remedy).not.toBe('')
  })

  test('an id that is taken is told with who has it; the card’s own are named', () => {
    const [twice] = faultsOf((c) => (c.pieces[1].coats.face[0].id = c.pieces[0].id))!
    expect(twice).toMatchObject({
      place: 'pieces[1].coats.face[0].id',
      message: expect.stringMatching(/by pieces\[0\]\.$/),
      remedy: 'Give it an id of its own.',
    })
    expect(faultsOf((c) => (c.pieces[0].id = 'light'))![0]!.message).toMatch(/by the card’s own light\.$/)
  })

  test('lists that are too long are told by their number; a kind that takes none says so', () => {
    const [pieces] = faultsOf((c) => (c.palette = Array(65).fill('#FFFFFF')))!
    expect(pieces).toMatchObject({ message: 'It has 65 entries, too many.', remedy: 'The most is 64.' })
    const twin = { kind: 'twin', id: 'again', name: 'Again', outlineSteps: [{ kind: 'grow', id: 'step-9' }] }
    const [none] = faultsOf((c) => c.pieces.push(twin))!
    const [name] = faultsOf((c) => (c.pieces[0].name = 'n'.repeat(201)))!
    expect(name).toMatchObject({ message: 'It has 201 characters, too many.', remedy: 'The most is 200.' })
    expect(none).toMatchObject({ message: 'It has 1 entry, too many.', remedy: expect.stringMatching(/takes none/) })
  })

  test('of many faults of one kind in one list the first are told, and how many more', () => {
    const points = Array.from({ length: 70 }, (_, i) => [i, 0, 1])
    const painting = { kind: 'painting', id: 'p', name: 'P', strokes: [{ id: 's', tip: 'round-hard', points }] }
    const faults = faultsOf((c) => c.pieces.push(painting))!
    expect(faults).toHaveLength(3)
    expect(faults[2]!.message).toMatch(/So it is with 67 more here\.$/)
  })

  test('two fields of one id or of one heading are told at the second', () => {
    const field = (id: string, label: string) => ({ id, label, kind: 'wording', at: ['title/wording'] })
    const places = (...fields: object[]) => faultsOf((c) => (c.fields = fields))?.map(({ place }) => place) ?? []
    expect(places(field('a', 'Name'), field('a', 'Role'))).toContain('fields[1].id')
    expect(places(field('a', 'Name'), field('b', ' name '))).toContain('fields[1].label')
    expect(places(field('a', 'Name'), field('b', 'Role'))).not.toContain('fields[1].label')
  })

  test('every fault is listed, not only the first', () => {
    const faults = faultsOf((card: Loose) => {
      card.length = 0
      card.pieces[0].scale = -1
      card.pieces[1].coats.face[0].kind = 'glue'
    })
    expect(faults!.map(({ place }) => place).sort()).toEqual([
      'length',
      'pieces[0].scale',
      'pieces[1].coats.face[0].kind',
    ])
  })

  test.each([
    ['{"format": "wax', 'not-json'],
    ['[]', 'not-a-card'],
    ['null', 'not-a-card'],
    ['{"format": "wax-ribbon-card", "version": 9}', 'newer-version'],
    [' '.repeat(17 * 1024 * 1024), 'too-large'],
  ])('a file that is no card (%#) gets one clear word', (text, code) => {
    const { faults } = readCardText(text)
    expect(faults!.map((fault) => fault.code)).toEqual([code])
  })
})

describe('every parameter of the tables', () => {
  test('has an address that leads to its value', () => {
    const card = fullCard()
    const places = listParameters(card)
    expect(places.length).toBeGreaterThan(40)
    for (const { address, value } of places) expect(storedAt(card, address) ?? 50).toEqual(value ?? 50)
    expect(new Set(places.map(({ address }) => address)).size).toBe(places.length)
  })

  test('says what it does, and its standard value lies in its range', () => {
    for (const { parameter } of listParameters(fullCard())) {
      expect(parameter.help.length).toBeGreaterThan(10)
      if ('min' in parameter) {
        expect(parameter.default).toBeGreaterThanOrEqual(parameter.min)
        expect(parameter.default).toBeLessThanOrEqual(parameter.max)
      }
    }
  })

  test('is refused beyond its range and taken at both ends', () => {
    const card = fullCard()
    const ranged = listParameters(card).flatMap(({ address, parameter }) =>
      'min' in parameter ? [{ address, min: parameter.min, max: parameter.max }] : [],
    )
    /** The card with all of them written at once: reading it is what takes its time. */
    const faultsWith = (value: (range: { min: number; max: number }) => number) =>
      readCard(ranged.reduce((now, range) => setStored(now, range.address, value(range)), card)).faults
    expect(faultsWith(({ min }) => min)).toBeNull()
    expect(faultsWith(({ max }) => max)).toBeNull()
    const [below, beyond] = [faultsWith(({ min }) => min - 1)!, faultsWith(({ max }) => max + 1)!]
    expect(ranged.length).toBeGreaterThan(100)
    for (const faults of [below, beyond]) {
      expect(new Set(faults.map(({ place }) => place)).size).toBe(ranged.length)
      expect(faults).toHaveLength(ranged.length)
    }
  })
})

test('a new piece stands in the middle of the card and has a fill', () => {
  const card = createCard('Small', { ...SIZE, width: 640, height: 200 })
  const piece = createPiece('box', card)
  expect([piece.x, piece.y]).toEqual([320, 100])
  expect(piece.coats.face.map(({ kind }) => kind)).toEqual(['fill'])
})
