import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import * as fontkit from 'fontkit'
import { Font } from '#core/type/font'
import { lineWidth, setText } from '#core/type/layout'
import type { TypeSetting } from '#core/type/setting'
import { breaksIn } from '#core/type/line-breaks'
import { featureName, hasFeature, readFeatures, toggleFeature } from '#core/type/features'
import { cased } from '#core/type/wording'
import { fontBytes } from '../support/engine'

const fonts = new Map<string, Font>()
const font = (id: string) => {
  const found = fonts.get(id) ?? new Font(fontBytes(id), id)
  fonts.set(id, found)
  return found
}
const PLAIN: Omit<TypeSetting, 'wording'> = { tracking: 0, leading: 110, align: 'left' }
const set = (id: string, setting: Partial<TypeSetting> & { wording: string }) =>
  setText(font(id), { ...PLAIN, ...setting })

interface Other {
  layout(
    text: string,
    features?: Record<string, boolean>,
  ): { glyphs: { id: number; advanceWidth: number }[]; positions: { xAdvance: number }[] }
  getVariation(at: Record<string, number>): Other
}
const otherFont = (id: string) => fontkit.create(Buffer.from(fontBytes(id))) as unknown as Other

test('lines may be broken where the Unicode line breaking tests say (LineBreakTest.txt, UAX 14)', () => {
  const rows = readFileSync('/usr/share/unicode/auxiliary/LineBreakTest.txt', 'utf8').split('\n')
  let [count, wrong] = [0, 0]
  for (const row of rows) {
    const words = row.split('#')[0]!.trim()
    if (words === '') continue
    const tokens = words.split(/\s+/)
    let text = ''
    const wanted: number[] = []
    for (const token of tokens) {
      if (token === '÷') wanted.push(text.length)
      else if (token !== '×') text += String.fromCodePoint(parseInt(token, 16))
    }
    count++
    if (breaksIn(text).join() !== wanted.join()) wrong++
  }
  expect(count).toBeGreaterThan(7000)
  // Counted with the tests of Unicode 15: the package parts words before wide opening brackets (LB30) by older tables.
  expect(wrong).toBeLessThanOrEqual(59)
})

describe('the text box', () => {
  const wording = 'Paper boats with small lanterns leave Oxbow Quay at dusk and drift down to the mill.'

  test('no line is wider than it, and none could have taken the next word', () => {
    for (const width of [6, 9, 14, 30]) {
      const { letters, overflows } = set('inter-regular', { wording, width })
      expect(overflows).toBe(false)
      const lines = new Map<number, { from: number; to: number }>()
      for (const { line, from, to } of letters) {
        const own = lines.get(line) ?? { from, to }
        lines.set(line, { from: Math.min(own.from, from), to: Math.max(own.to, to) })
      }
      const rows = [...lines.values()].map(({ from, to }) => wording.slice(from, to))
      expect(rows.join('')).toBe(wording)
      rows.forEach((row, i) => {
        expect(lineWidth(font('inter-regular'), row.trimEnd(), 0)).toBeLessThanOrEqual(width + 1e-9)
        const next = rows[i + 1]?.split(' ')[0]
        if (next) expect(lineWidth(font('inter-regular'), row + next, 0)).toBeGreaterThan(width)
      })
    }
  })

  test('a word that has no room stands alone, and that it runs over is told', () => {
    const { letters, overflows } = set('inter-regular', { wording: 'a unbreakable b', width: 3 })
    expect(overflows).toBe(true)
    expect(new Set(letters.map(({ line }) => line)).size).toBe(3)
  })

  test('justified lines fill it, the last one of a paragraph does not', () => {
    const { letters } = set('inter-regular', { wording, width: 12, align: 'justify' })
    const last = Math.max(...letters.map(({ line }) => line))
    for (let line = 0; line <= last; line++) {
      const ink = letters.filter((letter) => letter.line === line && !letter.blank)
      expect(Math.min(...ink.map(({ left }) => left))).toBeCloseTo(-6, 6)
      const right = Math.max(...ink.map((letter) => letter.right))
      if (line < last) expect(right).toBeCloseTo(6, 6)
      else expect(right).toBeLessThan(6)
    }
  })

  test('smaller and closer fit to the width; at their limit it is told that they do not', () => {
    const span = ({ letters }: ReturnType<typeof set>) => letters.at(-1)!.right - letters[0]!.left
    const natural = span(set('anton', { wording: 'Lantern Regatta' }))
    const smaller = set('anton', { wording: 'Lantern Regatta', width: natural * 0.8, wide: 'smaller', least: 0.5 })
    expect([smaller.size, span(smaller), smaller.overflows]).toEqual([
      expect.closeTo(0.8, 9),
      expect.closeTo(natural * 0.8, 9),
      false,
    ])
    const closer = set('anton', { wording: 'Lantern Regatta', width: natural * 0.95, wide: 'closer', closest: -100 })
    expect([span(closer), closer.overflows]).toEqual([expect.closeTo(natural * 0.95, 6), false])
    expect(
      set('anton', { wording: 'Lantern Regatta', width: natural * 0.4, wide: 'smaller', least: 0.5 }),
    ).toMatchObject({ size: 0.5, overflows: true })
    expect(set('anton', { wording: 'Lantern Regatta', width: 1, wide: 'closer', closest: -20 }).overflows).toBe(true)
    // What has room stays as it is.
    expect(set('anton', { wording: 'Lantern', width: 100, wide: 'smaller' }).size).toBe(1)
  })
})

