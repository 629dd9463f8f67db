import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readCard, readCardText } from '#core/card/read'
import type { Piece } from '#core/card/schema'
import { cardSchema } from '#core/card/checks'
import { CARD_VERSION } from '#core/card/schema'
import { CARD_UPGRADES } from '#core/card/upgrades'
import type { Upgrade } from '#core/documents/upgrades'
import { upgraded } from '#core/documents/upgrades'
import { lyingLines } from '#core/documents/lying-lines'
import { readSealsText, storedSeal } from '#core/seals/read'
import { SEALS_VERSION } from '#core/seals/schema'
import { SEAL_UPGRADES } from '#core/seals/upgrades'
import { coat, DEMO_CARDS, demoCard, emptyCard, engineWithFonts, withBox } from '../support/engine'

/** A file as it was written by an application of that version; never written anew. */
const kept = (name: string) => readFileSync(`tests/reference/versions/${name}.json`, 'utf8')

describe('documents of earlier versions', () => {
  test('there is a way from every version to the next, up to today', () => {
    const ways: [readonly Upgrade[], number][] = [
      [CARD_UPGRADES, CARD_VERSION],
      [SEAL_UPGRADES, SEALS_VERSION],
    ]
    for (const [upgrades, version] of ways) {
      expect(upgrades.map(({ from }) => from)).toEqual(Array.from({ length: version - 1 }, (_, i) => i + 1))
    }
  })

  test('a card of each version is read, and shows what it showed', () => {
    for (let version = 1; version <= CARD_VERSION; version++) {
      const text = kept(`card-${version}.card`)
      expect((JSON.parse(text) as { version: number }).version).toBe(version)
      const { card, faults } = readCardText(text)
      expect(faults).toBeNull()
      expect(card!.version).toBe(CARD_VERSION)
      expect(card!.pieces.map(({ finishes, masks, outlineSteps }: Piece) => [finishes, masks, outlineSteps])).toEqual(
        card!.pieces.map(() => [[], [], []]),
      )
      // The demo card that it was then, and is still.
      const engine = engineWithFonts()
      const pixels = (own: typeof card) => Buffer.from(engine.render(own!, 30, { scale: 0.25 }).pixels)
      expect(pixels(card).equals(pixels(demoCard('12-fly-in')))).toBe(true)
    }
  })

  test('seals of each version are read', () => {
    for (let version = 1; version <= SEALS_VERSION; version++) {
      const { document, faults } = readSealsText(kept(`seals-${version}.seals`))
      expect(faults).toBeNull()
      expect(document!.seals).toHaveLength(2)
    }
  })

  describe('lines of a texture', () => {
    const withLines = (version: number, angle: unknown): Record<string, unknown> => {
      const paint = {
        type: 'texture',
        pattern: 'lines',
        ground: '#000000',
        scale: 50,
        ...(angle === null ? {} : { angle }),
      }
      const face = [coat('fill', 'f', { paint: paint as never })]
      return { ...withBox(emptyCard(120, 90, 10), { x: 60, y: 45, width: 100, height: 80 }, { face }), version }
    }
    const angleIn = (card: Record<string, unknown>) => {
      const read = readCard(card).card!
      return (read.pieces[0]!.coats.face[0] as unknown as { paint: { angle: unknown } }).paint.angle
    }
    const keys = (...values: number[]) => ({ keys: values.map((value, i) => ({ frame: i * 4, value })) })

    test.each([
      ['none', null, 90],
      ['a number', 12.5, 102.5],
      ['one that can only go back', 35_950, 35_860],
      [
        'keys',
        keys(0, -30),
        { keys: [expect.objectContaining({ value: 90 }), expect.objectContaining({ value: 60 })] },
      ],
      [
        'keys that can only go back',
        keys(0, 36_000),
        { keys: [{ value: -90 }, { value: 35_910 }].map((key) => expect.objectContaining(key)) },
      ],
      [
        'motors',
        { ...keys(5), motors: [{ kind: 'sway' }] },
        {
          keys: [expect.objectContaining({ value: 5 })],
          motors: [
            expect.objectContaining({ kind: 'sway' }),
            expect.objectContaining({ kind: 'formula', text: 'v + 90' }),
          ],
        },
      ],
      [
        'keys at both ends of what an angle may be: never one that is refused',
        keys(-36_000, 36_000),
        { keys: [-36_000, 35_910].map((value) => expect.objectContaining({ value })) },
      ],
      [
        'as many motors as there may be',
        { ...keys(5), motors: Array.from({ length: 16 }, () => ({ kind: 'sway' })) },
        { keys: [expect.objectContaining({ value: 95 })] },
      ],
    ])('keep their direction: %s', (_, before, after) => {
      const angle = angleIn(withLines(2, before))
      expect(angle).toEqual(typeof after === 'number' ? after : expect.objectContaining(after))
    })

    test('lie flat at 0°, as those of the finish; what is no line, and what is broken, is left alone', () => {
      const engine = engineWithFonts()
      const rows = (version: number) => {
        const { pixels } = engine.render(readCard(withLines(version, 0)).card!, 0)
        const at = (x: number, y: number) => pixels[(y * 120 + x) * 4]!
        return {
          across: at(30, 30) - at(33, 30),
          down: Math.max(...[31, 32, 33, 34, 35].map((y) => Math.abs(at(30, 30) - at(30, y)))),
        }
      }
      expect(rows(3)).toEqual({ across: 0, down: 255 })
      // The old ones stand upright still.
      expect(rows(2).down).toBe(0)
      const document = {
        ...{ type: 'texture', pattern: 'grid', angle: 5 },
        within: [
          { type: 'texture', pattern: 'lines', angle: 'steep' },
          { type: 'linear', pattern: 'lines', angle: 5 },
        ],
        broken: { type: 'texture', pattern: 'lines', angle: { keys: [null, { value: 'up' }] } },
      }
      expect(lyingLines(document)).toEqual(document)
    })

    test('of a seal in a database, and in a file, keep it too', () => {
      const { pieces } = withLines(2, 30) as { pieces: Piece[] }
      const seal = { name: 'Ruled', tags: [], variants: [{ name: 'Plain', coats: pieces[0]!.coats, finishes: null }] }
      const angleOf = (one: unknown) => JSON.stringify(one).match(/"angle":(\d+)/)![1]
      expect(angleOf(storedSeal(seal as never))).toBe('120')
      expect(angleOf(storedSeal({ ...seal, version: 2 } as never))).toBe('30')
      expect(storedSeal({ name: '' } as never)).toBeNull()
      const file = { format: 'wax-ribbon-seals', name: 'All', seals: [seal] }
      expect(angleOf(readSealsText(JSON.stringify({ ...file, version: 1 })).document)).toBe('120')
      expect(angleOf(readSealsText(JSON.stringify({ ...file, version: 2 })).document)).toBe('30')
    })
  })

  test('the demo is of today', () => {
    for (const name of DEMO_CARDS) expect(cardSchema.safeParse({ ...demoCard(name) }).success).toBe(true)
  })

  test('steps are taken one after the other; what is unknown is left to the check', () => {
    const upgrades: Upgrade[] = [1, 2, 3].map((from) => ({
      from,
      change: '',
      upgrade: (document) => ({ ...document, way: [...(document.way as number[]), from] }),
    }))
    const read = (version: unknown) => upgraded({ version: 4, upgrades }, { version, way: [] })
    expect(read(1)).toEqual({ version: 4, way: [1, 2, 3] })
    expect(read(3)).toEqual({ version: 4, way: [3] })
    fc.assert(
      fc.property(fc.anything(), (version) => {
        fc.pre(!(typeof version === 'number' && [1, 2, 3].includes(version)))
        expect(read(version)).toEqual({ version, way: [] })
      }),
    )
    const { faults } = readCard({ format: 'wax-ribbon-card', version: 0, name: 'x' })
    expect(faults!.map(({ place }) => place)).toContain('version')
  })

  test('a fault in an older card is named at its own place', () => {
    const card = JSON.parse(kept('card-1.card')) as { pieces: { x: unknown }[] }
    card.pieces[1]!.x = 'left'
    expect(readCard(card).faults!.map(({ place }) => place)).toEqual(['pieces[1].x'])
  })
})
