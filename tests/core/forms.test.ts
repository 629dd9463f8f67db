import { describe, expect, test } from '@jest/globals'
import { addPiece, duplicatePiece, movePiece, removePiece } from '#core/edit/stack'
import { setStored, storedAt, writeValue } from '#core/edit/values'
import { createPiece } from '#core/card/create'
import { paintSchema } from '#core/values/paints'
import { expectCard, readCard } from '#core/card/read'
import type { Card, Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { Kernels } from '#core/kernels/kernels'
import { boxPath } from '#core/outline/box'
import { flatten } from '#core/outline/contour'
import { ellipsePath } from '#core/outline/ellipse'
import { innerDepth } from '#core/outline/inner-depth'
import { outlineOf } from '#core/outline/outline'
import { coat, emptyCard, engineWithFonts, pixelAt, solid, withType } from '../support/engine'

const engine = engineWithFonts()
const fill = (id: string, colour = '#FFFFFF') => coat('fill', id, { paint: solid(colour) })

function piece(kind: Piece['kind'], id: string, values: object, face = [fill(`${id}-f`)]): Piece {
  const card = emptyCard(200, 160)
  return { ...createPiece(kind, card), id, x: 100, y: 80, ...values, coats: { face, behind: [] } } as Piece
}

const shown = (...pieces: Piece[]) => engine.render({ ...emptyCard(200, 160), pieces }, 0, { bits: 16 })

/** Covered area in px². */
function area(picture: ReturnType<typeof shown>): number {
  const values = new Uint16Array(picture.pixels.buffer)
  let sum = 0
  for (let i = 3; i < values.length; i += 4) sum += values[i]! / 65535
  return sum
}

describe('forms have the areas of geometry', () => {
  test.each([
    ['an ellipse', piece('ellipse', 'p', { width: 120, height: 80 }), Math.PI * 60 * 40],
    ['a round line', piece('line', 'p', { length: 100, thickness: 20, cap: 'round' }), 100 * 20 + Math.PI * 100],
    ['a cut line', piece('line', 'p', { length: 100, thickness: 20, cap: 'butt', rotation: 30 }), 2000],
    ['a square line', piece('line', 'p', { length: 100, thickness: 20, cap: 'square' }), 2400],
    ['a filled path', piece('path', 'p', { path: 'M -40 -30 L 40 -30 L 0 30 Z' }), 2400],
    [
      'a path that crosses itself, non-zero',
      piece('path', 'p', { path: 'M -40 -40 H 40 V 40 H -40 Z M -20 -20 H 20 V 20 H -20 Z', rule: 'nonzero' }),
      6400,
    ],
    [
      'the same, even-odd',
      piece('path', 'p', { path: 'M -40 -40 H 40 V 40 H -40 Z M -20 -20 H 20 V 20 H -20 Z', rule: 'evenodd' }),
      4800,
    ],
    [
      'a line along a closed path with mitres',
      piece('path', 'p', { path: 'M -40 -40 H 40 V 40 H -40 Z', thickness: 10, join: 'mitre' }),
      90 * 90 - 70 * 70,
    ],
    [
      'the same with bevels',
      piece('path', 'p', { path: 'M -40 -40 H 40 V 40 H -40 Z', thickness: 10, join: 'bevel' }),
      90 * 90 - 70 * 70 - 4 * 12.5,
    ],
  ])('%s', (_, form, expected) => {
    expect(Math.abs(area(shown(form)) / expected - 1)).toBeLessThan(0.002)
  })

  test('a line or path of no length or thickness draws nothing', () => {
    expect(area(shown(piece('line', 'p', { length: 0, thickness: 20 })))).toBe(0)
    expect(area(shown(piece('line', 'p', { length: 100, thickness: 0 })))).toBe(0)
    expect(area(shown(piece('path', 'p', { path: 'M 10 10 L 10 10', thickness: 8 })))).toBe(0)
    expect(area(shown(piece('path', 'p', { path: '' })))).toBe(0)
  })

  test('overlapping contours of a letter are filled, not holed', () => {
    // Two bars that cross, both wound the same way, as variable fonts have them.
    const cross = piece('path', 'p', { path: 'M -50 -10 H 50 V 10 H -50 Z M -10 -50 H 10 V 50 H -10 Z' })
    expect(pixelAt(shown(cross), 100, 80)[3]).toBe(1)
    expect(area(shown(cross))).toBeCloseTo(2 * 2000 - 400, 0)
  })
})

describe('a group', () => {
  const inner = [
    piece('box', 'a', { x: -20, y: 0, width: 60, height: 40 }, [fill('a-f', '#B8324A')]),
    piece('ellipse', 'b', { x: 20, y: 5, width: 50, height: 50 }, [fill('b-f', '#1E6B6A')]),
  ]
  const group = (values: object = {}, face: Piece['coats']['face'] = []) =>
    ({ ...piece('group', 'g', values, face), pieces: inner }) as Piece

  test('without coats shows what its pieces show, to one step of 255', () => {
    const direct = shown(...inner.map((p) => ({ ...p, x: (p.x as number) + 100, y: (p.y as number) + 80 }) as Piece))
    const grouped = shown(group())
    const [a, b] = [new Uint16Array(direct.pixels.buffer), new Uint16Array(grouped.pixels.buffer)]
    let worst = 0
    a.forEach((value, i) => {
      // Colour counts as much as it is seen.
      const alpha = a[i | 3]! / 65535
      worst = Math.max(worst, (Math.abs(value - b[i]!) / 257) * (i % 4 === 3 ? 1 : alpha))
    })
    expect(worst).toBeLessThanOrEqual(1)
  })

  test('moves, turns and fades as one', () => {
    const turned = shown(group({ rotation: 90, scale: 150, opacity: 50 }))
    // The box lay to the left: turned by 90° anticlockwise it lies below.
    expect(pixelAt(turned, 100, 80 + 45)[3]).toBeCloseTo(0.5, 2)
    // Where its pieces overlap, half of the whole shows, not half of each.
    expect(pixelAt(turned, 100, 80)[3]).toBeCloseTo(0.5, 2)
  })

  test('has coats around all that it holds', () => {
    const stroked = shown(group({}, [coat('stroke', 's', { width: 6, paint: solid('#FFFFFF') })]))
    // Outside the box's left edge (x = 100 − 20 − 30) white; on the joint inside none.
    expect(pixelAt(stroked, 47, 80).map((v) => Math.round(v))).toEqual([1, 1, 1, 1])
    expect(pixelAt(stroked, 100, 80)[2]).toBeLessThan(0.5)
  })

  test('measures percent and gradients in its own space: turning it changes neither', () => {
    const reference = (values: object) =>
      engine.outlook({ ...emptyCard(200, 160), pieces: [group(values)] }, 0).find(({ id }) => id === 'g')!.reference
    // The box spans 40 px and the ellipse 50, from −20 to 30.
    expect(reference({})).toBeCloseTo(50, 1)
    expect(reference({ rotation: 37 })).toBeCloseTo(50, 1)
    expect(reference({ scale: 300 })).toBeCloseTo(50, 1)
    const paint = paintSchema.parse({
      type: 'linear',
      angle: 0,
      stops: [
        { at: 0, colour: '#000000' },
        { at: 100, colour: '#FFFFFF' },
      ],
    })
    const washed = (rotation: number) => shown(group({ rotation }, [coat('fill', 'w', { paint })]))
    // 30 px to the left of the group's place, then, turned by 90°, 30 px below it.
    const before = pixelAt(washed(0), 70, 80)[0]
    expect(before).toBeLessThan(0.3)
    expect(pixelAt(washed(90), 100, 110)[0]).toBeCloseTo(before, 1)
  })

  test('in groups in groups up to eight deep; deeper is refused in words', () => {
    const nest = (depth: number): Piece =>
      depth === 0
        ? inner[0]!
        : ({ ...piece('group', `g${depth}`, { x: 0, y: 0 }, []), pieces: [nest(depth - 1)] } as Piece)
    const card = (depth: number) => ({ ...emptyCard(200, 160), pieces: [nest(depth)] })
    expect(readCard(card(8)).faults).toBeNull()
    expect(readCard(card(10)).faults?.[0]?.message).toMatch(/deeper/)
  })

  test('its pieces are edited by the same operations as any', () => {
    let card: Card = expectCard({ ...emptyCard(200, 160), pieces: [group()] })
    card = writeValue(card, 'a/x', 0, -44)
    expect(storedAt(card, 'a/x')).toBe(-44)
    card = setStored(card, 'b/b-f/paint/colour', '#000000')
    expect(storedAt(card, 'b/b-f/paint/colour')).toBe('#000000')
    card = movePiece(card, 'b', 0)
    expect(allPieces(card.pieces).map(({ id }) => id)).toEqual(['g', 'b', 'a'])
    const copied = duplicatePiece(card, 'g')
    expect(allPieces(copied.card.pieces)).toHaveLength(6)
    expect(readCard(copied.card).faults).toBeNull()
    expect(allPieces(removePiece(card, 'a').pieces).map(({ id }) => id)).toEqual(['g', 'b'])
    expect(allPieces(addPiece(card, 'group').card.pieces)).toHaveLength(4)
  })
})

describe('the inner depth', () => {
  const depthOf = (path: Parameters<typeof flatten>[0]) => innerDepth(outlineOf('t', flatten(path, 0.01), 1))

  test('is the radius of the largest circle that fits', () => {
    expect(depthOf(ellipsePath(100, 100))).toBeCloseTo(50, 1)
    expect(depthOf(boxPath(200, 60, [0, 0, 0, 0]))).toBeCloseTo(30, 2)
    expect(depthOf(boxPath(40, 300, [10, 10, 10, 10]))).toBeCloseTo(20, 2)
    // A triangle: twice the area over the perimeter.
    const path = [
      { type: 'M', x: 0, y: 0 },
      { type: 'L', x: 120, y: 0 },
      { type: 'L', x: 0, y: 90 },
      { type: 'Z' },
    ] as const
    expect(depthOf(path)).toBeCloseTo((120 * 90) / (120 + 90 + 150), 2)
  })

  test('of type is half a stem, at any size', () => {
    const card = withType(emptyCard(400, 200), { wording: 'I', font: 'anton', size: 150 }, { face: [fill('f')] })
    const { corners } = engine.outlook(card, 0)[0]!
    const stem = corners[1].x - corners[0].x
    expect(engine.innerDepth(card, card.pieces[0]!.id, 0)).toBeCloseTo(stem / 2, 1)
  })
})

test('of a shape with very many edges the depth is found as well', () => {
  // Its half axes are 20,000 and 5,000: the largest circle within has the radius b (e > 1/√2: at the middle).
  const outline = outlineOf('t', flatten(ellipsePath(40_000, 10_000), 1e-4), 1)
  expect(outline.comesFrom.length).toBeGreaterThan(4096)
  expect(innerDepth(outline) / 5000).toBeCloseTo(1, 3)
})

test('distance from alpha is that of the outline to less than half a pixel, for an edge of any slope', () => {
  const kernels = new Kernels()
  const [w, h] = [192, 160]
  for (const angle of [0, 7, 18, 33, 45, 62, 80]) {
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)]
    const at = (x: number, y: number) => [96.3 + x * c - y * s, 80.2 + x * s + y * c]
    const points = [at(-50, -30), at(50, -30), at(50, 30), at(-50, 30)].flat()
    const outline = outlineOf('t', [{ points, smooth: [false, false, false, false] }], 1)
    const segments = kernels.segments(outline.segments, 0, 0)
    const exact = kernels.floats(kernels.distance(segments, w, h, 200)).slice()
    const found = kernels.floats(kernels.fieldDistance(kernels.coverage(segments, w, h))).slice()
    let worst = 0
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        // Away from corners and ridge, where no single edge is nearest.
        const [px, py] = [x + 0.5 - 96.3, y + 0.5 - 80.2]
        const [u, v] = [Math.abs(px * c + py * s), Math.abs(-px * s + py * c)]
        if (u > 15 || v > 55 || v < 2) continue
        worst = Math.max(worst, Math.abs(exact[y * w + x]! - found[y * w + x]!))
      }
    }
    expect(worst).toBeLessThan(0.45)
    // Asked for near the edge only, it is the same there.
    const near = kernels.floats(kernels.fieldDistance(kernels.coverage(segments, w, h), 12)).slice()
    found.forEach((d, i) => Math.abs(d) <= 12 && expect(near[i]).toBe(d))
  }
})

test('a gradient along the edge of a group ends at its deepest point', () => {
  const along = paintSchema.parse({
    type: 'edge',
    stops: [
      { at: 0, colour: '#000000' },
      { at: 100, colour: '#FFFFFF' },
    ],
  })
  const held = piece('box', 'held', { x: 0, y: 0, width: 100, height: 60 })
  const group = piece('group', 'all', { x: 100, y: 80, pieces: [held] }, [coat('fill', 'deep', { paint: along })])
  const picture = shown(group)
  // 30 px deep: half way in it is half as bright.
  expect(pixelAt(picture, 100, 80)[0]).toBeCloseTo(1, 1)
  expect(pixelAt(picture, 100, 65)[0]).toBeCloseTo(0.5, 1)
  expect(pixelAt(picture, 100, 51)[0]).toBeLessThan(0.08)
})
