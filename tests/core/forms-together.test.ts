import { describe, expect, test } from '@jest/globals'
import type { BoxPiece, Card, EllipsePiece, Piece, TypePiece } from '#core/card/schema'
import { expectCard, readCard } from '#core/card/read'
import { linkFault } from '#core/card/links'
import { drawFreehand } from '#core/edit/freehand'
import { groupPieces, ungroupPiece } from '#core/edit/grouping'
import { duplicatePiece, pastePieces } from '#core/edit/stack'
import { stretchPiece } from '#core/edit/stretch'
import { addStep } from '#core/edit/steps'
import { toggleWoven } from '#core/edit/type-parts'
import { allPieces } from '#core/card/tree'
import { coat, coveredArea, emptyCard, engineWithFonts, pixelAt, solid, step, withPiece } from '../support/engine'

const engine = engineWithFonts()
/** The largest difference of two pictures, of 255. */
const farthest = (a: { pixels: Uint8Array }, b: { pixels: Uint8Array }) =>
  a.pixels.reduce((most, v, i) => Math.max(most, Math.abs(v - b.pixels[i]!)), 0)
const boundsOf = (card: Card, id: string, frame = 0) =>
  engine.outlook(card, frame).find((entry) => entry.id === id)!.bounds
const fill = (id: string, colour: string) => ({ face: [coat('fill', id, { paint: solid(colour) })] })

function lowerThird(values: Partial<BoxPiece> = {}, wording: TypePiece['wording'] = 'Mara'): Card {
  let card = emptyCard(900, 300)
  const bar = { id: 'bar', fitTo: ['name'], padLeft: 20, padRight: 30, padTop: 10, padFoot: 12, ...values }
  card = withPiece<BoxPiece>(card, 'box', bar, fill('bar-fill', '#1E6B6A'))
  const name = { id: 'name', x: 300, y: 150, size: 60, font: 'anton', wording }
  return expectCard(withPiece<TypePiece>(card, 'type', name, fill('name-fill', '#FFFFFF')))
}

describe('fit', () => {
  test('the bar is what the words span, with its padding, whatever they are and wherever they move', () => {
    for (const wording of ['Mara', 'Bartholomew Quillfeather', 'y']) {
      const card = lowerThird({ fitBy: 'ink' }, wording)
      const [words, bar] = [boundsOf(card, 'name'), boundsOf(card, 'bar')]
      expect(bar.left).toBeCloseTo(words.left - 20, 3)
      expect(bar.right).toBeCloseTo(words.right + 30, 3)
      expect(bar.top).toBeCloseTo(words.top - 10, 3)
      expect(bar.bottom).toBeCloseTo(words.bottom + 12, 3)
    }
    const keyed = {
      keys: [
        { frame: 0, value: 'Mara', easing: 'hold' },
        { frame: 25, value: 'Quillfeather' },
      ],
    }
    const card = lowerThird({}, keyed as TypePiece['wording'])
    const wide = (frame: number) => boundsOf(card, 'bar', frame).right - boundsOf(card, 'bar', frame).left
    expect(wide(30)).toBeGreaterThan(1.8 * wide(0))
  })

  test('by lines its height is the same for words with and without descenders', () => {
    const height = (wording: string) => {
      const { top, bottom } = boundsOf(lowerThird({ fitBy: 'lines' }, wording), 'bar')
      return bottom - top
    }
    expect(height('gyp')).toBeCloseTo(height('AXE'), 6)
  })

  test('of several pieces all that they span; a side of its own size stands at theirs', () => {
    const card = lowerThird()
    const two = withPiece<TypePiece>(card, 'type', {
      id: 'role',
      x: 420,
      y: 230,
      size: 30,
      font: 'anton',
      wording: 'Boat builder, Oxbow Quay',
    })
    const change = (values: Partial<BoxPiece>): Card => ({
      ...two,
      pieces: two.pieces.map((piece) => (piece.id === 'bar' ? ({ ...piece, ...values } as Piece) : piece)),
    })
    const both = change({ fitTo: ['name', 'role'], fitBy: 'ink', padLeft: 0, padRight: 0 })
    const [name, role, bar] = [boundsOf(both, 'name'), boundsOf(both, 'role'), boundsOf(both, 'bar')]
    expect([bar.left, bar.right]).toEqual([
      expect.closeTo(Math.min(name.left, role.left), 3),
      expect.closeTo(Math.max(name.right, role.right), 3),
    ])
    const accent = change({ fitTo: ['name'], fitBy: 'ink', fitWidth: false, width: 8, fitX: 'left', padLeft: 12 })
    expect(boundsOf(accent, 'bar').left).toBeCloseTo(boundsOf(accent, 'name').left - 12, 3)
    expect(boundsOf(accent, 'bar').right).toBeCloseTo(boundsOf(accent, 'name').left - 4, 3)
  })

  test('in a turned and scaled group it fits within the group', () => {
    const card = lowerThird({ fitBy: 'ink' })
    const grouped = groupPieces(card, ['name', 'bar'])
    const turned = {
      ...grouped.card,
      pieces: grouped.card.pieces.map((piece) => ({ ...piece, rotation: 30, scale: 70 }) as Piece),
    }
    const own = (id: string) => engine.outlook(expectCard(turned), 0).find((entry) => entry.id === id)!.own
    expect(own('bar').right - own('bar').left).toBeCloseTo(own('name').right - own('name').left + 50, 2)
  })

  test('circles, itself and what is gone are told and count for nothing; the rest goes on', () => {
    let card = lowerThird()
    card = withPiece<BoxPiece>(card, 'box', { id: 'other', fitTo: ['bar'], x: 100, y: 100 }, fill('o', '#FF0000'))
    const circular = {
      ...card,
      pieces: card.pieces.map((piece) =>
        piece.id === 'bar' ? ({ ...piece, fitTo: ['other', 'nobody', 'bar'] } as Piece) : piece,
      ),
    }
    expect(['other', 'nobody', 'bar', 'name'].map((id) => linkFault(circular, 'bar', id, 'bounds'))).toEqual([
      'circle',
      'missing',
      'circle',
      null,
    ])
    expect(coveredArea(engine.render(expectCard(circular), 0))).toBeGreaterThan(0)
  })

  test('copied together the copies fit each other; a bar copied alone still fits the words', () => {
    const card = lowerThird()
    const { card: pasted, ids } = pastePieces(card, card.pieces)
    const [name, bar] = ids.map((id) => pasted.pieces.find((piece) => piece.id === id)!)
    expect((bar as BoxPiece).fitTo).toEqual([name!.id])
    const alone = duplicatePiece(card, 'bar')
    expect((alone.card.pieces.find(({ id }) => id === alone.id) as BoxPiece).fitTo).toEqual(['name'])
  })
})

