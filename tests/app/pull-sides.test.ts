import { beforeEach, describe, expect, test } from '@jest/globals'
import { computed } from 'vue'
import type { BoxPiece, Card, Piece, TypePiece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import type { SnapLines } from '#core/stage/snap'
import type { Point } from '#core/units'
import type { Held, StageHand } from '~/composables/stage-hand'
import { usePullSides } from '~/composables/pull-sides'
import { useBench } from '~/stores/bench'
import { emptyCard, engineWithFonts, withBox, withPiece, withType } from '../support/engine'
import { freshStores, standInServer } from './stand-in'

// Pulling at the sides of a piece: what was taken hold of follows the hand, what lies opposite stays, as the engine draws it.

const engine = engineWithFonts()
const FREE: Held = { altKey: false, ctrlKey: false, shiftKey: false }
const PLACES = [
  { x: 240, y: 135, rotation: 0, scale: 100 },
  { x: 200, y: 150, rotation: 30, scale: 100 },
  { x: 260, y: 120, rotation: -75, scale: 140 },
]

async function opened(card: Card, lines: SnapLines = { x: [], y: [] }) {
  standInServer({
    'GET /cards/card-1': { id: 'card-1', revision: 1, document: card },
    // What is pulled is saved: without an answer it would be tried for ever.
    'PUT /cards/card-1': { id: 'card-1', revision: 2 },
  })
  const bench = useBench()
  await bench.open('card-1')
  const outlook = () => engine.outlook(bench.card!, 0)
  const single = computed(() => outlook().find(({ id }) => id === bench.selectedPiece)!)
  const pieceOf = (id: string) => allPieces(bench.card!.pieces).find((piece) => piece.id === id)!
  const shown: { x: number[]; y: number[] }[] = []
  const hand = {
    linesFor: () => lines,
    reach: computed(() => 6),
    showGuides: (guides: { x: number[]; y: number[] }) => shown.push(guides),
  } as unknown as StageHand
  const pull = usePullSides(hand, {
    single,
    sized: computed(() => 'height' in bench.piece!),
    boxed: computed(() => bench.piece!.kind === 'type' && bench.piece!.width !== 0),
    present: (piece: Piece, name) => piece[name as keyof Piece] as number,
    pieceOf,
    fromHere: (label) => {
      const before = bench.card!
      return (change) => bench.edit(label, () => change(before), 'pull')
    },
  })
  return { bench, pull, single, shown }
}

const box = (values: Partial<BoxPiece>) =>
  withBox(emptyCard(480, 270), { id: 'box', width: 120, height: 60, ...values }, {})

/** Corners of the box on the card: top left, top right, bottom right, bottom left. */
const mean = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
const from = (a: Point, b: Point, px: number): Point => {
  const length = Math.hypot(b.x - a.x, b.y - a.y)
  return { x: b.x + ((b.x - a.x) / length) * px, y: b.y + ((b.y - a.y) / length) * px }
}

beforeEach(freshStores)

describe.each(PLACES)('of a box at $x, $y, turned by $rotation°, $scale %', (place) => {
  const close = (a: Point, b: Point) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1.2 * (place.scale / 100))

  test('the right side follows the hand; the left one stays where it is', async () => {
    const { bench, pull, single } = await opened(box(place))
    const [a, b, c, d] = single.value.corners as [Point, Point, Point, Point]
    const to = from(mean(a, d), mean(b, c), 50)
    pull(1, 0)!(to, FREE)
    const [a2, b2, c2, d2] = single.value.corners as [Point, Point, Point, Point]
    close(mean(b2, c2), to)
    close(a2, a)
    close(d2, d)
    expect((bench.piece as BoxPiece).height).toBe(60)
    expect(bench.past.map(({ label }) => label)).toEqual(['Size'])
  })

  test('a corner with Shift keeps the proportions; with Alt the middle stays', async () => {
    const { bench, pull, single } = await opened(box(place))
    const [a, b, c] = single.value.corners as [Point, Point, Point, Point]
    const middle = mean(a, c)
    pull(1, 1)!(from(a, c, 80), { ...FREE, shiftKey: true, altKey: true })
    const { width, height } = bench.piece as unknown as { width: number; height: number }
    expect(width / height).toBeCloseTo(2, 1)
    expect(width).toBeGreaterThan(200)
    const [a2, , c2] = single.value.corners as [Point, Point, Point, Point]
    close(mean(a2, c2), middle)
    close(c2, from(a, c, 80))
    expect(b).toBeDefined()
  })

  test('it grows no smaller than a pixel, however far it is pulled past its other side', async () => {
    const { bench, pull, single } = await opened(box(place))
    const [a, b, c, d] = single.value.corners as [Point, Point, Point, Point]
    pull(1, 0)!(from(mean(b, c), mean(a, d), 90), FREE)
    expect((bench.piece as BoxPiece).width).toBe(1)
    close((single.value.corners as Point[])[0]!, a)
  })
})

