import { createHash } from 'node:crypto'
import { STANDSTILL } from '#core/values/moment'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Card, Coat } from '#core/card/schema'
import type { Parameter } from '#core/values/parameter-kinds'
import type { CoatDefinition } from '#core/coats/definition'
import { COATS } from '#core/coats/table'
import { reachOf, laidCoats } from '#core/frame/laid-coats'
import { endsOf, gradient } from '../support/ends'
import { coat, emptyCard, engineWithFonts, withBox, withType } from '../support/engine'

// What holds for every kind of coat, read from the table of kinds: a new kind is tested as soon as it is listed.

const engine = engineWithFonts()

const sidesOf = ({ parameters }: CoatDefinition): (string | undefined)[] =>
  parameters.side?.type === 'choice' ? parameters.side.options.map(({ value }) => value) : [undefined]

const BOX = { width: 60, height: 46, radius: 10, rotation: 11, x: 100, y: 76 }

function cardWith(definition: CoatDefinition, values: Record<string, unknown>, on = emptyCard(208, 160)): Card {
  const laid = coat(definition.kind, 'c', values)
  const coats = definition.group(values) === 'face' ? { face: [laid] } : { behind: [laid] }
  return withBox(on, BOX, coats)
}

/** Premultiplied RGBA floats of the last frame, before anything is rounded. */
function floats(card: Card, bits: 8 | 16 = 16) {
  const picture = engine.render(card, 0, { bits })
  const canvas = engine['canvas']!
  return { picture, w: canvas.layers.w, h: canvas.layers.h, values: engine['kernels'].rgba(canvas.layers) }
}

const cases = COATS.flatMap((definition) =>
  sidesOf(definition).map((side) => [definition.kind, side ?? '', definition, side] as const),
)

describe.each(cases)('%s %s', (_kind, _side, definition, side) => {
  const base = side === undefined ? {} : { side }

  test('every parameter at its ends gives finite pixels with colours within their alpha, alpha in 0..1', () => {
    for (const [name, parameter] of Object.entries(definition.parameters)) {
      if (name === 'side') continue
      for (const value of endsOf(parameter)) {
        const { values } = floats(cardWith(definition, { ...base, ...needed(parameter), [name]: value }))
        let bad = 0
        for (let i = 0; i < values.length; i += 4) {
          const a = values[i + 3]!
          for (let c = 0; c < 4; c++) {
            const v = values[i + c]!
            // Sums of rounded products may pass the end by a few units in the last place.
            if (!(v >= -1e-6 && v <= 1 + 1e-5)) bad++
            if (c < 3 && v > a + 1e-5) bad++
          }
        }
        expect([name, JSON.stringify(value), bad]).toEqual([name, JSON.stringify(value), 0])
      }
    }
  })

  test('lays nothing outside its declared reach', () => {
    const length = fc.integer({ min: 0, max: 40 })
    fc.assert(
      fc.property(
        fc.array(length, { minLength: 8, maxLength: 8 }),
        fc.integer({ min: 0, max: 359 }),
        (sizes, angle) => {
          const values: Record<string, unknown> = { ...base }
          let next = 0
          for (const [name, parameter] of Object.entries(definition.parameters)) {
            if (parameter.type === 'length') values[name] = Math.max(parameter.min, sizes[next++ % sizes.length]!)
            if (name === 'direction' || name === 'azimuth') values[name] = angle
            if (name === 'ownDirection' || name === 'ownLight') values[name] = true
          }
          const card = cardWith(definition, values)
          const { values: pixels, w, h } = floats(card)
          const outline = engine.outlook(card, 0)[0]!.corners
          const xs = outline.map(({ x }) => x)
          const ys = outline.map(({ y }) => y)
          const scale = {
            px: (value: number | { value: number }) => (typeof value === 'number' ? value : (value.value / 100) * 46),
            light: { azimuth: 120, elevation: 45 },
            innerDepth: () => 23,
            extent: { w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) },
          }
          const reach = reachOf(laidCoats(card.pieces[0]!, STANDSTILL), scale)
          let beyond = 0
          for (let y = 0; y < h; y++) {
            for (let x = 0; x < w; x++) {
              if (pixels[(y * w + x) * 4 + 3] === 0) continue
              if (x + 1 < Math.min(...xs) - reach.left || x > Math.max(...xs) + reach.right) beyond++
              if (y + 1 < Math.min(...ys) - reach.top || y > Math.max(...ys) + reach.bottom) beyond++
            }
          }
          expect(beyond).toBe(0)
        },
      ),
      { numRuns: 12 },
    )
  })

  test('gives the same bytes in one piece or in tiles', () => {
    const lengths = Object.entries(definition.parameters).filter(([, { type }]) => type === 'length')
    const soft = Object.fromEntries(lengths.map(([name], i) => [name, 9 + 7 * i]))
    const grain = definition.parameters.grain ? { grain: 40 } : {}
    const paint = definition.parameters.paint ? { paint: gradient('radial') } : {}
    const card = cardWith(definition, { ...base, ...soft, ...grain, ...paint })
    const whole = engine.render(card, 0)
    for (const region of [
      { x: 0, y: 0, w: 64, h: 160 },
      { x: 64, y: 0, w: 144, h: 64 },
      { x: 64, y: 64, w: 144, h: 96 },
    ]) {
      const tile = engine.render(card, 0, { region })
      expect(hashOf(tile.pixels)).toBe(hashOf(cut(whole, region)))
    }
  })

  if (side === 'inside') {
    test('lays nothing outside the edge', () => {
      const { values, w } = floats(cardWith(definition, base))
      const middle = 76 * w
      for (let x = 0; x < 60; x++) expect(values[(middle + x) * 4 + 3]).toBe(0)
    })
  }

  test('on type, on a piece of no size and on a piece far off the card: something, nothing, nothing', () => {
    const laid = coat(definition.kind, 'c', base)
    const coats = definition.group(base) === 'face' ? { face: [laid] } : { behind: [laid] }
    const visible = (card: Card) => engine.render(card, 0).pixels.some((value) => value > 0)
    expect(visible(withType(emptyCard(256, 192), { size: 150, wording: 'Q', font: 'lobster' }, coats))).toBe(true)
    expect(visible(withBox(emptyCard(64, 64), { width: 0, height: 0 }, coats))).toBe(false)
    expect(visible(withBox(emptyCard(64, 64), { x: 50_000 }, coats))).toBe(false)
    expect(visible(withType(emptyCard(64, 64), { wording: ' \n ' }, coats))).toBe(false)
  })
})

