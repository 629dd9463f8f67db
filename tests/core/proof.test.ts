import { describe, expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import type { Verdict } from '#core/judge/proof/definition'
import type { Ground } from '#core/judge/proof/grounds'
import { PROOF_CHECKS } from '#core/judge/proof/checks'
import type { WithEngine } from '#core/judge/with-engine'
import { proofOf } from '#core/judge/proof/proof'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import { makeField } from '#core/rosters/field-edit'
import { NOTHING_BROUGHT } from '#core/rosters/fill'
import { proofRows } from '#core/rosters/proof-rows'
import { createRoster } from '#core/rosters/roster'
import { paintSchema } from '#core/values/paints'
import { coat, emptyCard, engineWithFonts, solid, withBox, withPiece, withType } from '../support/engine'

// Each line of the proof sheet on a card that was made to be found out, beside one that is not.

const engine = engineWithFonts()
const fill = (colour: string) => [coat('fill', 'f', { paint: solid(colour) })]

/** A plain lower third that nothing is wrong with: 640 × 360, two seconds. */
function plain(type: Record<string, unknown> = {}, bar: Record<string, unknown> = {}): Card {
  const box = withBox(
    emptyCard(640, 360, 50),
    { id: 'bar', name: 'Bar', x: 200, y: 290, width: 300, height: 60, ...bar },
    { face: fill('#103040') },
  )
  const words = {
    id: 'name',
    name: 'Name',
    wording: 'Odile',
    font: 'anton',
    size: 36,
    x: 200,
    y: 302,
    align: 'centre' as const,
  }
  return withType(box, { ...words, ...type } as never, { face: fill('#FFFFFF') })
}

async function sheet(card: Card, own: Ground[] = []) {
  const { lines, passed } = await proofOf(card, (work) => Promise.resolve(work(engine)), { own })
  return { passed, lines, of: (check: string) => lines.find((line) => line.check === check)! }
}

test('a plain lower third is good in every line', async () => {
  const { passed, lines } = await sheet(plain())
  expect(lines.map(({ check, verdict }) => [check, verdict])).toEqual(PROOF_CHECKS.map(({ id }) => [id, 'good']))
  expect(passed).toBe(true)
})

test('rows of a roster are proved with their card: each that has no room or no letters is named', async () => {
  const design = makeField(plain(), 'name/wording')
  let roster = addRows(addColumn(createRoster('Crews'), 'Name').roster, 4).roster
  const said = ['Tam Voss', 'Bartholomew Featherstone', '三浦', 'Nobody sees this one, which is off, in full']
  roster = setCells(roster, [
    ...said.map((text, i) => ({ row: `row-${i + 1}`, column: 'column-1', text })),
    { row: 'row-4', column: ':on', text: 'off' },
  ])
  const rows = proofRows(design, roster, NOTHING_BROUGHT)
  const shares: number[] = []
  const withEngine: WithEngine = (work) => Promise.resolve(work(engine))
  const { lines, passed } = await proofOf(design, withEngine, { rows, onFrame: (share) => shares.push(share) })
  const found = (check: string) => lines.find((line) => line.check === check)!
  expect(passed).toBe(false)
  expect(found('overflow')).toMatchObject({ verdict: 'bad', said: '1 without room' })
  expect(found('overflow').findings).toEqual([
    {
      ...{ piece: 'name', frame: 0, row: 'row-2', remedy: 'Fit it to the width, or say less.' },
      message: '“Bartholomew Featherstone”: It reaches beyond its bar.',
    },
  ])
  expect(found('missing').findings.map(({ row, message }) => [row, message])).toEqual([
    ['row-3', '“三浦”: Its font has no 三 浦'],
  ])
  // It tells how far it is, and never goes back.
  expect([...shares].sort((a, b) => a - b)).toEqual(shares)
  expect(shares.at(-1)).toBe(1)
  const short = await proofOf(design, withEngine, { rows: rows.slice(0, 1) })
  // What is kept of rows is what is to be said of them.
  expect(short.looked.rows).toEqual([])
  expect(short.lines.find(({ check }) => check === 'overflow')).toMatchObject({
    ...{ verdict: 'good', said: 'all fits, in 1 row too' },
  })
})

test('a row with a cell that cannot be read is not complete: the value of the card stands there', async () => {
  const design = makeField(makeField(plain(), 'name/wording'), 'name/f/paint/colour')
  const headed = design.fields.reduce((one, { label }) => addColumn(one, label).roster, createRoster('Crews'))
  const cells = [
    { row: 'row-1', column: 'column-1', text: 'Tam Voss' },
    { row: 'row-1', column: 'column-2', text: 'nearly red' },
  ]
  const rows = proofRows(design, setCells(addRows(headed, 1).roster, cells), NOTHING_BROUGHT)
  const { lines } = await proofOf(design, (work) => Promise.resolve(work(engine)), { rows })
  const { verdict, findings } = lines.find(({ check }) => check === 'missing')!
  expect(verdict).toBe('bad')
  expect(findings.map(({ row, message }) => [row, message])).toEqual([
    ['row-1', expect.stringMatching(/^“Tam Voss”: .*nearly red/)],
  ])
})

test('what is hidden may stand anywhere', async () => {
  const { lines } = await sheet(plain({}, { on: false, x: 320, y: 340, width: 500, height: 30 }))
  expect(lines.find(({ check }) => check === 'safe')!.verdict).toBe('good')
})

describe('what is wrong is told with its piece and a remedy', () => {
  const cases: [string, Card, Verdict, string | null, RegExp][] = [
    ['safe', plain({ x: 20, align: 'left' }, { x: 320, width: 500 }), 'bad', 'name', /title area/],
    ['safe', plain({}, { x: 320, y: 340, width: 500, height: 30 }), 'look', 'bar', /action area/],
    ['contrast', plain({}, { on: false }), 'look', 'name', /over white/],
    ['size', plain({ size: 6 }), 'look', 'name', /capitals are \d+ px/],
    ['size', plain({ size: 5 }), 'bad', 'name', /capitals are 1[0-3] px/],
    [
      'reading',
      plain({ wording: 'One two three four five six seven eight nine ten', size: 14 }),
      'bad',
      null,
      /two readings take 8\.0 s/,
    ],
    ['overflow', plain({ x: 620 }), 'bad', 'name', /beyond the frame/],
    ['missing', plain({ wording: 'Odile 龍' }), 'bad', 'name', /no 龍/],
    ['lines', plain({}, { height: 1, y: 290.5 }), 'look', null, /line 1 px high/],
  ]
  test.each(cases)('%s %#', async (check, card, verdict, piece, words) => {
    const line = (await sheet(card)).of(check)
    expect([line.check, line.verdict]).toEqual([check, verdict])
    expect(line.findings[0]!.piece).toBe(piece)
    expect(line.findings[0]!.message).toMatch(words)
    expect(line.findings[0]!.remedy).not.toBe('')
  })
})

test('type is held against what it is for too: a picture fills the frame from its middle', async () => {
  // White letters without a bar are read over black and grey; here the middle of the picture decides, not its sides.
  const picture = (middle: number) => {
    const pixels = Uint8Array.from({ length: 12 * 4 * 4 }, (_, i) => {
      const x = (i >> 2) % 12
      return i % 4 === 3 ? 255 : x >= 3 && x < 9 ? middle : 255 - middle
    })
    return { label: 'the shot', over: { width: 12, height: 4, pixels } }
  }
  const card = plain({ x: 320, y: 200 }, { on: false })
  const light = (await sheet(card, [picture(245)])).of('contrast')
  expect(light.verdict).toBe('bad')
  expect(light.findings[0]!.message).toMatch(/1\.\d : 1 over the shot/)
  const dark = (await sheet(card, [picture(10)])).of('contrast')
  // White on black is 21 : 1 (WCAG 2.2), on the picture nearly; on mid grey 3.95, on white 1.
  const [worst, mean] = dark.said.match(/[\d.]+(?= : 1)/g)!.map(Number) as [number, number]
  expect(worst).toBeCloseTo(1, 1)
  expect(mean).toBeGreaterThan((21 + 3.95 + 1 + 18) / 4 - 1)
  expect(mean).toBeLessThan((21 + 3.95 + 1 + 20.5) / 4 + 0.3)
  expect(dark.verdict).toBe('look')
  expect(dark.findings[0]!.message).not.toMatch(/the shot/)
})

test('a font that is not here is all that is said: nothing else could be looked at', async () => {
  const { passed, lines } = await sheet(plain({ font: 'font-of-nobody' }))
  expect(passed).toBe(false)
  expect(lines.map(({ check }) => check)).toEqual(['missing'])
  expect(lines[0]!.findings[0]!.message).toMatch(/font-of-nobody/)
  const said = await sheet(withPiece(plain(), 'picture', { picture: 'picture-0123456789abcdef' } as never))
  expect(said.passed).toBe(false)
  expect(said.lines[0]!.findings[0]!.message).toBe('The picture “picture-0123456789abcdef” is not here.')
})

test('words that the hold gives time to read are good, and the same in a shorter hold are not', async () => {
  const card = plain({ wording: 'Three words here', size: 24 })
  expect((await sheet({ ...card, length: 100, zones: { hold: 10, out: 90 } })).of('reading').verdict).toBe('good')
  expect((await sheet({ ...card, length: 100, zones: { hold: 10, out: 50 } })).of('reading').verdict).toBe('look')
  expect((await sheet({ ...card, length: 100, zones: { hold: 10, out: 30 } })).of('reading').verdict).toBe('bad')
})

describe('what is seen for a while, at one letter, or faintly is found too', () => {
  const white = fill('#FFFFFF')
  /** A word of ten letters of a white on black; white boxes lie under the last two at some frames. */
  function tenLetters(under: { in: number; out: number } | null, at = 505): Card {
    const words = { id: 'ten', wording: 'HHHHHHHHHH', font: 'archivo-black', size: 60, x: 320, y: 200 }
    const black = withBox(
      emptyCard(640, 360, 100),
      { x: 320, y: 180, width: 640, height: 360 },
      { face: fill('#000000') },
    )
    const part = withBox(
      black,
      { id: 'part', x: at, y: 180, width: 130, height: 80, span: under as never },
      { face: white },
    )
    return withType(part, { ...words, align: 'centre' } as never, { face: white })
  }
  const contrastOf = async (card: Card) => (await sheet(card)).of('contrast')

  test('letters that lie on their own colour, where eight of ten do not', async () => {
    const { verdict, findings } = await contrastOf(tenLetters({ in: 0, out: 100 }))
    expect(verdict).toBe('bad')
    expect(findings).toHaveLength(1)
    expect(findings[0]!.message).toMatch(/^1\.1 : 1 over black at “H”, /)
  })

  test('the same for half a second in four; a glint that takes a tenth of one does no harm', async () => {
    const long = await contrastOf(tenLetters({ in: 61, out: 75 }))
    expect(long.verdict).toBe('bad')
    expect(long.findings[0]!.frame).toBeGreaterThanOrEqual(61)
    expect(long.findings[0]!.frame).toBeLessThan(75)
    expect((await contrastOf(tenLetters({ in: 61, out: 64 }))).verdict).toBe('good')
    expect((await contrastOf(tenLetters(null, -100))).verdict).toBe('good')
  })

  test('type of 75 % that leaves the frame, and such of 85 % that is white on white', async () => {
    const on = (colour: string, type: Record<string, unknown>) => {
      const ground = withBox(emptyCard(640, 360, 25), { x: 320, y: 180, width: 640, height: 360 }, { face: white })
      const words = { id: 'faint', font: 'archivo-black', size: 80, x: 320, y: 200, align: 'centre' as const, ...type }
      return withType(ground, words as never, { face: fill(colour) })
    }
    const outside = await sheet(on('#999999', { wording: 'A LINE THAT LEAVES THE FRAME', opacity: 75 }))
    expect(outside.of('overflow').verdict).toBe('bad')
    expect(outside.of('contrast').findings[0]!.message).toMatch(/^2\.1 : 1 over black/)
    expect((await contrastOf(on('#FFFFFF', { wording: 'WHITE', opacity: 85 }))).verdict).toBe('bad')
    // What comes and goes is judged where it is strongest.
    const keys = [0, 12, 24].map((frame, i) => ({ frame, value: i === 1 ? 100 : 0 }))
    expect((await contrastOf(on('#555555', { wording: 'GREY', opacity: { keys } }))).verdict).toBe('good')
  })

  test('a letter that its font has not, in three frames of its own', async () => {
    const keys = [0, 20, 23].map((frame, i) => ({ frame, value: i === 1 ? '漢字' : 'ABC' }))
    const { verdict, findings } = (await sheet(plain({ wording: { keys } }))).of('missing')
    expect(verdict).toBe('bad')
    expect(findings).toMatchObject([{ piece: 'name', frame: 20, message: 'Its font has no 漢 字' }])
  })

  test('words that stand for half a second of a long hold', async () => {
    const card = plain({ wording: 'one two three four five', size: 14, span: { in: 12, out: 24 } })
    const line = (await sheet({ ...card, length: 220, zones: { hold: 10, out: 210 } })).of('reading')
    expect(line).toMatchObject({ verdict: 'bad', said: '5 words, 4.0 s of 0.5 s' })
    // Beside words that stand all the time each is told by itself.
    const both = withType(
      { ...card, length: 220, zones: { hold: 10, out: 210 } },
      { id: 'role', wording: 'Coxswain', font: 'anton', size: 20, x: 320, y: 150, align: 'centre' } as never,
      { face: white },
    )
    const beside = (await sheet(both)).of('reading')
    expect(beside.verdict).toBe('bad')
    expect(beside.findings).toMatchObject([{ piece: 'name', frame: 12, message: /0\.5 s; two readings take 4\.0 s/ }])
  })

  test('numbers that run are watched; words that change must each be read', async () => {
    const count = (of: (n: number) => string) => ({
      keys: Array.from({ length: 10 }, (_, n) => ({ frame: n * 5, value: of(n) })),
    })
    const line = async (of: (n: number) => string) => (await sheet(plain({ wording: count(of) }))).of('reading').verdict
    expect(await line((n) => `${10 - n}`)).toBe('good')
    expect(await line((n) => `crew ${'abcdefghij'[n]}`)).toBe('bad')
  })

  test('type that leaves the title area between two places where it stands', async () => {
    const moves = { keys: [0, 60, 75, 90].map((frame, i) => ({ frame, value: i === 2 ? 700 : 320 })) }
    const card = { ...plain({ x: moves, y: 180 }, { on: false }), length: 110 }
    const line = (await sheet(card)).of('safe')
    expect(line).toMatchObject({ verdict: 'look', findings: [{ piece: 'name', message: /on its way/ }] })
    const rests = { keys: [0, 60, 75, 90, 100].map((frame, i) => ({ frame, value: i === 2 || i === 3 ? 700 : 320 })) }
    expect((await sheet({ ...plain({ x: rests, y: 180 }, { on: false }), length: 110 })).of('safe').verdict).toBe('bad')
    // What a hold leaves out may come from anywhere.
    expect((await sheet({ ...card, zones: { hold: 95, out: 105 } })).of('safe').verdict).toBe('good')
  })

  test('a band in a column as well as one in a row', async () => {
    const ramp = (angle: number) => {
      const stops = [
        { at: 0, colour: '#404040' },
        { at: 100, colour: '#444444' },
      ]
      const paint = paintSchema.parse({ type: 'linear', angle, stops })
      const box = { x: 200, y: 200, width: 400, height: 400 }
      return withBox(emptyCard(400, 400, 1), box, { face: [coat('fill', 'f', { paint })] })
    }
    const said = async (angle: number) => (await proofOf(ramp(angle), (work) => Promise.resolve(work(engine)))).looked
    const [row, column] = [await said(0), await said(90)].map(({ moments }) => moments[0]!.bands.plain)
    expect([row!.along, column!.along].sort()).toEqual(['column', 'row'])
    expect(Math.abs(row!.length - column!.length)).toBeLessThanOrEqual(1)
    expect(row!.length).toBeGreaterThan(80)
  })
})

describe('what moves', () => {
  const line = (loop: boolean, ...at: [number, number, string?][]) => ({
    ...{ loop, keys: at.map(([frame, value, easing]) => ({ frame, value, ...(easing ? { easing } : {}) })) },
  })

  test('a value that jumps over the seam is told with why; what turns there, or jumps elsewhere too, is not', async () => {
    const seamOf = async (...values: object[]) => (await sheet(plain(...(values as [])))).of('seam')
    const way = line(false, [0, 190], [40, 210])
    expect(await seamOf({ x: way })).toEqual({
      ...{ check: 'seam', label: 'Seam', source: 'The loop’s own steps', verdict: 'bad', said: '1 value jumps' },
      findings: [
        {
          ...{ piece: 'name', frame: 49, remedy: 'Close the loop on the ribbon.' },
          message: 'Name · x jumps: its keys end at another value than they begin with.',
        },
      ],
    })
    expect(await seamOf({ x: way }, { x: way })).toMatchObject({ verdict: 'bad', said: '2 values jump' })
    for (const x of [
      line(true, [0, 190], [25, 210]),
      line(true, [0, 190, 'hold'], [20, 205, 'hold'], [35, 198, 'hold']),
    ])
      expect(await seamOf({ x })).toMatchObject({ verdict: 'good', said: 'closed', findings: [] })
  })

  test('a large box that flashes four times a second is bad, three times is not', async () => {
    const flashing = (times: number) => {
      const on = { keys: Array.from({ length: times * 2 + 1 }, (_, i) => ({ frame: i * 3, value: i % 2 === 1 })) }
      const card = { ...plain(), length: 25 }
      return withBox(
        card,
        { id: 'flash', x: 320, y: 180, width: 640, height: 360, on: on as never },
        { face: fill('#FFFFFF') },
      )
    }
    expect((await sheet(flashing(4))).of('flashes')).toMatchObject({ verdict: 'bad', said: '4 in a second at most' })
    expect((await sheet(flashing(3))).of('flashes').verdict).toBe('good')
  })
})
