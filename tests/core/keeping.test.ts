import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { BoxPiece, Card } from '#core/card/schema'
import type { View } from '#core/frame/engine'
import { Engine } from '#core/frame/engine'
import { Kept } from '#core/kept'
import { SHIPPED_FONTS } from '#core/type/families'
import { withDemoSequences } from '../support/demo-sequences'
import { coat, DEMO_CARDS, demoCard, emptyCard, fontBytes, solid, withBox, withType } from '../support/engine'

function engine(keeps: boolean): Engine {
  const made = new Engine(undefined, undefined, { keeps })
  for (const { id } of SHIPPED_FONTS) made.fonts.add(id, fontBytes(id))
  return made
}

/** Two pieces that stand still before all others of a card, and one that is multiplied with them. */
function inFront(card: Card, x: BoxPiece['x'] = 100): Card {
  const coats = (n: number) => ({
    face: [coat('bevel', `bevel-${n}`, { width: 6 }), coat('fill', `fill-${n}`, { paint: solid('#1E6B6AD0') })],
    behind: [coat('shadow', `cast-${n}`, { distance: 7, softness: 9, knockOut: false })],
  })
  const plate = withBox(card, { id: 'plate', x, y: 50, width: 90.3, height: 50, opacity: 70 }, coats(1))
  const words = withType(plate, { id: 'quay', x: 110, y: 66, wording: 'Quay', size: 40, rotation: 3 }, coats(2))
  return withBox(words, { id: 'dark', x: 150, y: 60, width: 40, height: 90, blend: 'multiply' }, coats(3))
}

/** The demo's cards, and one whose lower pieces stand still for some frames while others move, fade, and come and go. */
function cards(): Card[] {
  const box = (id: string, values: object) => ({ id, width: 60, height: 40, ...values })
  const coats = {
    face: [coat('fill', 'f', { paint: solid('#E2683CC0') })],
    behind: [coat('shadow', 's', { distance: 5, softness: 8 })],
  }
  const named = (suffix: string) => ({
    face: coats.face.map((one) => ({ ...one, id: `${one.id}${suffix}` })),
    behind: coats.behind.map((one) => ({ ...one, id: `${one.id}${suffix}` })),
  })
  const still = withBox(emptyCard(256, 160, 12), box('still', { x: 60, y: 60 }), named('-1'))
  const coming = withBox(still, box('coming', { x: 120, y: 80, span: { in: 3, out: 8 }, rotation: 20 }), named('-2'))
  const holding = withBox(
    coming,
    box('holding', {
      x: {
        keys: [
          { frame: 0, value: 90 },
          { frame: 3, value: 150 },
          { frame: 9, value: 150 },
        ],
      },
      y: 70,
    }),
    named('-3'),
  )
  const words = withType(
    holding,
    {
      id: 'words',
      wording: 'Regatta',
      size: 44,
      x: 128,
      y: 120,
      opacity: {
        keys: [
          { frame: 0, value: 40 },
          { frame: 6, value: 90 },
        ],
      },
    },
    named('-4'),
  )
  const plain = { ...words, background: solid('#182538') }
  return [
    ...DEMO_CARDS.map(demoCard),
    words,
    inFront(words),
    { ...inFront(plain), blending: 'linear' },
    plain,
    { ...plain, blending: 'linear' },
    { ...words, shutter: { angle: 180, phase: 0 } },
  ]
}

const ALL = cards()

test('what is computed beyond a tile changes no bit of it, where areas lie between two steps', () => {
  const card = demoCard('05-names')
  const view: View = { scale: 0.15, bits: 16, region: { x: 64, y: 64, w: 64, h: 64 } }
  const alone = engine(false).render(card, 2, view)
  for (const beyond of [64, 128])
    expect(engine(false).render(card, 2, { ...view, beyond }).pixels).toEqual(alone.pixels)
})

