import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import type { Card, TypePiece } from '#core/card/schema'
import { coat, emptyCard, engineWithFonts, solid, step, withBox } from '../support/engine'

// What was cut apart shows no line between its parts, at rest or on their way.

const engine = engineWithFonts()
const sliding = expectCard(JSON.parse(readFileSync('tests/reference/faults/sliding-bands.card.json', 'utf8')))
const [words] = sliding.pieces as [TypePiece]

/** Alpha of a frame without a background, in 255ths. */
function alphaOf(piece: object, frame = 0) {
  const card = expectCard({ ...sliding, background: null, pieces: [{ ...words, ...piece }] })
  const { pixels, width } = engine.render(card, frame, { bits: 16 })
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
  return (x: number, y: number) => values[(y * width + x) * 4 + 3]! / 257
}

// The left stem of the H, from within its first band to within its last.
const STEM = { left: 130, right: 150, top: 120, bottom: 245 }
function leastIn(alpha: (x: number, y: number) => number): number {
  let least = 255
  for (let y = STEM.top; y < STEM.bottom; y++)
    for (let x = STEM.left; x < STEM.right; x++) least = Math.min(least, alpha(x, y))
  return least
}
const range = (words as unknown as { ranges: object[] }).ranges[0]!
const faces = (...face: object[]) => ({ coats: { face, behind: [] } })

describe('bands of letters that slide past each other', () => {
  test('cover what they cover together: whole along every cut', () => {
    expect(leastIn(alphaOf({}))).toBe(255)
  })

  test.each([0.25, 0.5, 0.83])('at %s px of its height too, half clear, with a gradient', (y) => {
    const stops = [
      { at: 0, colour: '#FF4020' },
      { at: 100, colour: '#2040FF' },
    ]
    const gradient = coat('fill', 'fill-1', { paint: { type: 'linear', stops, angle: 90 } })
    expect(leastIn(alphaOf({ y: 180 + y, ...faces(gradient) }))).toBe(255)
    const half = coat('fill', 'fill-1', { paint: solid('#FFFFFF'), opacity: 40 })
    const alpha = alphaOf({ y: 180 + y, ...faces(half) })
    for (let row = STEM.top; row < STEM.bottom; row++) expect(Math.abs(alpha(140, row) - 102)).toBeLessThan(0.6)
  })

  test('that hardly slide look as the words that were never cut', () => {
    const slid = alphaOf({ y: 180.4, ranges: [{ ...range, x: 1e-4 }] })
    const whole = alphaOf({ y: 180.4, ranges: [], outlineSteps: [] })
    for (let y = 90; y < 280; y++)
      for (let x = 90; x < 560; x++) expect(Math.abs(slid(x, y) - whole(x, y))).toBeLessThan(0.6)
  })

  test('where they lie over each other the one in front keeps its soft edge', () => {
    const up = alphaOf({ y: 180.4, ranges: [{ ...range, x: 0, y: 12.3 }] })
    // Bands 1 and 3 have gone down by 12.3 px: 2 and 4 lie over them, nothing is open between 1 and 2.
    for (let y = 140; y < 180; y++) expect(up(140, y)).toBe(255)
  })
})

test('a gap below 0 lays bands over each other; the whole becomes lower by it', () => {
  const heightOf = (gap: number) => {
    const cut = { outlineSteps: [step('slices', { number: 5, gap })] }
    const card: Card = withBox(
      emptyCard(200, 200),
      { x: 100, y: 100, width: 80, height: 100, ...cut },
      { face: [coat('fill', 'f')] },
    )
    const { pixels } = engine.render(card, 0, { bits: 16 })
    const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
    let height = 0
    for (let y = 0; y < 200; y++) height += values[(y * 200 + 100) * 4 + 3]! / 65_535
    return height
  }
  expect(heightOf(0)).toBeCloseTo(100, 2)
  expect(heightOf(-6)).toBeCloseTo(100 - 4 * 6, 2)
  expect(heightOf(3)).toBeCloseTo(100, 2)
})
