import { describe, expect, test } from '@jest/globals'
import { readCard, readCardText } from '#core/card/read'
import { WaxError } from '#core/errors'
import { oddPlace } from '#core/documents/odd-json'
import { isPathData } from '#core/outline/svg-path'
import { Engine } from '#core/frame/engine'
import { Kernels } from '#core/kernels/kernels'
import { isEasing } from '#core/values/easing'
import { bezierOf, reversedEasing } from '#core/values/easing-shapes'
import { PictureBook } from '#core/paint/pictures'
import { FontBook } from '#core/type/font-book'
import { coat, emptyCard, fontBytes, withBox, withType } from '../support/engine'
import { letterRange } from '../support/ranges'

// Documents that are meant badly: each is refused with a place, and nothing hangs or falls.

const card = withBox(emptyCard(64, 64), { name: 'Box' }, { face: [coat('fill', 'f')] })
const named = (name: string) => readCard({ ...card, pieces: [{ ...card.pieces[0], name }] }).faults?.[0]

describe('text that cannot be kept', () => {
  test('NUL and halves of pairs are told with their place; whole pairs are text', () => {
    expect(named('a\0b')).toMatchObject({ code: 'odd-text', place: 'pieces[0].name' })
    expect(named('a\ud83d')).toMatchObject({ code: 'odd-text', place: 'pieces[0].name' })
    expect(named('\udc00b')).toMatchObject({ code: 'odd-text' })
    expect(named('a\u{1f6a3}b')).toBeUndefined()
    expect(oddPlace({ 'a\0': 1 })).toMatchObject({ code: 'odd-text' })
  })
})

test('groups without an end are refused, not followed', () => {
  for (const depth of [100, 5000]) {
    const open = '{"kind":"group","id":"g","name":"g","pieces":['.repeat(depth)
    const text = JSON.stringify({ ...card, pieces: [] }).replace(
      '"pieces":[]',
      `"pieces":[${open}${']}'.repeat(depth)}]`,
    )
    expect(readCardText(text).faults?.[0]).toMatchObject({ code: 'too-deep' })
  }
})

test.each(['constructor', '__proto__', 'toString', 'cubic-bezier(0, 1e999, 1, 1)', 'linear(0, 1e400)', 'steps(1e9)'])(
  'no easing: %s',
  (text) => {
    expect(isEasing(text)).toBe(false)
    expect(bezierOf(text)).toBeNull()
    expect(typeof reversedEasing(text)).toBe('string')
  },
)

test.each(['M0 0 q 1e200 1e200 0 0', 'M 0 0 C 1e12 1e12 -1e12 1e12 0 100 Z', 'M 0 0 L 1e7 0'])(
  'no path: %s',
  (text) => {
    expect(isPathData(text)).toBe(false)
  },
)

test('a curve as wide as paths go, enlarged as far as pieces go, is drawn', () => {
  const path = { kind: 'path', id: 'p', name: 'p', x: 32, y: 32, scale: 10_000, thickness: 0 }
  const faces = { face: [{ kind: 'fill', id: 'f' }], behind: [] }
  const read = readCard({ ...card, pieces: [{ ...path, path: 'M-1e6 0 C-1e6 1e6 1e6 1e6 1e6 0 Z', coats: faces }] })
  const { pixels } = new Engine().render(read.card!, 0)
  expect(pixels[3 + (60 * 64 + 32) * 4]).toBe(255)
})

test('a frame for which there is no memory leaves the engine whole', () => {
  const engine = new Engine()
  const { pixels } = engine.render(card, 0)
  const kernels = engine['kernels']
  const layers = kernels.layers.bind(kernels)
  kernels.layers = () => {
    throw new WaxError('out-of-memory', 'card', 'No more.', 'Smaller.')
  }
  expect(() => engine.render({ ...card, frame: { width: 640, height: 640 } }, 0)).toThrow('No more.')
  kernels.layers = layers
  expect(engine.render(card, 0).pixels).toEqual(pixels)
})

test('memory that is not there is one clear word, and the next picture is made', () => {
  const kernels = new Kernels()
  const mark = kernels.mark()
  expect(() => kernels.plane(40_000, 40_000)).toThrow(
    expect.objectContaining({ fault: expect.objectContaining({ code: 'out-of-memory' }) }),
  )
  expect(kernels.mark()).toBe(mark)
  const plane = kernels.plane(64, 16, 0.5)
  expect(kernels.floats(plane)[63]).toBe(0.5)
})

test('a picture on many moving letters is held once, not for each of them', () => {
  const pictures = new PictureBook()
  // 64 MB as floats: for two dozen letters one by one 1.5 GB.
  const id = 'picture-0123456789abcdef'
  pictures.add(id, { width: 2000, height: 2000, pixels: new Uint8Array(2000 * 2000 * 4).fill(200) })
  const engine = new Engine(new FontBook(), pictures)
  engine.fonts.add('anton', fontBytes('anton'))
  const paint = { type: 'texture', pattern: 'picture', picture: id }
  const ranges = [{ ...letterRange({ y: 40, sweep: 30 }), id: 'range-1' }]
  const words = withType(
    emptyCard(640, 120),
    { wording: 'abcdefghijklmnopqrstuvwx', font: 'anton', size: 40, x: 320, y: 60, ranges },
    { face: [coat('fill', 'f', { paint })] },
  )
  const read = readCard(words)
  expect(read.faults).toBeNull()
  const before = engine.memory
  const { pixels } = engine.render(read.card!, 0)
  expect(pixels.some((value) => value > 0)).toBe(true)
  expect(engine.memory - before).toBeLessThan(200 * 1024 * 1024)
})