describe('weave', () => {
  const stroke = coat('stroke', 'ink', { width: 5, side: 'outside', paint: solid('#1B1420') })
  const look = (id: string) => ({
    face: [{ ...stroke, id: `${id}-s` }, coat('fill', `${id}-f`, { paint: solid('#FFF6EE') })],
  })
  const ring = (values: Partial<EllipsePiece>, card: Card) =>
    withPiece<EllipsePiece>(
      card,
      'ellipse',
      {
        id: 'ring',
        x: 250,
        y: 100,
        width: 420,
        height: 70,
        outlineSteps: [step('line', { thickness: 16 }, 'rl')],
        ...values,
      },
      fill('rf', '#E2683C'),
    )
  const word = (wording: string, id: string, x: number, card: Card, values: Partial<TypePiece> = {}) =>
    withPiece<TypePiece>(
      card,
      'type',
      { id, wording, x, y: 100, size: 110, font: 'anton', align: 'left', tracking: 200, ...values },
      look(id),
    )

  test('is what letters cut by hand give: the ticked ones in front of the ring, the others behind', () => {
    const woven = expectCard(
      ring({ weave: 'word', weaveLetters: '2 3' }, word('QUAY', 'word', 60, emptyCard(500, 200))),
    )
    const boxes = engine.outlook(woven, 0).find(({ id }) => id === 'word')!.type!.letters
    const at = (i: number) => 60 + boxes[i]!.corners[0]!.x
    let card = emptyCard(500, 200)
    for (const i of [0, 3]) card = word('QUAY'[i]!, `l${i}`, at(i), card)
    card = ring({}, card)
    for (const i of [1, 2]) card = word('QUAY'[i]!, `l${i}`, at(i), card)
    const [a, b] = [engine.render(woven, 0), engine.render(expectCard(card), 0)]
    // Edges that are half ring and half letter are mixed in another order: of 255.
    expect(farthest(a, b)).toBeLessThan(4)
  })

  test('follows letter motion and another wording; without ticks it lies in front', () => {
    const range = { id: 'r', name: 'R', on: true, y: -60, sweep: 0, form: 'arrive' }
    const base = word('QUAY', 'word', 60, emptyCard(500, 200), { ranges: [range as never] })
    const moved = expectCard(ring({ weave: 'word', weaveLetters: '1 2 3 4', y: 40 }, base))
    const letters = engine.render(moved, 0)
    const over = engine.render(expectCard(ring({ y: 40 }, base)), 0)
    expect(Buffer.from(letters.pixels).equals(Buffer.from(over.pixels))).toBe(false)
    const none = engine.render(expectCard(ring({ weave: 'word', y: 40 }, base)), 0)
    expect(Buffer.from(none.pixels).equals(Buffer.from(over.pixels))).toBe(true)
  })

  test('letters are ticked one by one, and again', () => {
    const card = ring({ weave: 'word' }, word('QUAY', 'word', 60, emptyCard(500, 200)))
    const behind = (one: Card) => one.pieces.find(({ id }) => id === 'ring')!.weaveLetters
    const tick = (one: Card, letter: number) =>
      toggleWoven(
        one,
        one.pieces.find(({ id }) => id === 'ring')!,
        letter,
        0,
      )
    const ticked = tick(tick(card, 2), 0)
    expect([behind(ticked), behind(tick(ticked, 2))]).toEqual(['1 3', '1'])
  })
})

