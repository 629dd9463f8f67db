import { beforeAll, expect, test } from '@jest/globals'
import type { Card, Piece } from '#core/card/schema'
import { createMask } from '#core/card/create'
import type { Engine } from '#core/frame/engine'
import { fitToWidth } from '#core/edit/fit-width'
import type { RowFlag } from '#core/judge/row/definition'
import { onceOf } from '#core/judge/row/definition'
import { lookAtRow } from '#core/judge/row/look'
import { roomsOf } from '#core/judge/row/rooms'
import { makeField } from '#core/rosters/field-edit'
import { fillCard } from '#core/rosters/fill'
import { demoCard, engineWithFonts, solid, emptyCard, withPiece, coat } from '../../support/engine'

let engine: Engine
const withEngine = async <T>(work: (one: Engine) => T) => work(engine)
beforeAll(() => {
  engine = engineWithFonts()
})

/** White words on a bar in the lower left, 640 × 360. */
const words = { font: 'barlow-condensed-bold', size: 30, align: 'left', x: 80, y: 280 } as const
const white = { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] }
const teal = { face: [coat('fill', 'bar-fill', { paint: solid('#1E6B6A') })] }

function design(type: Partial<Piece> = {}, bar: Partial<Piece> | null = {}): Card {
  const base = { ...emptyCard(640, 360, 200), zones: { hold: 20, out: 180 } }
  const barred = bar
    ? withPiece<Piece>(base, 'box', { x: 180, y: 280, width: 230, height: 45, ...bar } as Partial<Piece>, teal)
    : base
  return makeField(
    withPiece<Piece>(barred, 'type', { ...words, wording: 'Odile Marsh', ...type } as Partial<Piece>, white),
    'type-1/wording',
  )
}

async function flagsFor(card: Card, wording: string) {
  const rooms = await roomsOf(card, withEngine)
  const { card: filled, holds } = fillCard(card, { 'field-1': wording })
  const flags = await lookAtRow({ card: filled, rooms, holds }, withEngine)
  return flags.map(({ check, message, fits }) => `${check}${fits ? ' (fits)' : ''}: ${message}`)
}

const LONG = 'Bartholomew Featherstonehaugh-Quill'

test('words that have room say nothing; those that reach beyond their bar are told', async () => {
  expect(await flagsFor(design(), 'Tam Voss')).toEqual([])
  expect(await flagsFor(design(), LONG)).toEqual(['overflow (fits): It reaches beyond its bar.'])
})

test('a bar that fits the words grows with them, until the title area', async () => {
  const growing = design({}, { fitTo: ['type-1'], fitWidth: true, padLeft: 10, padRight: 10 } as Partial<Piece>)
  expect(await flagsFor(growing, LONG)).toEqual([])
  expect(await flagsFor(growing, `${LONG} of ${LONG}`)).toEqual(['overflow (fits): It reaches beyond the frame.'])
  // With one narrow letter more at a time it leaves the title area before the frame.
  const said = new Set<string>()
  for (let more = 1; more < 40; more += 3) {
    for (const flag of await flagsFor(growing, `${LONG} ${'i'.repeat(more)}`)) said.add(flag)
  }
  expect([...said]).toEqual([
    'overflow (fits): It reaches beyond the title area.',
    'overflow (fits): It reaches beyond the frame.',
  ])
})

test('what the design itself breaks is meant: type that bleeds over the edge is not told', async () => {
  expect(await flagsFor(design({ x: -10 }, null), LONG)).toEqual([])
})

test('a mask that cuts the words is found in the picture', async () => {
  const masked = design({}, null)
  const mask = { ...createMask('box', 'mask-1'), width: 230, height: 100, x: 100 }
  const card = { ...masked, pieces: masked.pieces.map((piece) => ({ ...piece, masks: [mask] })) } as Card
  expect(await flagsFor(card, 'Tam Voss')).toEqual([])
  const [found, ...more] = await flagsFor(card, LONG)
  expect(found).toMatch(/^overflow \(fits\): Its mask cuts off \d+ % of it\.$/)
  expect(more).toEqual([])
})

test('a mask on something else, or one that cuts no more than it cut of the design, says nothing', async () => {
  const mask = { ...createMask('box', 'mask-1'), width: 60, height: 100, x: 100 }
  const masked = (card: Card, id: string): Card =>
    ({ ...card, pieces: card.pieces.map((piece) => (piece.id === id ? { ...piece, masks: [mask] } : piece)) }) as Card
  const plain = design({ wording: LONG }, { width: 640 })
  const cuts = async (card: Card) => (await roomsOf(card, withEngine)).map(({ cut }) => cut)
  expect(await cuts(masked(plain, 'box-1'))).toEqual([0])
  const [cut] = await cuts(masked(plain, 'type-1'))
  expect(cut).toBeGreaterThan(0.5)
  expect(await flagsFor(masked(plain, 'type-1'), LONG)).toEqual([])
})

