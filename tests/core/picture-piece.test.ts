import { describe, expect, test } from '@jest/globals'
import { createPiece } from '#core/card/create'
import { readCard } from '#core/card/read'
import { picturesOf } from '#core/card/tree'
import { withPictures } from '#core/edit/pictures'
import { paintSchema } from '#core/values/paints'
import type { Card, Piece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { toDisplay } from '#core/values/oklab'
import { coat, emptyCard, pixelAt, solid, withBox } from '../support/engine'

const ID = 'picture-0123456789abcdef'

/** Left half red, right half clear. */
function half(width: number, height: number) {
  const pixels = new Uint8Array(width * height * 4)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width / 2; x++) pixels.set([200, 40, 20, 255], (y * width + x) * 4)
  }
  return { width, height, pixels }
}

function engineWith(picture = half(80, 40)): Engine {
  const engine = new Engine()
  engine.pictures.add(ID, picture)
  return engine
}

const holding = (values: object, coats: Partial<Piece['coats']> = {}, more: Partial<Card> = {}): Card => {
  const card = { ...emptyCard(200, 120), ...more }
  const piece = { ...createPiece('picture', card), picture: ID, width: 80, height: 40, x: 100, y: 60, ...values }
  return { ...card, pieces: [{ ...piece, coats: { face: [], behind: [], ...coats } } as Piece] }
}

describe('a picture as a piece', () => {
  test('its pixels lie in the middle of its place, one to one to the byte', () => {
    const picture = engineWith().render(holding({}), 0)
    const at = (x: number, y: number) => pixelAt(picture, x, y).map((v) => Math.round(v * 255))
    expect(at(60, 40)).toEqual([200, 40, 20, 255])
    expect(at(98, 79)).toEqual([200, 40, 20, 255])
    expect(at(59, 60)[3]).toBe(0)
    expect(at(110, 60)[3]).toBe(0)
    expect(at(70, 39)[3]).toBe(0)
  })

  test('a stroke follows its alpha, not its frame', () => {
    const card = holding({}, { face: [coat('stroke', 'stroke-1', { width: 6, paint: solid('#00FF00') })] })
    const picture = engineWith().render(card, 0)
    expect(pixelAt(picture, 103, 60)).toEqual([0, 1, 0, 1])
    expect(pixelAt(picture, 56, 60)).toEqual([0, 1, 0, 1])
    // Beyond the clear half there is nothing to line.
    expect(pixelAt(picture, 143, 60)[3]).toBe(0)
  })

  test('stretched, it fills its box', () => {
    const picture = engineWith().render(holding({ width: 160, height: 20 }), 0)
    expect(pixelAt(picture, 22, 60)[3]).toBe(1)
    expect(pixelAt(picture, 96, 52)[3]).toBe(1)
    expect(pixelAt(picture, 60, 48)[3]).toBe(0)
  })

  test('marked as linear light it comes out as bright as that light', () => {
    const picture = engineWith().render(holding({ linear: true }), 0)
    const [red] = pixelAt(picture, 70, 60)
    expect(Math.abs(red! - toDisplay(200 / 255)) * 255).toBeLessThanOrEqual(1)
  })

  test('one engine draws it in a card of display light and in one of linear light by turns, each as a new engine does', () => {
    const soft = { width: 60, height: 30, rotation: 10 }
    const [display, linear] = [holding(soft), holding(soft, {}, { blending: 'linear' })]
    const [marked, laid] = [holding({ ...soft, linear: true }), holding(soft, {}, { background: solid('#204060') })]
    // Two colours beside each other: what lies between them depends on the light that they are mixed in.
    const two = half(80, 40)
    for (let i = 0; i < two.pixels.length; i += 4) if (two.pixels[i + 3] === 0) two.pixels.set([10, 200, 90, 255], i)
    const one = engineWith(two)
    const alone = new Map(
      [display, linear, marked, laid].map((card) => [card, engineWith({ ...two }).render(card, 0).pixels]),
    )
    for (const card of [display, linear, display, marked, laid, linear, marked]) {
      expect(one.render(card, 0).pixels).toEqual(alone.get(card))
    }
    expect(alone.get(display)).not.toEqual(alone.get(linear))
    expect(alone.get(display)).not.toEqual(alone.get(marked))
  })

  test('in tiles it is the same to the byte; without a file it shows nothing; a missing one is named', () => {
    const card = holding({ rotation: 20 }, { behind: [coat('shadow', 'shadow-1')] })
    const whole = engineWith().render(card, 0)
    const tile = engineWith().render(card, 0, { region: { x: 64, y: 0, w: 64, h: 120 } })
    for (let y = 0; y < 120; y++) {
      const from = (y * 200 + 64) * 4
      expect(tile.pixels.subarray(y * 256, y * 256 + 256)).toEqual(whole.pixels.subarray(from, from + 256))
    }
    const none = { ...holding({ picture: null }) }
    expect(readCard(none).faults).toBeNull()
    expect(
      engineWith()
        .render(none, 0)
        .pixels.every((v) => v === 0),
    ).toBe(true)
    expect(() => new Engine().render(holding({}), 0)).toThrow('is not here')
  })
})

test('pictures get other names wherever a card names them: pieces in groups, paints and the background', () => {
  const [old, other, fresh] = ['picture-00000000000000aa', 'picture-00000000000000bb', 'picture-00000000000000cc']
  const paint = (picture: string) => paintSchema.parse({ type: 'texture', pattern: 'picture', picture })
  const own = { ...createPiece('picture', emptyCard(64, 64)), id: 'own', picture: old } as Piece
  const group = { ...createPiece('group', emptyCard(64, 64)), id: 'all', pieces: [own] } as Piece
  const filled = withBox(emptyCard(64, 64), {}, { face: [coat('fill', 'f', { paint: paint(old) as never })] })
  const card = { ...filled, background: paint(other), pieces: [group, ...filled.pieces] } as Card
  const renamed = withPictures(card, new Map([[old, fresh]]))
  expect(picturesOf(card).sort()).toEqual([old, other])
  expect(picturesOf(renamed).sort()).toEqual([other, fresh])
  expect(withPictures(renamed, new Map([[fresh, old]]))).toEqual(card)
})
