import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Card } from '#core/card/schema'
import type { FramePicture } from '#core/frame/engine'
import { longestBand } from '#core/judge/measures/bands'
import { contrastRatio, relativeLuminance } from '#core/judge/measures/contrast'
import type { FlashPicture } from '#core/judge/measures/flashes'
import { readFileSync } from 'node:fs'
import { expectCard } from '#core/card/read'
import { FLASH_AREA, flashesIn } from '#core/judge/measures/flashes'
import { proofOf } from '#core/judge/proof/proof'
import { fringesOf } from '#core/judge/measures/fringe'
import { inkRows, onlyRows } from '#core/judge/measures/ink-rows'
import { readAloud, readingTime, wordsIn } from '#core/judge/measures/reading'
import { thinLines } from '#core/judge/measures/thin-lines'
import { COMPOSITE, compositeLevels } from '#core/judge/measures/video-levels'
import { paintSchema } from '#core/values/paints'
import { coat, emptyCard, engineWithFonts, solid, withBox, withType } from '../support/engine'

const grey = (step: number) => relativeLuminance(step / 255, step / 255, step / 255)

describe('contrast, as WCAG 2.2 has it', () => {
  test.each([
    // The ends of the scale, and the greys that are quoted as just enough and just not enough on white.
    [0, 255, 21],
    [255, 255, 1],
    [0x76, 255, 4.54],
    [0x77, 255, 4.48],
    [0x95, 255, 3.02],
  ])('of grey %d on grey %d is %d', (one, other, ratio) => {
    expect(contrastRatio(grey(one), grey(other))).toBeCloseTo(ratio, 1)
    expect(contrastRatio(grey(other), grey(one))).toBeCloseTo(ratio, 1)
  })

  test('red, green and blue have the luminance of their weights', () => {
    expect(relativeLuminance(1, 0, 0)).toBeCloseTo(0.2126, 6)
    expect(relativeLuminance(0, 1, 0)).toBeCloseTo(0.7152, 6)
    expect(relativeLuminance(0, 0, 1)).toBeCloseTo(0.0722, 6)
  })
})

test('where nothing is seen is passed over: rows with ink, and some around them', () => {
  const [width, height] = [7, 20]
  const picture = (rows: readonly number[]): FramePicture => {
    const pixels = new Uint8Array(width * height * 4)
    for (const row of rows) pixels[(row * width + (row % width)) * 4 + 3] = 1
    return { width, height, pixels, bits: 8 } as FramePicture
  }
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(height - 1), { minLength: 1 }), fc.nat(5), (rows, margin) => {
      const whole = picture(rows)
      const found = inkRows(whole, margin)
      expect(found).toEqual({
        top: Math.max(0, Math.min(...rows) - margin),
        bottom: Math.min(height, Math.max(...rows) + 1 + margin),
      })
      const part = onlyRows(whole, found)
      expect([part.height, part.pixels.length]).toEqual([found.bottom - found.top, part.height * width * 4])
      const sum = ({ pixels }: FramePicture) => pixels.reduce((all, value) => all + value, 0)
      expect(sum(part)).toBe(sum(whole))
    }),
  )
  expect(inkRows(picture([]), 4)).toEqual({ top: 0, bottom: 0 })
})

describe('a halo', () => {
  const engine = engineWithFonts()
  const word = (colour: string, behind: ReturnType<typeof coat>[] = []) => {
    const face = [coat('fill', 'f', { paint: solid(colour) })]
    return engine.render(
      withType(emptyCard(400, 160), { wording: 'Rim', font: 'anton', size: 120, x: 200.3, y: 120.4 }, { face, behind }),
      0,
    )
  }
  const changed = (picture: FramePicture, by: (channel: number, alpha: number) => number): FramePicture => {
    const pixels = picture.pixels.slice()
    for (let at = 0; at < pixels.length; at += 4) {
      for (let c = at; c < at + 3; c++) pixels[c] = by(pixels[c]!, pixels[at + 3]! / 255)
    }
    return { ...picture, pixels }
  }

  test('is not on a word as the engine makes it, whatever its colour', () => {
    for (const colour of ['#FFFFFF', '#000000', '#C83C28']) {
      const found = fringesOf(word(colour))
      expect(found.edges).toBeGreaterThan(200)
      expect([found.light, found.dark]).toEqual([0, 0])
    }
  })

  test('is dark where premultiplied pixels of a bright word are taken for straight ones', () => {
    const { light, dark, edges, at } = fringesOf(changed(word('#F2E6D0'), (channel, alpha) => channel * alpha))
    expect(light).toBe(0)
    expect(dark / edges).toBeGreaterThan(0.5)
    expect(at).not.toBeNull()
  })

  test('is light where a dark word was cut out of white', () => {
    const { light, dark, edges } = fringesOf(
      changed(word('#201812'), (channel, alpha) => channel * alpha + 255 * (1 - alpha)),
    )
    expect(dark).toBe(0)
    expect(light / edges).toBeGreaterThan(0.5)
  })

  test('is not what is soft on purpose', () => {
    const glow = coat('glow', 'g', { reach: 40, colour: '#FFD060', opacity: 90 })
    const { light, dark } = fringesOf(word('#201812', [glow]))
    expect([light, dark]).toEqual([0, 0])
  })
})

