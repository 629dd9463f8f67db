import { describe, expect, test } from '@jest/globals'
import { allPieces, fontsNamed } from '#core/card/tree'
import { proofOf } from '#core/judge/proof/proof'
import { fillCard } from '#core/rosters/fill'
import { START_KINDS } from '#core/starting-points/definition'
import { cardFrom, contrastOf, contrastsOf, wordsOf } from '#core/starting-points/make'
import { shapeOf } from '#core/starting-points/room'
import { STARTING_POINTS } from '#core/starting-points/table'
import { isShipped } from '#core/type/families'
import { COMMON_RATES } from '#core/values/rate'
import { engineWithFonts } from '../support/engine'

interface Frame {
  width: number
  height: number
}

const FRAMES: readonly Frame[] = [
  { width: 1920, height: 1080 },
  { width: 1080, height: 1080 },
  { width: 1080, height: 1920 },
]
const engine = engineWithFonts()
const RATE = { numerator: 25, denominator: 1 }

/** Those that are arranged in another way where the frame is narrow. */
const REARRANGED = ['next-strip', 'score-line', 'spoken-word', 'poured-title']

/** A proof looks at every frame of the loop: each design in a wide frame, those that are arranged anew upright too; `WAX_PROVE=all` proves all in all. */
function provedIn(id: string) {
  const [wide, , upright] = FRAMES as [Frame, Frame, Frame]
  if (process.env.WAX_PROVE === 'all') return FRAMES
  return REARRANGED.includes(id) ? [wide, upright] : [wide]
}

test('there are at least twelve, of every kind, in six characters, each with a name of its own', () => {
  expect(STARTING_POINTS.length).toBeGreaterThanOrEqual(12)
  expect(new Set(STARTING_POINTS.map(({ kind }) => kind))).toEqual(new Set(Object.keys(START_KINDS)))
  expect(new Set(STARTING_POINTS.map(({ character }) => character)).size).toBe(6)
  expect(new Set(STARTING_POINTS.map(({ id }) => id)).size).toBe(STARTING_POINTS.length)
})

test('frames are told apart by their sides', () => {
  expect(FRAMES.map(({ width, height }) => shapeOf(width, height))).toEqual(['wide', 'square', 'upright'])
})

describe.each(STARTING_POINTS.map((start) => [start.id, start] as const))('%s', (_, start) => {
  const wide = cardFrom(start, 'Card', { ...FRAMES[0]!, rate: RATE })

  test.each(COMMON_RATES.map((rate) => [`${rate.numerator}/${rate.denominator}`, rate] as const))(
    'is a card at %s frames a second: in, hold and out, as long in seconds',
    (_, rate) => {
      for (const frame of [...FRAMES, { width: 3840, height: 2160 }, { width: 1280, height: 800 }]) {
        const { length, zones } = cardFrom(start, 'Card', { ...frame, rate })
        expect(Math.abs((length * rate.denominator) / rate.numerator - start.lasts)).toBeLessThan(0.03)
        expect([0 < zones!.hold, zones!.hold < zones!.out, zones!.out < length]).toEqual([true, true, true])
      }
    },
  )

  test('its fields are its words and colours, and ship with all that they need', () => {
    expect(Object.values(wordsOf(start, wide)).every((words) => words.length > 0)).toBe(true)
    expect(wide.fields).toHaveLength(start.words.length + start.colours.length + 1)
    expect(fontsNamed(wide).every(isShipped)).toBe(true)
    expect(new Set(allPieces(wide.pieces).map(({ id }) => id)).size).toBe(allPieces(wide.pieces).length)
  })

  test('every palette is read, and filling its colours is the same as drawing with them', () => {
    for (const { colours } of start.palettes) {
      expect(contrastsOf(start, colours).filter(({ low }) => low)).toEqual([])
      const drawn = cardFrom(start, 'Card', { ...FRAMES[0]!, rate: RATE }, { colours })
      const cells = Object.fromEntries(Object.entries(colours).map(([id, colour]) => [`${id}-colour`, colour]))
      expect(fillCard(wide, cells)).toMatchObject({ faults: [], card: { pieces: drawn.pieces } })
    }
  })

  test('its words are said in all their places', () => {
    const words = Object.fromEntries(start.words.map(({ id }, i) => [id, `Said ${i}`]))
    expect(wordsOf(start, cardFrom(start, 'Card', { ...FRAMES[0]!, rate: RATE }, { words }))).toEqual(words)
  })

  test.each(provedIn(start.id).map((frame) => [`${frame.width}×${frame.height}`, frame] as const))(
    'is proved green at %s',
    async (_, frame) => {
      const card = cardFrom(start, 'Card', { ...frame, rate: RATE })
      const { lines } = await proofOf(card, (work) => Promise.resolve(work(engine)))
      expect(lines.filter(({ verdict }) => verdict !== 'good')).toEqual([])
    },
    60_000,
  )
})

test('contrast is that of WCAG’s worked greys: #777 on white falls short of 4.5, #767676 does not', () => {
  expect(contrastOf('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2)
  expect(contrastOf('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2)
  expect(contrastOf('#000000', '#FFFFFF')).toBe(21)
})
