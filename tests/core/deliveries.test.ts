import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { WaxError } from '#core/errors'
import type { Delivery } from '#core/formats/deliveries/delivery'
import { expectPattern, nameFrom } from '#core/formats/deliveries/file-name'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { DELIVERIES } from '#core/formats/deliveries/table'

const base = { from: 0, to: 50 }
const faultOf = (work: () => unknown) => {
  try {
    work()
  } catch (error) {
    if (error instanceof WaxError) return error.fault
  }
  return null
}

describe('options of a delivery', () => {
  test.each(DELIVERIES.map(({ format }) => format))(
    'of %s are filled in, and stay when they are read again',
    (format) => {
      const read = expectOptions({ format, ...base })
      const { options } = DELIVERIES.find((delivery) => delivery.format === format)!
      expect(Object.keys(read).sort()).toEqual(
        [...new Set(['format', 'from', 'to', 'holds', 'scale', 'name', ...Object.keys(options)])].sort(),
      )
      expect(expectOptions(read)).toEqual(read)
    },
  )

  test.each([
    [{ format: 'tiff', ...base }, 'unknown-format', 'format', /“tiff” is not made here/, /png, exr, .* or still/],
    [{ ...base }, 'unknown-format', 'format', /No format was named/, /Choose/],
    [null, 'unknown-format', 'format', /No format was named/, /Choose/],
    [{ format: 'png', ...base, alpha: 'premultiplied' }, 'not-allowed', 'alpha', /no such option/, /takes bits/],
    [{ format: 'webm', ...base, bits: 16 }, 'not-allowed', 'bits', /no such option/, /Leave it out/],
    [{ format: 'exr', ...base, bits: 16 }, 'not-allowed', 'bits', /./, /half or float/],
    [{ format: 'rle', ...base, matte: 'red' }, 'not-allowed', 'matte', /six hex digits/, /./],
    [{ format: 'rle', ...base, timecode: '1:2' }, 'not-allowed', 'timecode', /01:00:00:00/, /./],
    [{ format: 'png', ...base, scale: 3 }, 'not-allowed', 'scale', /./, /./],
    [{ format: 'png', from: -1, to: 4 }, 'not-allowed', 'from', /./, /./],
    [{ format: 'png', ...base, name: '{card}/{take}' }, 'bad-name', 'name', /no file name/, /slashes/],
    [
      { format: 'png', ...base, name: '{author}' },
      'bad-name',
      'name',
      /“{author}” stands for nothing/,
      /{card}, {row}, {take}/,
    ],
  ])('%j is refused with its place and a remedy', (wish, code, place, message, remedy) => {
    const fault = faultOf(() => expectOptions(wish))
    expect(fault).toMatchObject({ code, place })
    expect(fault!.message).toMatch(message)
    expect(fault!.remedy).toMatch(remedy)
  })
})

describe('names of files', () => {
  test.each([
    ['{card}', 'lantern-regatta-opening'],
    ['{card}_{row}_{take}', 'lantern-regatta-opening_03'],
    ['{row}-{card}', 'lantern-regatta-opening'],
    ['Show 4 {take}', 'Show 4 03'],
    ['{row}', 'card'],
  ])('%s becomes %s', (pattern, name) => {
    expect(nameFrom(pattern, { card: 'Lantern Regatta · opening', row: '', take: 3 })).toBe(name)
  })

  test('no pattern that is let through leaves its folder', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 40, unit: 'grapheme' }),
        fc.string(),
        fc.string(),
        (pattern, card, row) => {
          fc.pre(faultOf(() => expectPattern(pattern)) === null)
          const name = nameFrom(pattern, { card, row, take: 1 })
          expect(name).not.toMatch(/[/\\]|^\.|^$/)
        },
      ),
    )
    fc.assert(
      fc.property(fc.string(), fc.string(), (card, row) => {
        expect(nameFrom('{card}_{row}_{take}', { card, row, take: 12 })).toMatch(/^[^/\\.\s][^/\\]*12$/)
      }),
    )
  })
})

describe('what a format cannot carry is said before the start', () => {
  const measure = { width: 1920, height: 1080, rate: { numerator: 25, denominator: 1 }, frames: 50 }
  const refusal = (format: string, change: Partial<typeof measure>, options = {}) =>
    (DELIVERIES.find((delivery) => delivery.format === format) as Delivery).refusal({ ...measure, ...change }, options)

  test.each([
    // ITU-T H.264 table A-1: level 6.2 has 139,264 macroblocks, 8192 × 4352 px.
    ['review', { width: 8192, height: 8192 }, {}, /8192×8192/],
    ['fillkey', { width: 8192, height: 8192 }, { codec: 'h264' }, /8192×8192/],
    // VP9, annex A: level 6.2 has 35,651,584 samples a picture.
    ['webm', { width: 8192, height: 8192 }, {}, /8192×8192/],
    ['review', { width: 1281 }, {}, /even sides/],
    ['fillkey', { width: 1281 }, {}, /even width/],
    // GIF89a counts in hundredths of a second: 4.17 of them are none.
    ['gif', { rate: { numerator: 24000, denominator: 1001 } }, {}, /hundredths/],
    ['gif', { rate: { numerator: 30, denominator: 1 } }, {}, /hundredths/],
    ['gif', { rate: { numerator: 100, denominator: 1 } }, {}, /at most|at the most/],
    ['still', {}, {}, /one frame, and 50/],
  ])('%s of %j', (format, change, options, words) => {
    expect(refusal(format, change, options)?.message).toMatch(words)
  })

  test('what it can carry, it takes', () => {
    for (const { format } of DELIVERIES) expect(refusal(format, { frames: format === 'still' ? 1 : 50 })).toBeNull()
    expect(refusal('review', { width: 8192, height: 4352 })).toBeNull()
    expect(refusal('fillkey', { width: 8192, height: 8192 }, { codec: 'png' })).toBeNull()
    expect(refusal('fillkey', { width: 1280, height: 721 })).toBeNull()
    for (const numerator of [25, 50, 20, 10]) expect(refusal('gif', { rate: { numerator, denominator: 1 } })).toBeNull()
  })
})