test('words without ink have no room to keep; of two types each is held to its own', async () => {
  expect(await roomsOf(design({ wording: '' }), withEngine)).toEqual([])
  const second = { font: 'barlow-condensed-bold', size: 30, align: 'left', x: 80, y: 120, wording: 'Tam' } as const
  const two = withPiece<Piece>(design(), 'type', second as Partial<Piece>, white)
  const rooms = await roomsOf(two, withEngine)
  expect(rooms.map(({ piece, bar }) => [piece, bar])).toEqual([
    ['type-2', null],
    ['type-1', 'box-1'],
  ])
  const { card, holds } = fillCard(two, { 'field-1': LONG })
  const flags = await lookAtRow({ card, rooms, holds }, withEngine)
  expect(flags.map(({ piece, message }) => [piece, message])).toEqual([['type-1', 'It reaches beyond its bar.']])
})

test('a moving hold is looked at in all of its frames', async () => {
  const keys = [20, 50, 179].map((frame, i) => ({ frame, value: i === 1 ? 210 : 80 }))
  const card = design({ x: { keys } }, null)
  const rooms = await roomsOf(card, withEngine)
  const { card: filled } = fillCard(card, { 'field-1': LONG })
  const flags = await lookAtRow({ card: filled, rooms, holds: 1 }, withEngine)
  expect(flags.map(({ check, piece, fits }) => ({ check, piece, fits }))).toEqual([
    { check: 'overflow', piece: 'type-1', fits: true },
  ])
  expect(flags[0]!.frame).toBeGreaterThan(20)
  expect(flags[0]!.frame).toBeLessThan(50)
})

test('missing glyphs, contrast, small capitals and too many words are told', async () => {
  expect(await flagsFor(design(), '渡辺')).toEqual(
    expect.arrayContaining([expect.stringMatching(/^glyphs: Its font has no 渡 辺/)]),
  )
  const grey = makeField(design(), 'type-1/f/paint/colour')
  const rooms = await roomsOf(grey, withEngine)
  const { card } = fillCard(grey, { 'field-1': 'Tam', 'field-2': '#2A7776' })
  const low = await lookAtRow({ card, rooms, holds: 1 }, withEngine)
  expect(low.map(({ check, message }) => `${check}: ${message}`)).toEqual([
    expect.stringMatching(/^legibility: Its contrast is 1\.\d : 1 over black, 1\.\d : 1 over mid grey/),
  ])
  expect(await flagsFor(design({ size: 5 }), 'Tam')).toEqual([
    expect.stringMatching(/^legibility: Its capitals are \d+ px/),
  ])
  const speech = `${'on and on '.repeat(9)}\n`.repeat(4)
  const told = await flagsFor(design({ size: 12, y: 150 }, null), speech)
  expect(told).toEqual([expect.stringMatching(/^legibility: It is held for 6\.4 s; to read 108 words/)])
})

test('fitted to the width, long words stay on their bar at every side, and short ones stay as they are', async () => {
  for (const [align, x] of [
    ['left', 80],
    ['centre', 180],
    ['right', 280],
  ] as const) {
    const card = design({ align, x } as Partial<Piece>)
    const outlook = engine.outlook(card, 20)
    const [type, bar] = ['type-1', 'box-1'].map((id) => outlook.find((entry) => entry.id === id)!)
    const fitted = fitToWidth(card, 'type-1', type!, bar!.bounds)
    expect(await flagsFor(fitted, LONG)).toEqual([])
    expect(Buffer.compare(engine.render(fitted, 20).pixels, engine.render(card, 20).pixels)).toBe(0)
  }
})

test('the room of centred words is twice the way to the nearer end of their bar, less what they stood away from it', () => {
  const widthAt = (x: number, standsFrom: number) => {
    const card = design({ align: 'centre', x } as Partial<Piece>)
    const type = engine.outlook(card, 20).find(({ id }) => id === 'type-1')!
    const bounds = { ...type.bounds, left: standsFrom, right: 250 }
    const fitted = fitToWidth(card, 'type-1', { ...type, bounds }, { left: 100, top: 0, right: 300, bottom: 360 })
    return (fitted.pieces.find(({ id }) => id === 'type-1') as { width?: number }).width
  }
  expect(widthAt(220, 100)).toBe(160)
  expect(widthAt(150, 100)).toBe(100)
  expect(widthAt(150, 105)).toBe(90)
  // Never more than 6 % of the room.
  expect(widthAt(150, 140)).toBe(76)
})

test('what is said of a row is said once: of its room in one word, of all else in each', () => {
  const flag = (check: RowFlag['check'], piece: string | null, message: string, frame = 0): RowFlag => ({
    ...{ check, piece, message, frame, remedy: 'Mend it.', fits: false },
  })
  const [bar, safe, other] = [
    flag('overflow', 'a', 'It reaches beyond its bar.'),
    flag('overflow', 'a', 'It reaches beyond the title area.', 4),
    flag('overflow', 'b', 'It reaches beyond its bar.'),
  ]
  const [low, small] = [flag('legibility', 'a', 'Its contrast is low.'), flag('legibility', 'a', 'It is small.')]
  expect(onceOf([bar!, safe!, other!, low!, small!, { ...low!, frame: 9 }])).toEqual([bar, other, low, small])
})

test('a lower third of the demo gives room to both of its lines', async () => {
  const rooms = await roomsOf(demoCard('02-lower-third'), withEngine)
  expect(rooms.map(({ piece, inFrame, inSafe }) => [piece, inFrame, inSafe])).toEqual([
    ['name', true, true],
    ['role', true, true],
  ])
  expect(rooms.every(({ bar }) => bar !== null)).toBe(true)
})
