import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { COMMON_RATES } from '#core/values/rate'
import { droppedNumbers, nominalRate, readTimecode, timecode } from '#core/time/timecode'

const FILM = { numerator: 24000, denominator: 1001 }
const NTSC = { numerator: 30000, denominator: 1001 }
const DOUBLE = { numerator: 60000, denominator: 1001 }
const PAL = { numerator: 25, denominator: 1 }

describe('drop-frame counting (SMPTE ST 12-1, worked numbers)', () => {
  test.each([
    [0, '00:00:00;00'],
    [1799, '00:00:59;29'],
    [1800, '00:01:00;02'],
    [3597, '00:01:59;29'],
    [3598, '00:02:00;02'],
    [17_981, '00:09:59;29'],
    [17_982, '00:10:00;00'],
    // An hour at 29.97 drop is 107,892 frames.
    [107_892, '01:00:00;00'],
    [2_589_408, '24:00:00;00'],
  ])('frame %i is %s', (frame, text) => {
    expect(timecode(frame, NTSC, true)).toBe(text)
    expect(readTimecode(text, NTSC)).toBe(frame)
  })

  test('at 59.94 four numbers are left out; other rates have none', () => {
    expect(timecode(3600, DOUBLE, true)).toBe('00:01:00;04')
    expect(timecode(215_784, DOUBLE, true)).toBe('01:00:00;00')
    for (const rate of [FILM, PAL]) expect(droppedNumbers(rate)).toBe(0)
    expect(timecode(1800, FILM, true)).toBe('00:01:15:00')
  })

  test('a number that is left out is refused by name', () => {
    expect(() => readTimecode('00:01:00;01', NTSC)).toThrow(/leaves this number out/)
    expect(readTimecode('00:10:00;01', NTSC)).toBe(17_983)
  })
})

test('without drop an hour at 29.97 is counted as 108,000 numbers', () => {
  expect(timecode(107_892, NTSC)).toBe('00:59:56:12')
  expect(timecode(108_000, NTSC)).toBe('01:00:00:00')
})

test('every frame has a timecode that leads back to it, in every common rate, dropped or not', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...COMMON_RATES),
      fc.integer({ min: 0, max: 10_000_000 }),
      fc.boolean(),
      (rate, frame, drop) => {
        expect(readTimecode(timecode(frame, rate, drop), rate)).toBe(frame)
        // Neighbours never share a number.
        expect(timecode(frame + 1, rate, drop)).not.toBe(timecode(frame, rate, drop))
      },
    ),
  )
})

test('short forms, and what is none', () => {
  expect(readTimecode('37', PAL)).toBe(37)
  expect(readTimecode('2:10', PAL)).toBe(60)
  expect(readTimecode('1:02:10', PAL)).toBe(1560)
  expect(nominalRate(FILM)).toBe(24)
  for (const text of ['', 'abc', '1:25', '00:61:00:00', '1:2:3:4:5', '-3']) {
    expect(() => readTimecode(text, PAL)).toThrow(/timecode|second has/)
  }
})