describe('beside a second font library (fontkit)', () => {
  test.each([
    ['playfair-display-black', 'smcp', 'Small Caps'],
    ['barlow-condensed-bold', 'tnum', '1975 1111'],
    ['montserrat-medium', 'onum', '0123456789'],
    ['bungee', 'ss01', 'QUAY'],
    ['zilla-slab-bold', 'dlig', 'ct st'],
    ['zilla-slab-bold', 'frac', '1/2'],
  ])('%s with %s has the same glyphs and advances', (id, tag, words) => {
    const ours = font(id).shapeRun(
      words,
      { start: 0, end: words.length, rightToLeft: false },
      { ligatures: true, features: readFeatures(tag) },
    )
    const { glyphs, positions } = otherFont(id).layout(words, { [tag]: true })
    expect(ours.map((glyph) => glyph.id)).toEqual(glyphs.map((glyph) => glyph.id))
    expect(ours.map(({ advance }) => advance)).toEqual(positions.map(({ xAdvance }) => xAdvance))
  })

  test.each([
    ['archivo-variable', { wght: 850, wdth: 70 }],
    ['archivo-variable', { wght: 120, wdth: 125 }],
    ['recursive-variable', { CASL: 1, wght: 900, slnt: -15 }],
  ])('%s at %j has the same advances, and outlines as wide', (id, at) => {
    const other = otherFont(id).getVariation({
      ...Object.fromEntries(font(id).axes.map(({ tag, standard }) => [tag, standard])),
      ...at,
    })
    const words = 'Regatta'
    const ours = font(id).varied(at).shape(words, true)
    const { positions } = other.layout(words)
    ours.forEach(({ advance }, i) => expect(Math.abs(advance - positions[i]!.xAdvance)).toBeLessThan(1.5))
    expect(font(id).varied(at)).not.toBe(font(id))
    expect(font(id).varied({})).toBe(font(id))
  })

  test('an axis goes no farther than the font lets it; one that it has not is passed over', () => {
    const own = font('archivo-variable')
    expect(own.varied({ wght: 5000 }).shape('Aa', true)).toEqual(own.varied({ wght: 900 }).shape('Aa', true))
    expect(font('anton').varied({ wght: 900 })).toBe(font('anton'))
  })
})

describe('words set otherwise', () => {
  test('case: “ß” in capitals is two letters of one', () => {
    expect(cased('straße, o’er', 'upper')).toMatchObject({ text: 'STRASSE, O’ER' })
    expect(cased('straße', 'upper').from).toEqual([0, 1, 2, 3, 4, 4, 5])
    expect(cased('lantern REGATTA o’er', 'title').text).toBe('Lantern REGATTA O’er')
    expect(set('anton', { wording: 'straße', letterCase: 'upper' }).letters.map(({ from }) => from)).toEqual([
      0, 1, 2, 3, 4, 4, 5,
    ])
  })

  test('a pair that is kerned by hand moves all that follows by its thousandths, and no other', () => {
    const x = (pairs: TypeSetting['pairs']) =>
      set('anton', { wording: 'AVAVA', ...(pairs ? { pairs } : {}) }).glyphs.map((glyph) => glyph.x)
    const [plain, kerned] = [x(undefined), x([{ pair: 'AV', by: 100 }])]
    expect(kerned.map((v, i) => v - plain[i]!)).toEqual([0, 0.1, 0.1, 0.2, 0.2].map((v) => expect.closeTo(v, 9)))
  })

  test('a run has its own size, font and place above the line; the rest stays as it was', () => {
    const lobster = { name: 'lobster', font: font('lobster') }
    const run = { from: 4, to: 6, size: 1.5, shift: 0.2, tracking: 0, face: lobster }
    const { glyphs } = set('anton', { wording: 'Race12 x', runs: [run] })
    const plain = set('anton', { wording: 'Race12 x' }).glyphs
    expect(glyphs.map(({ face, size = 1 }) => [face?.name, size])).toEqual(
      [...'Race12 x'].map((_, i) => (i === 4 || i === 5 ? ['lobster', 1.5] : [undefined, 1])),
    )
    expect(glyphs[4]!.y - glyphs[0]!.y).toBeCloseTo(-0.2, 9)
    expect(glyphs.slice(0, 4)).toEqual(plain.slice(0, 4))
    const wide = lineWidth(font('lobster'), '12', 0) * 1.5 - lineWidth(font('anton'), '12', 0)
    expect(glyphs[7]!.x - plain[7]!.x).toBeCloseTo(wide, 6)
  })

  test('what a font has no glyph for is told, or comes from the first of the fonts chosen that has it', () => {
    expect(set('anton', { wording: 'aЖ中Ж' }).missing).toEqual(['Ж', '中'])
    const inter = { name: 'inter', font: font('inter-regular') }
    const { glyphs, missing } = set('anton', { wording: 'aΛ中', fallbacks: [inter] })
    expect([missing, glyphs.map(({ face }) => face?.name)]).toEqual([['中'], [undefined, 'inter', undefined]])
    expect(set('anton', { wording: 'plain words' }).missing).toEqual([])
  })

  test('features are read by their tags, what is no tag is passed over', () => {
    expect(readFeatures('smcp tnum, ss01=2 -liga nonsense x')).toEqual([
      { tag: 'smcp', value: 1 },
      { tag: 'tnum', value: 1 },
      { tag: 'ss01', value: 2 },
      { tag: 'liga', value: 0 },
    ])
  })
})