describe('bands', () => {
  test('of a closed ramp are as long as its steps, whichever way it runs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 40 }), fc.boolean(), (step, falls) => {
        const values = Uint8Array.from({ length: step * 20 }, (_, x) => 100 + (falls ? -1 : 1) * Math.floor(x / step))
        expect(longestBand(values, values.length, 1)).toEqual({ length: step, along: 'row', at: 0, from: step })
      }),
    )
  })

  test('are not flat colours between hard edges, nor what ends at the rim, nor noise', () => {
    const flat = new Uint8Array(150).fill(10).fill(200, 50, 100)
    expect(longestBand(flat, 150, 1).length).toBe(0)
    const rim = Uint8Array.from({ length: 100 }, (_, x) => (x < 90 ? 5 : 6))
    expect(longestBand(rim, 100, 1).length).toBe(0)
    // Dithering goes to and fro: it climbs by one and falls by one.
    const noise = Uint8Array.from({ length: 200 }, (_, x) => 40 + ((x >> 3) & 1))
    expect(longestBand(noise, 200, 1).length).toBe(0)
  })

  test('of a gradient are broken up by the engine’s dithering', () => {
    const stops = [
      { at: 0, colour: '#202020' },
      { at: 100, colour: '#303030' },
    ]
    const paint = paintSchema.parse({ type: 'linear', angle: 0, stops })
    const face = [coat('fill', 'f', { paint })]
    const card = withBox(emptyCard(1024, 32), { x: 512, y: 16, width: 1024, height: 32 }, { face })
    const engine = engineWithFonts()
    const { pixels } = engine.render(card, 0)
    const exact = new Float32Array(engine.render(card, 0, { bits: 'float' }).pixels.buffer)
    const red = { channels: 4, channel: 0 }
    const rounded = Uint8Array.from(exact, (value) => Math.round(value * 255))
    const plain = longestBand(rounded, 1024, 32, red)
    const dithered = longestBand(pixels, 1024, 32, red)
    // 16 steps over 1024 px.
    expect(plain.length).toBeGreaterThan(55)
    expect(plain.length).toBeLessThan(75)
    expect(dithered.length).toBeLessThan(plain.length / 2)
  })
})

