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
import { readSealsText } from '#core/seals/read'
import { SEALS_VERSION } from '#core/seals/schema'
import { SEAL_UPGRADES } from '#core/seals/upgrades'
import { DEMO_CARDS, demoCard, engineWithFonts } from '../support/engine'

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