test('features are switched one by one; ligatures, which are at work by themselves, are switched off', () => {
  expect(toggleFeature('tnum salt=2', 'smcp')).toBe('tnum salt=2 smcp')
  expect(toggleFeature('tnum salt=2 smcp', 'salt')).toBe('tnum smcp')
  expect(toggleFeature('', 'liga')).toBe('-liga')
  expect(toggleFeature('-liga smcp', 'liga')).toBe('smcp')
  expect([hasFeature('', 'liga'), hasFeature('-liga', 'liga'), hasFeature('smcp -smcp', 'smcp')]).toEqual([
    true,
    false,
    false,
  ])
  expect(['ss07', 'tnum', 'kern'].map(featureName)).toEqual(['Stylistic set 7', 'Tabular figures', null])
})

describe('along a path', () => {
  const r = 5
  const points = Array.from({ length: 2000 }, (_, i) => (2 * Math.PI * i) / 2000).flatMap((a) => [
    r * Math.sin(a),
    -r * Math.cos(a),
  ])
  const strand = { points, smooth: points.slice(0, 2000).map(() => true), closed: true }
  const path = { key: 'circle', strand, start: 0, side: 'left' as const, overflow: 'hide' as const }

  test('every letter’s middle stands on the circle, as far along it as on a straight line, upright on its radius', () => {
    const { letters, glyphs, overflows } = set('anton', { wording: 'Oxbow Quay', path })
    expect(overflows).toBe(false)
    const plain = set('anton', { wording: 'Oxbow Quay' }).letters
    letters.forEach(({ place }, i) => {
      const along = (plain[i]!.left + plain[i]!.right) / 2 / r
      expect([place!.x, place!.y]).toEqual([
        expect.closeTo(r * Math.sin(along), 3),
        expect.closeTo(-r * Math.cos(along), 3),
      ])
      expect(place!.dx * place!.x + place!.dy * place!.y).toBeCloseTo(0, 2)
    })
    expect(glyphs.every(({ way }) => Math.abs(way!.x ** 2 + way!.y ** 2 - 1) < 1e-9)).toBe(true)
  })

  test('on the other side it runs the other way; what is longer than the path is told', () => {
    const inside = set('anton', { wording: 'Oxbow', path: { ...path, side: 'right' } }).letters
    expect(inside[0]!.place!.x).toBeLessThan(0)
    expect(set('anton', { wording: 'Oxbow Quay '.repeat(12), path }).overflows).toBe(true)
  })

  test('an open path hides what lies beyond its ends, or goes on straight', () => {
    const line = { ...path, strand: { points: [0, 0, 2, 0], smooth: [true, true], closed: false } }
    const hidden = set('anton', { wording: 'Lantern Regatta', path: line })
    expect(hidden.overflows).toBe(true)
    expect(Math.max(...hidden.glyphs.map(({ x }) => x))).toBeLessThan(2)
    const straight = set('anton', { wording: 'Lantern Regatta', path: { ...line, overflow: 'straight' } })
    expect(straight.glyphs).toHaveLength('Lantern Regatta'.length)
    expect(straight.glyphs.every(({ y }) => Math.abs(y) < 1e-9)).toBe(true)
  })
})
