import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { directedRuns } from '#core/type/bidi'
import { Font } from '#core/type/font'
import { setText } from '#core/type/layout'
import { fontBytes } from '../support/engine'

/** UTF-16 units in the order in which they stand. */
const standing = (line: string, base?: 'auto' | 'ltr' | 'rtl'): number[] =>
  directedRuns(line, base).flatMap(({ start, end, rightToLeft }) => {
    const units = Array.from({ length: end - start }, (_, i) => start + i)
    return rightToLeft ? units.reverse() : units
  })

test('lines of both directions stand as the Unicode character tests say (BidiCharacterTest.txt, UAX 9)', () => {
  const lines = readFileSync('/usr/share/unicode/BidiCharacterTest.txt', 'utf8').split('\n')
  const wrong: string[] = []
  let count = 0
  for (const row of lines) {
    if (!row || row.startsWith('#')) continue
    const [codes, direction, , , order] = row.split(';') as [string, string, string, string, string]
    const characters = codes.split(' ').map((code) => String.fromCodePoint(parseInt(code, 16)))
    const starts = new Map<number, number>()
    let at = 0
    characters.forEach((character, i) => {
      starts.set(at, i)
      at += character.length
    })
    const base = direction === '0' ? 'ltr' : direction === '1' ? 'rtl' : 'auto'
    // Characters of rule X9 stand nowhere: the test leaves them out of the order.
    const wanted = order.split(' ').filter(Boolean).map(Number)
    const shown = new Set(wanted)
    const found = standing(characters.join(''), base).flatMap((unit) => {
      const character = starts.get(unit)
      return character !== undefined && shown.has(character) ? [character] : []
    })
    if (found.join(' ') !== wanted.join(' ')) wrong.push(row)
    count++
  }
  expect(wrong.slice(0, 5)).toEqual([])
  expect(count).toBeGreaterThan(90_000)
})

describe('words of both directions in one line', () => {
  const font = new Font(fontBytes('anton'), 'anton')
  /** Letters from left to right, by their number in reading order. */
  const order = (wording: string) => {
    const { letters } = setText(font, { wording, tracking: 0, leading: 110, align: 'left' })
    return letters
      .map(({ left }, i) => ({ left, i }))
      .sort((a, b) => a.left - b.left)
      .map(({ i }) => i)
  }

  test('each run the way it is read; numbers stay as they are', () => {
    expect(order('ab אבג cd')).toEqual([0, 1, 2, 5, 4, 3, 6, 7, 8])
    // The line itself runs to the left; Latin and numbers within it to the right.
    expect(order('אב 12 ab')).toEqual([6, 7, 5, 3, 4, 2, 1, 0])
    // A number that follows Latin runs with it (rule W7).
    expect(order('אב ab 12')).toEqual([3, 4, 5, 6, 7, 2, 1, 0])
  })

  test('words of one direction are as they were', () => {
    expect(order('Quay')).toEqual([0, 1, 2, 3])
    expect(order('אבג')).toEqual([2, 1, 0])
  })
})