describe('while a side is pulled', () => {
  test('it comes to rest on a line that is near, which is shown; not with Ctrl', async () => {
    const { bench, pull, shown } = await opened(box({ x: 240, y: 135 }), { x: [333], y: [] })
    const follow = pull(1, 0)!
    follow({ x: 330, y: 135 }, FREE)
    expect((bench.piece as BoxPiece).width).toBe(153)
    expect(shown).toEqual([{ x: [333], y: [] }])
    follow({ x: 330, y: 135 }, { ...FREE, ctrlKey: true })
    expect((bench.piece as BoxPiece).width).toBe(150)
    expect(shown).toHaveLength(1)
  })

  test('every move begins from where the hand took hold: coming back changes nothing', async () => {
    const { bench, pull } = await opened(box({ x: 240, y: 135 }))
    const follow = pull(-1, -1)!
    for (const at of [
      { x: 20, y: 20 },
      { x: 290, y: 160 },
      { x: 180, y: 105 },
    ])
      follow(at, FREE)
    expect(bench.piece).toMatchObject({ x: 240, y: 135, width: 120, height: 60 })
  })
})

describe('of type', () => {
  const words = (values: Partial<TypePiece>) =>
    withType(
      emptyCard(480, 270),
      { id: 'words', font: 'anton', wording: 'Regatta', size: 60, x: 240, y: 135, ...values },
      {},
    )

  test('without a box it is stretched, the other side stays; through it, it is mirrored', async () => {
    const { bench, pull, single } = await opened(words({ align: 'left' }))
    const { left, right } = single.value.bounds
    const follow = pull(1, 0)!
    follow({ x: right + (right - left), y: 135 }, FREE)
    expect(single.value.bounds.left).toBeCloseTo(left, 0)
    expect(single.value.bounds.right).toBeCloseTo(2 * right - left, 0)
    follow({ x: left - (right - left), y: 135 }, FREE)
    expect(single.value.bounds.left).toBeCloseTo(2 * left - right, 0)
    expect(single.value.bounds.right).toBeCloseTo(left, 0)
    expect(bench.past.map(({ label }) => label)).toEqual(['Stretch'])
  })

  test.each([
    ['left', 1, 300, 60],
    ['right', -1, 150, 90],
    ['centre', 1, 300, 120],
    ['justify', -1, 150, 180],
  ] as const)('set %s in a box, the box is as wide as it is pulled', async (align, side, x, width) => {
    const { bench, pull } = await opened(words({ align, width: 200 }))
    pull(side, 0)!({ x, y: 135 }, FREE)
    expect((bench.piece as TypePiece).width).toBe(width)
  })

  test('the side that its lines are aligned to cannot be pulled', async () => {
    const { bench, pull } = await opened(words({ align: 'left', width: 200 }))
    pull(-1, 0)!({ x: 100, y: 135 }, FREE)
    expect((bench.piece as TypePiece).width).toBe(200)
  })

  test('that shows nothing has no sides', async () => {
    const { pull } = await opened(words({ wording: '' }))
    expect(pull(1, 0)).toBeNull()
    const group = await opened(withPiece(emptyCard(480, 270), 'group', { id: 'group' } as Partial<Piece>))
    expect(group.pull(1, 1)).toBeNull()
  })
})