describe('stretch', () => {
  test('acts on the outline: a stroke keeps its width, areas are those of geometry', () => {
    const area = (values: Partial<BoxPiece>, face = [coat('fill', 'f')]) =>
      coveredArea(
        engine.render(
          expectCard(withPiece<BoxPiece>(emptyCard(400, 300), 'box', { width: 80, height: 60, ...values }, { face })),
          0,
          { bits: 16 },
        ),
      )
    expect(area({ stretchX: 200, stretchY: 50 })).toBeCloseTo(160 * 30, 0)
    expect(area({ skew: 30 })).toBeCloseTo(80 * 60, 0)
    expect(area({ stretchX: -150, skew: 20, rotation: 33 })).toBeCloseTo(120 * 60, 0)
    const stroke = [coat('stroke', 's', { width: 6, side: 'outside', join: 'mitre' })]
    expect(area({ stretchX: 200 }, stroke)).toBeCloseTo(172 * 72 - 160 * 60, 0)
    expect(area({ stretchX: -200 }, stroke)).toBeCloseTo(172 * 72 - 160 * 60, 0)
  })

  test('of a group acts on the places and outlines of all that it holds; taken apart nothing changes', () => {
    let card = withPiece<BoxPiece>(
      emptyCard(400, 300),
      'box',
      { id: 'a', x: 150, y: 140, width: 60, height: 40, rotation: 25 },
      fill('fa', '#FF0000'),
    )
    card = withPiece<BoxPiece>(
      card,
      'box',
      { id: 'b', x: 240, y: 160, width: 40, height: 60, skew: 15 },
      fill('fb', '#00FF00'),
    )
    const grouped = groupPieces(card, ['a', 'b'])
    const stretched = {
      ...grouped.card,
      pieces: grouped.card.pieces.map(
        (piece) => ({ ...piece, stretchX: 130, stretchY: 70, skew: 12, rotation: 20 }) as Piece,
      ),
    }
    const whole = engine.render(expectCard(stretched), 0)
    const apart = ungroupPiece(stretched, grouped.id!, 0)
    const parts = engine.render(expectCard(apart.card), 0)
    expect(farthest(parts, whole)).toBeLessThan(3)
  })

  test('by hand: the other side stays where it is, whatever the turn', () => {
    const card = withPiece<BoxPiece>(emptyCard(400, 300), 'box', {
      id: 'a',
      width: 80,
      height: 60,
      rotation: 30,
      stretchX: 120,
      skew: 10,
    })
    const entry = engine.outlook(card, 0)[0]!
    const fixed = { x: entry.own.left, y: entry.own.top }
    const after = stretchPiece(card, entry, { x: 1.5, y: 1 }, fixed, 0)
    const moved = engine.outlook(after, 0)[0]!
    expect(after.pieces[0]!.stretchX).toBe(180)
    expect(moved.corners[0].x).toBeCloseTo(entry.corners[0].x, 1)
    expect(moved.corners[0].y).toBeCloseTo(entry.corners[0].y, 1)
  })

  test('a gradient that hangs on the piece is stretched with it', () => {
    const gradient = {
      type: 'linear',
      stops: [
        { at: 0, colour: '#000000' },
        { at: 100, colour: '#FFFFFF' },
      ],
    }
    const at = (stretchX: number, x: number) => {
      const card = withPiece<BoxPiece>(
        emptyCard(400, 100),
        'box',
        { width: 100, height: 60, stretchX },
        { face: [coat('fill', 'f', { paint: gradient })] },
      )
      return pixelAt(engine.render(expectCard(card), 0, { bits: 16 }), 200 + x, 50)[0]
    }
    expect(at(300, 90)).toBeCloseTo(at(100, 30), 2)
    expect(at(-300, -90)).toBeCloseTo(at(100, 30), 2)
  })
})

