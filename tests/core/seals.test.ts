import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { changeCoat } from '#core/edit/stack'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { COATS } from '#core/coats/table'
import { createCoat } from '#core/card/create'
import { pressedWith, pressSeal, sampleCard, sealedCore, updatePressed } from '#core/seals/press'
import { expectSeal, readSealsText, writeSeals } from '#core/seals/read'
import type { Seal } from '#core/seals/schema'
import { SEALS_VERSION } from '#core/seals/schema'
import { coat, emptyCard, engineWithFonts, solid, withType } from '../support/engine'

const engine = engineWithFonts()
const shipped = readSealsText(readFileSync('demo/seals/lantern-regatta.seals.json', 'utf8')).document!

const worn = (size: number): Card =>
  withType(
    emptyCard(800, 450),
    { id: 'a', wording: 'HO', font: 'archivo-black', size, x: 400, y: 225 },
    {
      face: [
        coat('fill', 'fill-1', { paint: solid('#F2A33C') }),
        coat('stroke', 'stroke-1', { width: 9, paint: solid('#3D0D16') }),
      ],
      behind: [
        coat('glow', 'glow-1', {
          reach: {
            keys: [
              { frame: 0, value: 30 },
              { frame: 20, value: 60 },
            ],
          },
        }),
      ],
    },
  )

const referenceOf = (card: Card) => engine.outlook(card, 0)[0]!.reference

describe('a seal', () => {
  test('keeps lengths in %, keys too: pressed where it came from, nothing changes to the pixel', () => {
    const card = worn(200)
    const coats = sealedCore(card.pieces[0]!.coats, referenceOf(card))
    expect(coats.face[1]!.width).toMatchObject({ unit: '%' })
    expect(coats.behind[0]!.reach).toMatchObject({ unit: '%' })
    const seal = { id: 'seal-1', name: 'Test', tags: [], variants: [{ name: 'standard', coats }] }
    const pressed = pressSeal(card, ['a'], seal)
    expect(readCard(pressed).faults).toBeNull()
    const [before, after] = [engine.render(card, 10), engine.render(pressed, 10)]
    const far = after.pixels.reduce((most, v, i) => Math.max(most, Math.abs(v - before.pixels[i]!)), 0)
    // % are kept to four places: 0.0001 % of 140 px.
    expect(far).toBeLessThanOrEqual(1)
  })

  test('keeps what motors and bends add too', () => {
    const reach = {
      keys: [
        { frame: 0, value: 30, bend: { out: 12 } },
        { frame: 20, value: 60, bend: { in: -8 } },
      ],
      motors: [{ kind: 'sway', amount: 20, cycles: 2 }],
    }
    const bare = worn(200)
    const face = bare.pieces[0]!.coats.face
    const read = readCard(changeCoat(bare, 'a', 'glow-1', { reach } as never))
    expect(read.faults).toBeNull()
    const card = read.card!
    const coats = sealedCore({ face, behind: card.pieces[0]!.coats.behind }, referenceOf(card))
    const pressed = pressSeal(card, ['a'], { id: 's', name: 'T', tags: [], variants: [{ name: 'v', coats }] })
    for (const frame of [0, 5, 10, 17, 33]) {
      const [before, after] = [engine.render(card, frame), engine.render(pressed, frame)]
      const far = after.pixels.reduce((most, v, i) => Math.max(most, Math.abs(v - before.pixels[i]!)), 0)
      expect(far).toBeLessThanOrEqual(1)
    }
  })

  test('on a piece of half the size its lines are half as wide', () => {
    const large = worn(200)
    const small = worn(100)
    const coats = sealedCore(large.pieces[0]!.coats, referenceOf(large))
    const pressed = pressSeal(small, ['a'], { id: 's', name: 'S', tags: [], variants: [{ name: 'v', coats }] })
    const width = pressed.pieces[0]!.coats.face[1]!.width as { value: number }
    expect((width.value / 100) * referenceOf(pressed)).toBeCloseTo(4.5, 3)
    expect((width.value / 100) * referenceOf(large)).toBeCloseTo(9, 3)
  })

  test('pieces remember it; a changed seal is pressed again on those, each in its variant', () => {
    const seal: Seal & { id: string } = { ...shipped.seals.find(({ variants }) => variants.length > 1)!, id: 'one' }
    const second = seal.variants[1]!.name
    const two = withType(worn(120), { id: 'b', x: 400, y: 350 }, {})
    const pressed = pressSeal(pressSeal(two, ['a'], seal), ['b'], seal, second)
    expect(pressedWith(pressed, 'one').map((piece) => [piece.id, piece.seal!.variant])).toEqual([
      ['b', second],
      ['a', seal.variants[0]!.name],
    ])
    const spoilt = changeCoat(pressed, 'a', pressed.pieces[1]!.coats.face[0]!.id, { on: false })
    const changed = { ...seal, variants: seal.variants.map((v) => ({ ...v, coats: { ...v.coats, behind: [] } })) }
    const updated = updatePressed(spoilt, changed)
    for (const piece of updated.pieces) {
      expect(piece.coats.behind).toEqual([])
      expect(piece.coats.face.every(({ on }) => on)).toBe(true)
    }
    expect(readCard(updated).faults).toBeNull()
  })

  test('every kind of coat comes through with all its lengths in %', () => {
    const face = COATS.map(({ kind }) => createCoat(kind, `${kind}-1`))
    const { face: sealed } = sealedCore({ face, behind: [] }, 80)
    sealed.forEach((one, i) => {
      for (const [name, { type }] of Object.entries(COATS[i]!.parameters)) {
        if (type === 'length') expect(one[name]).toEqual({ unit: '%', value: ((face[i]![name] as number) / 80) * 100 })
      }
    })
    expect(() =>
      expectSeal({ name: 'All', tags: [], variants: [{ name: 'v', coats: { face: sealed } }] }),
    ).not.toThrow()
  })
})

describe('the shipped seals', () => {
  test('are sixteen or more, of different names, and every variant shows on the sample word', () => {
    const names = shipped.seals.map(({ name }) => name)
    expect(new Set(names).size).toBe(names.length)
    expect(names.length).toBeGreaterThanOrEqual(16)
    const base = emptyCard(320, 180)
    for (const { name, variants } of shipped.seals) {
      for (const variant of variants) {
        const { pixels } = engine.render(sampleCard(base, variant), 0)
        const seen = pixels.filter((v, i) => i % 4 === 3 && v > 60).length
        expect([name, variant.name, seen > 2000]).toEqual([name, variant.name, true])
      }
    }
  })
})

describe('the file of a set', () => {
  test('what was written is read again as the same', () => {
    const text = JSON.stringify(writeSeals('Again', shipped.seals))
    expect(readSealsText(text).document).toEqual({ ...shipped, name: 'Again' })
  })

  test.each([
    ['{', 'not-json', 'file'],
    ['[]', 'not-a-set-of-seals', 'format'],
    [JSON.stringify({ ...shipped, version: SEALS_VERSION + 1 }), 'newer-version', 'version'],
    [JSON.stringify({ ...shipped, seals: [] }), 'out-of-range', 'seals'],
    [
      JSON.stringify({
        ...shipped,
        seals: [{ name: 'X', variants: [{ name: 'v', coats: { face: [{ kind: 'tar' }] } }] }],
      }),
      'unknown-kind',
      'seals[0].variants[0].coats.face[0].kind',
    ],
  ])('a broken one names its place: %#', (text, code, place) => {
    const { faults } = readSealsText(text)
    expect(faults![0]).toMatchObject({ code, place })
    expect(faults![0]!.remedy.length).toBeGreaterThan(5)
  })
})