describe('what is kept between frames', () => {
  const kept = engine(true)
  const fresh = engine(false)

  test('never changes a byte, whatever was rendered before and into which pixels', () => {
    let reuse: Uint8Array<ArrayBuffer> | undefined
    const step = fc.record({
      card: fc.nat(ALL.length - 1),
      // Neighbours, the same frame again, and leaps.
      frame: fc.oneof(fc.integer({ min: 0, max: 11 }), fc.nat(150)),
      times: fc.integer({ min: 1, max: 3 }),
      bits: fc.constantFrom<8 | 16>(8, 16),
      tile: fc.boolean(),
      draft: fc.boolean(),
      beyond: fc.constantFrom(0, 30, 128),
      again: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(step, { minLength: 2, maxLength: 4 }), (steps) => {
        for (const { card: index, frame, times, bits, tile, draft, again, beyond } of steps) {
          const card = ALL[index]!
          const scale = card.frame.width > 400 ? 0.15 : 1
          const region = tile ? { x: 64, y: 64, w: 64, h: 64 } : null
          for (let i = 0; i < times; i++) {
            const view: View = { scale, bits, draft, ...(region ? { region } : {}) }
            const more = { ...view, beyond, ...(again && reuse ? { reuse } : {}) }
            const picture = withDemoSequences(kept, () => kept.render(card, frame + i, more))
            const bare = withDemoSequences(fresh, () => fresh.render(card, frame + i, view))
            expect(Buffer.from(picture.pixels).equals(Buffer.from(bare.pixels))).toBe(true)
            reuse = picture.pixels
          }
        }
      }),
      { numRuns: 60, seed: 9 },
    )
  })

  test('a frame computed beyond its edges, and cut, is the same frame', () => {
    // Blurs and shadows come in from pieces that stand outside.
    const card = withBox(
      emptyCard(120, 90, 10),
      { x: -20, y: 45, width: 60, height: 50, rotation: 12 },
      { face: [coat('fill', 'f', { paint: solid('#E2683C') })], behind: [coat('glow', 'g', { reach: 30 })] },
    )
    for (const shown of [card, { ...card, background: solid('#182538') }]) {
      for (const region of [undefined, { x: 0, y: 0, w: 64, h: 64 }, { x: 64, y: 64, w: 56, h: 26 }]) {
        const view = { bits: 16, ...(region ? { region } : {}) } as const
        const plain = Buffer.from(fresh.render(shown, 0, view).pixels)
        for (const beyond of [1, 64, 200]) {
          expect(Buffer.from(fresh.render(shown, 0, { ...view, beyond }).pixels).equals(plain)).toBe(true)
        }
      }
    }
  })

  test('the widest blurs are the same in tiles', () => {
    const shadow = coat('shadow', 's', { side: 'outside', distance: 0, softness: 1000, knockOut: false })
    const card = withBox(
      emptyCard(512, 320, 10),
      { x: 250, y: 150, width: 300, height: 210, scale: 100 },
      { face: [], behind: [shadow, coat('shadow', 't', { side: 'outside', softness: 640, knockOut: false })] },
    )
    const whole = fresh.render(card, 0, { bits: 16 }).pixels
    for (const region of [
      { x: 64, y: 64, w: 128, h: 64 },
      { x: 320, y: 192, w: 192, h: 128 },
    ]) {
      const tile = fresh.render(card, 0, { bits: 16, region }).pixels
      for (let y = 0; y < region.h; y++) {
        const from = ((region.y + y) * 512 + region.x) * 8
        const row = Buffer.from(whole.subarray(from, from + region.w * 8))
        expect(row.equals(Buffer.from(tile.subarray(y * region.w * 8, (y + 1) * region.w * 8)))).toBe(true)
      }
    }
  })

  test('neighbours that stand still before what moves are laid as one, where they would lie one by one', () => {
    const words = ALL.find(({ pieces }) => pieces[0]!.id === 'dark')!
    // One key makes a piece one that moves, wherever it stands.
    const single = { ...inFront({ ...words, pieces: words.pieces.slice(3) }, { keys: [{ frame: 0, value: 100 }] }) }
    for (const frame of [0, 2, 5]) {
      const [one, other] = [words, single].map((card) => {
        const { pixels } = fresh.render(card, frame, { bits: 16 })
        return new Uint16Array(pixels.buffer)
      })
      let farthest = 0
      one!.forEach((value, i) => (farthest = Math.max(farthest, Math.abs(value - other![i]!))))
      expect(farthest).toBeLessThanOrEqual(2)
    }
  })

  test.each([
    ['', (pixels: Uint8Array<ArrayBuffer>) => pixels],
    [
      ', nor in pixels that come back from another thread',
      (pixels: Uint8Array<ArrayBuffer>, own: Engine) => {
        const back = structuredClone(pixels, { transfer: [pixels.buffer] })
        own.cameBack(pixels, back)
        return back
      },
    ],
  ])('what lies still at the back is not laid again%s', (_, sent) => {
    const card = ALL.find(({ background }) => background?.type === 'solid')!
    const own = engine(true)
    const frames = [3, 4, 5, 6].map((frame) => own.render(card, frame).pixels)
    const bare = engine(false).render(card, 7).pixels
    // The words alone fade then: what is written anew is their box, and this pixel lies beyond it.
    const reuse = sent(frames.at(-1)!, own)
    reuse[0] = bare[0]! ^ 1
    const { pixels } = own.render(card, 7, { reuse })
    expect(pixels[0]).toBe(bare[0]! ^ 1)
    expect(Buffer.from(pixels.subarray(1)).equals(Buffer.from(bare.subarray(1)))).toBe(true)
  })
})

describe('a memory of what was made', () => {
  test('gives what it holds, and lets go of what was not asked for longest, within its budget', () => {
    const kept = new Kept<string, string>(10, (value) => value.length)
    let made = 0
    const ask = (key: string, value: string) =>
      kept.of(key, () => {
        made++
        return value
      })
    ask('a', 'aaaa')
    ask('b', 'bbbb')
    ask('a', '?')
    ask('c', 'cccc')
    expect([made, kept.size]).toEqual([3, 2])
    expect([ask('a', '?'), ask('c', '?')]).toEqual(['aaaa', 'cccc'])
    expect(ask('b', 'anew')).toBe('anew')
    // Heavier than all that may be kept: made each time, and nothing is lost for it.
    expect(ask('d', 'far too heavy')).toBe('far too heavy')
    expect(ask('d', 'again too heavy')).toBe('again too heavy')
    expect(ask('b', '?')).toBe('anew')
  })

  test('never holds more than its budget, for any order of asking', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(9), fc.integer({ min: 1, max: 40 })), { maxLength: 80 }), (asked) => {
        const weights = new Map<number, number>()
        const kept = new Kept<number, number>(100, (weight) => weight)
        for (const [key, weight] of asked) {
          const value = kept.of(key, () => weight)
          if (value === weight) weights.set(key, weight)
          expect(value).toBe(weights.get(key))
        }
        expect(kept.size).toBeLessThanOrEqual(10)
      }),
    )
  })
})
