import { describe, expect, test } from '@jest/globals'
import { readCard } from '#core/card/read'
import type { Card, Finish, Piece } from '#core/card/schema'
import { WaxError } from '#core/errors'
import { Engine } from '#core/frame/engine'
import { MOST_MOMENTS } from '#core/frame/moments'
import { motionFaults } from '#core/judge/motion-faults'
import { coat, emptyCard, finish, solid, withBox, withWash } from '../support/engine'

// Finishes that cannot do what they were meant to: a clear word at the place, and the rest of the card goes on.

const engine = new Engine()
const box = (card: Card, id: string, colour: string, x: number, finishes: Finish[] = []) =>
  withBox(
    card,
    { id, name: `Box ${id}`, width: 40, height: 30, x, y: 60, finishes },
    { face: [coat('fill', `fill-${id}`, { paint: solid(colour) })] },
  )
const ground = { ...emptyCard(192, 128), background: solid('#203040') }
const mapOf = (piece: string | null, id: string) => finish('displace', { source: 'piece', piece, x: 20 }, id)

/** Two boxes, `a` behind `b`, with finishes. */
const pair = (a: Finish[], b: Finish[]) => box(box(ground, 'a', '#E07030', 60, a), 'b', '#30B0E0', 130, b)
const pixelsOf = (card: Card) => Buffer.from(engine.render(card, 0).pixels)
const bare = pixelsOf(pair([], []))

describe('a map that is another piece', () => {
  test('works where it can: another piece, shown or not, also one that holds others', () => {
    const on = (card: Card, id: string, change: Partial<Piece>): Card => ({
      ...card,
      pieces: card.pieces.map((piece) => (piece.id === id ? ({ ...piece, ...change } as Piece) : piece)),
    })
    // The boxes share their place: the map covers what it moves.
    const card = on(pair([mapOf('b', 'map')], []), 'b', { x: 60 })
    const hidden = on(card, 'b', { on: false })
    expect(motionFaults(card)).toEqual([])
    const without = on(on(pair([], []), 'b', { x: 60 }), 'b', { on: false })
    expect(pixelsOf(hidden).equals(pixelsOf(without))).toBe(false)
  })

  test.each([
    ['gone', pair([mapOf('nowhere', 'map')], []), 'gone'],
    ['the piece itself', pair([mapOf('a', 'map')], []), 'leads back'],
    ['a piece that looks back', pair([mapOf('b', 'map')], [mapOf('a', 'other')]), 'leads back'],
  ])('%s: said at the finish, which is passed over; all else is drawn', (_, card, words) => {
    expect(readCard(card).faults).toBeNull()
    const faults = motionFaults(card)
    expect(faults[0]).toMatchObject({ address: 'a/map', motor: null, message: expect.stringContaining(words) })
    expect(faults[0]!.remedy).toMatch(/^Choose /)
    expect(pixelsOf(card).equals(bare)).toBe(true)
  })

  test('a wash has no picture of its own', () => {
    const card = withWash(pair([mapOf('wash-1', 'map')], []), [], { id: 'wash-1' })
    expect(motionFaults(card)).toMatchObject([{ address: 'a/map', message: expect.stringContaining('wash') }])
    expect(pixelsOf(card).equals(bare)).toBe(true)
  })

  test('a group whose own piece looks at it goes in a circle too', () => {
    const inner = pair([mapOf('group', 'map')], [])
    const group = { ...inner.pieces[1]!, id: 'group', kind: 'group', finishes: [], pieces: [inner.pieces[1]!] }
    const card = { ...inner, pieces: [{ ...group, x: 0, y: 0 } as unknown as Piece] }
    expect(motionFaults(card)).toMatchObject([{ address: 'a/map', message: expect.stringContaining('leads back') }])
  })
})

describe('copies of copies', () => {
  const trails = (copies: number, id: string) => finish('trails', { copies, spacing: 1 }, id)

  test('beyond the limit are said at the finish that is one too many, and left out', () => {
    const few = pair([trails(16, 'first'), trails(8, 'second')], [])
    expect(motionFaults(few)).toEqual([])
    const many = pair([trails(64, 'first'), trails(8, 'second')], [])
    // The last of the list works first.
    expect(motionFaults(many)).toMatchObject([{ address: 'a/first', message: expect.stringContaining(`${8 * 64}`) }])
    expect(motionFaults(many)[0]!.message).toContain(`${MOST_MOMENTS}`)
    expect(() => pixelsOf(many)).not.toThrow()
  })

  test('those behind a wash count with its own', () => {
    const washed = (copies: number) =>
      withWash(pair([trails(16, 'own')], []), [trails(copies, 'over')], { id: 'wash-1' })
    expect(motionFaults(washed(8))).toEqual([])
    const over = withWash(withWash(pair([], []), [trails(32, 'lower')]), [trails(32, 'upper')], { id: 'wash-2' })
    expect(motionFaults(over)).toMatchObject([{ address: 'wash-2/upper' }])
    expect(() => pixelsOf(over)).not.toThrow()
  })
})

test('a formula without a number leaves the value as it is keyed, and is told at the finish', () => {
  const motors = [{ kind: 'formula', on: true, text: 'sqrt(0 - 1)' }]
  const card = pair([finish('blur', { radius: { keys: [{ frame: 0, value: 9 }], motors } }, 'soft')], [])
  const { faults } = readCard(card)
  expect(faults).toBeNull()
  expect(motionFaults(card)).toMatchObject([
    { address: 'a/soft/radius', message: expect.stringContaining('no number') },
  ])
  expect(pixelsOf(card).equals(pixelsOf(pair([finish('blur', { radius: 9 }, 'soft')], [])))).toBe(true)
})

test('radii, lengths and places far beyond the frame make a picture, or a word that names the piece', () => {
  const far: Finish[] = [
    finish('blur', { radius: 4000 }),
    finish('blur', { form: 'along', length: 4000, angle: 33 }),
    finish('blur', { form: 'around', x: 1e4, y: -1e4, arc: 3 }),
    finish('blur', { form: 'towards', x: -1e4, y: 1e4, zoom: 90 }),
    finish('bloom', { radius: 4000 }),
    finish('flare', { x: 1e4, y: 1e4, size: 4000 }),
    finish('move', { x: 9e4, y: -9e4, scale: 5 }),
    finish('trails', { copies: 3, spacing: 999 }),
  ]
  for (const one of far) {
    // Of each kind's own parameters, as far as they go.
    const read = readCard(withWash(pair([], []), [one]))
    if (read.faults) {
      expect(read.faults[0]!.message).toBeTruthy()
      continue
    }
    try {
      const { pixels } = engine.render(read.card!, 0)
      expect(pixels).toHaveLength(192 * 128 * 4)
    } catch (error) {
      expect(error).toBeInstanceOf(WaxError)
      expect((error as WaxError).fault.place).toMatch(/^pieces\[\d\]/)
    }
  }
})