describe('flashes, as WCAG 2.2 counts them', () => {
  const cells = 400
  /** Pictures whose first cells, a share of all, have a value; 25 a second. */
  const pictures = (values: number[], share: number, of: 'luminance' | 'red' = 'luminance'): FlashPicture[] =>
    values.map((value) => {
      const made = { luminance: new Float32Array(cells), red: new Float32Array(cells) }
      made[of].fill(value, 0, Math.round(cells * share))
      return made
    })
  /** So many flashes within a second, one after the other. */
  const flashing = (times: number, low: number, high: number) =>
    Array.from({ length: 25 }, (_, frame) => (frame < times * 6 && Math.floor(frame / 3) % 2 === 1 ? high : low))

  test.each([
    [flashing(4, 0, 1), 1, 4],
    [flashing(3, 0, 1), 1, 3],
    [flashing(4, 0, 0.09), 1, 0],
    [flashing(4, 0, 0.11), 1, 4],
    // The darker picture of a flash is below 0.80.
    [flashing(4, 0.81, 1), 1, 0],
    [flashing(4, 0, 1), FLASH_AREA * 0.9, 0],
    [flashing(4, 0, 1), FLASH_AREA * 1.2, 4],
  ])('%#: %j over %d of the picture are %d', (values, share, count) => {
    expect(flashesIn(pictures(values, share), 25)).toMatchObject({ general: count, red: 0 })
  })

  test('a slow change there and back is one, however many frames it takes', () => {
    const values = Array.from({ length: 25 }, (_, frame) => 1 - Math.abs(frame - 12) / 12)
    expect(flashesIn(pictures(values, 1), 25).general).toBe(1)
  })

  test('of saturated red are counted by themselves', () => {
    expect(flashesIn(pictures(flashing(4, 0, 200), 1, 'red'), 25)).toMatchObject({ general: 0, red: 4 })
    expect(flashesIn(pictures(flashing(4, 0, 19), 1, 'red'), 25).red).toBe(0)
  })

  test('of two seconds are not added', () => {
    const second = [...flashing(2, 0, 1), ...flashing(2, 0, 1)]
    expect(flashesIn(pictures(second, 1), 25).general).toBeLessThanOrEqual(3)
    expect(flashesIn([], 25)).toMatchObject({ general: 0, red: 0, from: 0 })
  })
})

describe('levels of composite video', () => {
  test.each([
    // Colour bars: 100 % yellow and cyan reach 133, blue and red −33; 75 % yellow reaches 100.
    ['yellow', [1, 1, 0], { high: 133.4 }],
    ['cyan', [0, 1, 1], { high: 133.4 }],
    ['blue', [0, 0, 1], { low: -33.3 }],
    ['red', [1, 0, 0], { low: -33.3 }],
    ['yellow of 75 %', [0.75, 0.75, 0], { high: 100 }],
    ['white', [1, 1, 1], { high: 100, low: 100 }],
    ['black', [0, 0, 0], { high: 0, low: 0 }],
  ] as const)('of %s', (_, [red, green, blue], levels) => {
    const found = compositeLevels(red, green, blue)
    if ('high' in levels) expect(found.high).toBeCloseTo(levels.high, 0)
    if ('low' in levels) expect(found.low).toBeCloseTo(levels.low, 0)
  })

  test('75 % bars are within the limits and 100 % bars are not', () => {
    const bars = [
      [1, 1, 0],
      [0, 1, 1],
      [0, 1, 0],
      [1, 0, 1],
      [1, 0, 0],
      [0, 0, 1],
    ] as const
    const within = (share: number) =>
      bars.map(([r, g, b]) => {
        const { low, high } = compositeLevels(r * share, g * share, b * share)
        return low >= COMPOSITE.from && high <= COMPOSITE.to
      })
    expect(within(0.75)).toEqual(bars.map(() => true))
    expect(within(1).filter(Boolean).length).toBeLessThan(4)
  })
})

test('a line less than two pixels high is found where it stands; two pixels, a short one and a faint one are not', () => {
  const face = [coat('fill', 'f', { paint: solid('#FFFFFF') })]
  const lines = [
    { id: 'one', x: 100, y: 20.5, width: 100, height: 1 },
    { id: 'two', x: 100, y: 40, width: 100, height: 2 },
    { id: 'short', x: 100, y: 60.5, width: 10, height: 1 },
    { id: 'between', x: 100, y: 71, width: 100, height: 1 },
  ]
  const faint = { id: 'faint', x: 100, y: 80.5, width: 100, height: 1, opacity: 30 }
  const over = (boxes: object[], ground?: string) => {
    const bare = emptyCard(200, 100)
    const under = { x: 100, y: 50, width: 200, height: 100 }
    const card = ground ? withBox(bare, under, { face: [coat('fill', 'f', { paint: solid(ground) })] }) : bare
    return thinLines(
      engineWithFonts().render(
        boxes.reduce<Card>((now, box) => withBox(now, box, { face }), card),
        0,
      ),
    )
  }
  // One that lies between two rows is in both fields, half as strong.
  expect(over([...lines, faint])).toEqual([{ y: 20, from: 50, to: 150, height: 1 }])
  const half = { id: 'half', x: 100, y: 30.75, width: 100, height: 1.5 }
  const [line] = over([half], '#000000')
  expect(line).toMatchObject({ y: 30, from: 50, to: 150 })
  expect(line!.height).toBeCloseTo(1.5, 1)
  // Two thin ones, and the dark one between them; three rows are none.
  const double = [0, 2].map((by) => ({ id: `double-${by}`, x: 100, y: 50.5 + by, width: 100, height: 1 }))
  expect(over(double, '#000000').map(({ y }) => y)).toEqual([50, 51, 52])
  expect(over([{ id: 'three', x: 100, y: 51.5, width: 100, height: 3 }], '#000000')).toEqual([])
})