/** What must be set so that a parameter counts at all. */
const needed = ({ when }: Parameter): Record<string, unknown> =>
  when && 'is' in when ? { [when.parameter]: when.is[0] } : {}

const hashOf = (pixels: Uint8Array) => createHash('sha256').update(pixels).digest('hex')

function cut(
  { width, pixels }: { width: number; pixels: Uint8Array },
  { x, y, w, h }: { x: number; y: number; w: number; h: number },
): Uint8Array {
  const out = new Uint8Array(w * h * 4)
  for (let row = 0; row < h; row++) {
    const from = ((y + row) * width + x) * 4
    out.set(pixels.subarray(from, from + w * 4), row * w * 4)
  }
  return out
}

describe('coats together', () => {
  const solid = (colour: string) => ({ type: 'solid', colour })
  const laid = (...coats: Coat[]) =>
    withType(emptyCard(640, 192), { size: 150, wording: 'Regatta', font: 'lobster' }, { face: coats })

  test('a stroke never shows a gap to the face: one colour over both is one flat shape', () => {
    for (const join of ['round', 'mitre', 'bevel']) {
      const stroke = { join, paint: solid('#FFFFFF') }
      const both = laid(coat('fill', 'f', { paint: solid('#FFFFFF') }), coat('stroke', 's', { ...stroke, width: 6 }))
      // A stroke of 8 px across the edge reaches 4 px beyond it: all that it covers wholly, both must cover wholly.
      const across = floats(laid(coat('stroke', 's', { ...stroke, width: 8, side: 'across' }))).values.slice()
      const { values } = floats(both)
      let gaps = 0
      for (let i = 3; i < values.length; i += 4) if (across[i]! > 0.999 && values[i]! < 0.999) gaps++
      expect(gaps).toBe(0)
    }
  })

  test('stacked strokes follow on each other without a seam', () => {
    const stacked = [10, 15, 5].map((width, i) =>
      coat('stroke', `s${i}`, { width, stacked: i > 0, paint: solid('#FFFFFF') }),
    )
    const one = coat('stroke', 's', { width: 30, paint: solid('#FFFFFF') })
    const a = floats(laid(...stacked)).values.slice()
    const b = floats(laid(one)).values
    let worst = 0
    for (let i = 3; i < b.length; i += 4) worst = Math.max(worst, Math.abs(a[i]! - b[i]!))
    expect(worst).toBeLessThan(2 / 255)
  })

  test('order in the stack decides, across the face line too', () => {
    const red = coat('fill', 'r', { paint: solid('#FF0000') })
    const blue = coat('fill', 'b', { paint: solid('#0000FF') })
    const middle = (card: Card) => {
      const { picture } = floats(card, 8)
      const at = (76 * 208 + 100) * 4
      return [...picture.pixels.subarray(at, at + 3)]
    }
    expect(middle(withBox(emptyCard(208, 160), BOX, { face: [red, blue] }))).toEqual([255, 0, 0])
    expect(middle(withBox(emptyCard(208, 160), BOX, { face: [blue], behind: [red] }))).toEqual([0, 0, 255])
    expect(middle(withBox(emptyCard(208, 160), BOX, { behind: [red] }))).toEqual([255, 0, 0])
  })
})
