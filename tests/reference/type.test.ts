import { describe, expect, test } from '@jest/globals'
import * as fontkit from 'fontkit'
import { Font } from '#core/type/font'
import { SHIPPED_FONTS } from '#core/type/families'
import { glyphPath } from '#core/type/glyph-path'
import { lineWidth, setType } from '#core/type/layout'
import type { TypeSetting } from '#core/type/setting'
import { fontBytes } from '../support/engine'

const WORDS = ['Lantern Regatta', 'AVATAR To We', 'Oxbow Quay 1975', 'ffi fl Typography']

interface Layout {
  positions: { xAdvance: number }[]
}

describe.each(SHIPPED_FONTS.map(({ id }) => id))('%s', (id) => {
  const bytes = fontBytes(id)
  const font = new Font(bytes, id)
  const other = fontkit.create(Buffer.from(bytes)) as {
    unitsPerEm: number
    layout(text: string): Layout
  }

  test('advances and kerning are those of a second font library (fontkit), in font units', () => {
    expect(font.unitsPerEm).toBe(other.unitsPerEm)
    for (const words of WORDS) {
      const ours = font.shape(words, true).map(({ advance }) => advance)
      const theirs = other.layout(words).positions.map(({ xAdvance }) => xAdvance)
      expect(ours.reduce((a, b) => a + b)).toBe(theirs.reduce((a, b) => a + b))
      expect(ours).toEqual(theirs)
    }
  })

  test('has capitals with a height, and a name', () => {
    expect(font.capHeight / font.unitsPerEm).toBeGreaterThan(0.4)
    expect(font.capHeight / font.unitsPerEm).toBeLessThan(1.1)
    expect(font.family.length).toBeGreaterThan(2)
  })
})

describe('a line', () => {
  const font = new Font(fontBytes('montserrat-extrabold'), 'test')
  const outlineOf = (setting: TypeSetting) =>
    setType(font, setting).flatMap(({ id, x, y }) =>
      glyphPath(font, id).flatMap((c) => (c.type === 'Z' ? [] : [{ x: c.x + x, y: c.y + y }])),
    )
  const widthOf = (align: 'left' | 'centre' | 'right') => {
    const xs = outlineOf({ wording: 'HH', tracking: 0, leading: 100, align }).map((point) => point.x)
    return [Math.min(...xs), Math.max(...xs)] as const
  }

  test('tracking widens every gap, and not the end', () => {
    expect(lineWidth(font, 'HHHH', 100) - lineWidth(font, 'HHHH', 0)).toBeCloseTo(0.3, 6)
  })

  test('kerning pairs draw together', () => {
    expect(lineWidth(font, 'AV', 0)).toBeLessThan(lineWidth(font, 'A', 0) + lineWidth(font, 'V', 0))
  })

  test('alignment moves the line by its width', () => {
    const width = lineWidth(font, 'HH', 0)
    expect(widthOf('left')[0] - widthOf('right')[0]).toBeCloseTo(width, 6)
    expect(widthOf('left')[0] - widthOf('centre')[0]).toBeCloseTo(width / 2, 6)
  })

  test('stands in the middle between cap height and baseline', () => {
    const ys = outlineOf({ wording: 'H', tracking: 0, leading: 100, align: 'left' }).map((point) => point.y)
    expect(Math.min(...ys) + Math.max(...ys)).toBeCloseTo(0, 2)
  })
})

test.each([
  ['no font', new TextEncoder().encode('This is a letter, not a font.'), /no font/],
  ['an empty file', new Uint8Array(), /no font/],
  ['a font without outlines', new Uint8Array([0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]), /no font/],
  ['31 MB', new Uint8Array(31 * 1024 * 1024), /31 MB/],
])('%s is refused by name', (_, bytes, words) => {
  expect(() => new Font(bytes, 'letter.ttf')).toThrow(words)
  expect(() => new Font(bytes, 'letter.ttf')).toThrow(/letter\.ttf/)
})