describe('letter motion in bands', () => {
  const range = (id: string, bands: string, x: number, sweep: number) =>
    ({ id, name: id, on: true, bands, x, sweep, form: 'arrive', spread: 100, ease: 'even' }) as never
  const card = (ranges: never[], steps = [step('slices', { number: 4 }, 'bands')]) =>
    expectCard(
      withPiece<TypePiece>(emptyCard(600, 200), 'type', {
        id: 'w',
        wording: 'QUAY',
        font: 'anton',
        size: 130,
        ranges,
        outlineSteps: steps,
      }),
    )

  test('at rest there is no edge between bands: the picture is that of words never cut, to the bit', () => {
    const still = card([range('a', '1 3', -200, 100), range('b', '2 4', 200, 100)])
    const plain = card([range('a', '', -200, 100), range('b', '', 200, 100)], [])
    expect(Buffer.from(engine.render(still, 0).pixels).equals(Buffer.from(engine.render(plain, 0).pixels))).toBe(true)
  })

  test('each range moves its own bands alone', () => {
    const rows = (one: Card) => {
      const { pixels } = engine.render(one, 0, { bits: 16 })
      const values = new Uint16Array(pixels.buffer)
      return Array.from({ length: 200 }, (_, y) => {
        let [sum, x0] = [0, 0]
        for (let x = 0; x < 600; x++) {
          const a = values[(y * 600 + x) * 4 + 3]! / 65535
          sum += a
          x0 += a * x
        }
        return sum > 20 ? x0 / sum : null
      })
    }
    const rest = rows(card([], []))
    const moved = rows(card([range('a', '1 3', -40, 0), range('b', '2 4', 40, 0)]))
    const shifts = new Set(moved.map((x, y) => (x === null || rest[y] === null ? 0 : Math.round(x - rest[y]!))))
    expect([shifts.has(-40), shifts.has(40)]).toEqual([true, true])
  })
})

describe('freehand', () => {
  const drawn = Array.from({ length: 120 }, (_, i) => {
    const a = (i / 119) * 5
    return { x: 200 + 120 * Math.cos(a), y: 150 + 80 * Math.sin(a), time: i * 10, pressure: null }
  })

  test('few points lie close to the line; pressure from the speed of the hand becomes a taper', () => {
    const slow = drawn.map((point, i) => ({ ...point, time: i < 60 ? i * 2 : 120 + (i - 60) * 30 }))
    const { card, id } = drawFreehand(emptyCard(400, 300), slow, 1.5)!
    const piece = allPieces(card.pieces).find((one) => one.id === id)!
    expect(readCard(card).faults).toBeNull()
    if (piece.kind !== 'path') throw new Error('no path')
    expect(String(piece.path).split('C').length).toBeLessThan(10)
    expect(piece.pressure[4]!).toBeLessThan(piece.pressure.at(-4)!)
    expect(piece.outlineSteps.map(({ kind, by }) => [kind, by])).toEqual([['taper', 'pressure']])
    const shown = engine.render(card, 0)
    for (const { x, y } of drawn.slice(5, -5))
      expect(pixelAt(shown, Math.floor(x), Math.floor(y))[3]).toBeGreaterThan(0.3)
  })

  test('a pen’s own pressure is kept; a line that comes home is a ring; a dot is nothing', () => {
    const ring = Array.from({ length: 100 }, (_, i) => {
      const a = (2 * Math.PI * i) / 99
      return { x: 200 + 100 * Math.cos(a), y: 150 + 100 * Math.sin(a), time: i, pressure: 0.5 }
    })
    const { card } = drawFreehand(emptyCard(400, 300), ring, 1)!
    const piece = card.pieces[0]!
    expect(piece.kind === 'path' && String(piece.path).trim().endsWith('Z')).toBe(true)
    expect(piece.outlineSteps).toEqual([])
    expect(drawFreehand(card, [ring[0]!, ring[0]!], 1)).toBeNull()
  })
})

describe('steps are put where they can work', () => {
  const box = () => withPiece<BoxPiece>(emptyCard(200, 200), 'box', { id: 'b' })
  const kinds = (card: Card) => card.pieces[0]!.outlineSteps.map(({ kind }) => kind)

  test('draw-on on a shape brings a line with it; behind a step that needs an area it goes under that', () => {
    const drawn = addStep(box(), 'b', 'draw-on').card
    expect(kinds(drawn)).toEqual(['draw-on', 'line'])
    const rough = addStep(drawn, 'b', 'rough').card
    expect(kinds(addStep(rough, 'b', 'dashes').card)).toEqual(['rough', 'dashes', 'draw-on', 'line'])
  })

  test('a path with a thickness is a line already; a group takes none', () => {
    const path = withPiece(emptyCard(200, 200), 'path', { id: 'p', thickness: 8 } as Partial<Piece>)
    expect(kinds(addStep(path, 'p', 'taper').card)).toEqual(['taper'])
    const group = withPiece(emptyCard(200, 200), 'group', { id: 'g', pieces: [] } as Partial<Piece>)
    expect(addStep(group, 'g', 'rough').card).toBe(group)
  })
})