test('words are counted in any script, and take as long as reading them aloud twice', () => {
  expect(
    ['Odile Marsh', 'Oxbow Quay — the 3rd race', 'l’été, déjà', 'الفانوس المضيء', '… – !', ''].map(wordsIn),
  ).toEqual([2, 5, 2, 2, 0, 0])
  expect([0, 1, 2, 10, 30].map((words) => readingTime(words / 2.5))).toEqual([0, 1.5, 1.6, 8, 24])
})

test('scripts without spaces have words too, and are read by their characters where that is how they are counted', () => {
  // A lantern festival; a lantern parade; a boat race: words that no dictionary divides otherwise, parted by spaces of other scripts.
  expect(['灯笼 节日', '提灯 パレード', 'แข่ง เรือ'].map(wordsIn)).toEqual([2, 2, 2])
  expect(wordsIn('แข่งเรือ')).toBe(2)
  expect(wordsIn('Odile 灯笼 Marsh')).toBe(3)
  // 17 Chinese characters take four seconds, 119 Japanese ones twenty; words between them count as ever.
  expect(readAloud('灯'.repeat(17))).toBeCloseTo(4, 9)
  expect(readAloud('あ'.repeat(119))).toBeCloseTo(20, 9)
  expect(readAloud('Odile 灯 Marsh')).toBeCloseTo(2 / 2.5 + 60 / 255, 9)
  expect(readAloud('Odile Marsh')).toBeCloseTo(0.8, 9)
  expect(readAloud('… – !')).toBe(0)
})

describe('cards with a fault', () => {
  const engine = engineWithFonts()

  test.each([
    // Two in ten frames are five in a second of twenty-five.
    ['F7-loop10-2flashes', 'flashes', 'bad', /^5 flashes/],
    // Two before the seam and two after it.
    ['F9-seam-4', 'flashes', 'bad', /^4 flashes/],
    // Each half of the picture flashes five times, the other one against it.
    ['F6-halves-alternate', 'flashes', 'bad', /^[45] flashes/],
    ['C10-op75-outside', 'overflow', 'bad', /beyond the frame/],
    ['C10-op75-outside', 'contrast', 'bad', /^2\.1 : 1 over black, /],
    ['C2-80-20', 'contrast', 'bad', /^1\.0 : 1 over black at “H”, /],
    ['C7b-op85-white-on-white', 'contrast', 'bad', /^1\.0 : 1 over black, /],
    ['G3-glyph-late', 'missing', 'bad', /漢/],
    ['R2-cjk', 'reading', 'bad', /two readings take 8\.5 s/],
    ['R3-span12of200', 'reading', 'bad', /^The words stand for 0\.5 s/],
    ['R6-thai', 'reading', 'bad', /two readings take 5\.6 s/],
    ['S5-moves-out-between', 'safe', 'look', /on its way/],
  ])('%s: %s is %s', async (name, check, verdict, message) => {
    const card = expectCard(JSON.parse(readFileSync(`tests/reference/faults/proof/${name}.card.json`, 'utf8')))
    const { lines } = await proofOf(card, (work) => Promise.resolve(work(engine)))
    const line = lines.find((one) => one.check === check)!
    expect([line.verdict, line.findings[0]?.message]).toEqual([verdict, expect.stringMatching(message)])
  })

  test('what is played once does not go round', () => {
    const lit = (values: number[]) =>
      values.map((v) => ({ luminance: new Float32Array(4).fill(v), red: new Float32Array(4) }))
    const values = [1, 0, 1, 0, ...new Array(40).fill(0), 1, 0, 1, 0] as number[]
    expect(flashesIn(lit(values), 25).general).toBeLessThanOrEqual(2)
    expect(flashesIn(lit(values), 25, true).general).toBeGreaterThanOrEqual(3)
  })
})
