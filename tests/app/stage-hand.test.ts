import { beforeEach, describe, expect, test } from '@jest/globals'
import { ref } from 'vue'
import type { Card, GroupPiece, Piece } from '#core/card/schema'
import type { Point } from '#core/units'
import { penPoints, useMaskSpace } from '~/composables/mask-space'
import { useStageHand } from '~/composables/stage-hand'
import { createMask, createPiece } from '#core/card/create'
import { place } from '#core/outline/outline'
import { useBench } from '~/stores/bench'
import { useStage } from '~/stores/stage'
import { engineWithFonts } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

// What every handle on the stage needs: where the pointer is on the card, drags as one step, lines to rest on.

const engine = engineWithFonts()
const ZOOM = 2
const LEFT = 40
const TOP = 30
let listeners: Map<string, (event: PointerEvent) => void>

beforeEach(() => {
  freshStores()
  listeners = new Map()
  globalThis.window = {
    addEventListener: (name: string, listener: (event: PointerEvent) => void) => listeners.set(name, listener),
    removeEventListener: (name: string) => listeners.delete(name),
  } as unknown as typeof window
})

async function opened(card: Card = threeBoxes()) {
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: card } })
  const bench = useBench()
  await bench.open('card-1')
  const svg = ref({ getBoundingClientRect: () => ({ left: LEFT, top: TOP }) } as unknown as SVGSVGElement)
  const hand = useStageHand(
    svg,
    () => ZOOM,
    () => engine.outlook(bench.card!, 0),
  )
  return { bench, hand }
}

const pointer = (x: number, y: number, values: object = {}) =>
  ({ pointerId: 1, clientX: x, clientY: y, timeStamp: 5, pointerType: 'mouse', ...values }) as unknown as PointerEvent

describe('the pointer', () => {
  test('is at a point of the card, whatever the zoom; and back', async () => {
    const { hand } = await opened()
    const point = hand.cardPoint(pointer(LEFT + 100, TOP + 60))
    expect(point).toEqual({ x: 50, y: 30 })
    expect(hand.onScreen(point)).toEqual({ x: 100, y: 60 })
    expect(hand.reach.value).toBe(6 / ZOOM)
  })

  test('is followed until it is let go, and no other; all of it is one step', async () => {
    const { bench, hand } = await opened()
    const seen: Point[] = []
    let ended = 0
    hand.drag(
      pointer(LEFT, TOP),
      (point) => {
        seen.push(point)
        bench.edit('Move', (card) => ({ ...card, name: `At ${point.x}` }), 'drag')
      },
      () => ended++,
    )
    expect(bench.dragging).toBe(false)
    for (const x of [10, 20, 30]) listeners.get('pointermove')!(pointer(LEFT + x, TOP))
    listeners.get('pointermove')!(pointer(0, 0, { pointerId: 2 }))
    listeners.get('pointerup')!(pointer(0, 0, { pointerId: 2 }))
    expect([seen.map(({ x }) => x), bench.dragging, ended]).toEqual([[5, 10, 15], true, 0])
    listeners.get('pointerup')!(pointer(LEFT + 30, TOP))
    expect([ended, listeners.size, bench.dragging]).toEqual([1, 0, false])
    expect(bench.past.map(({ label }) => label)).toEqual(['Move'])
    bench.undo()
    expect(bench.card!.name).toBe('Three boxes')
  })

  test('arrows move what is dragged by 1 px, with Shift by 10; other keys are left to others', async () => {
    const { hand } = await opened()
    let stopped = 0
    const key = (name: string, shiftKey = false) =>
      ({
        ...{ key: name, shiftKey, altKey: false },
        preventDefault: () => stopped++,
        stopPropagation: () => stopped++,
      }) as unknown as KeyboardEvent
    const to: Point[] = []
    const move = (point: Point) => to.push(point)
    for (const [name, shift] of [
      ['ArrowLeft', false],
      ['ArrowDown', true],
      ['a', false],
    ] as const)
      hand.nudge(key(name, shift), { x: 100, y: 50 }, move)
    expect(to).toEqual([
      { x: 99, y: 50 },
      { x: 100, y: 60 },
    ])
    expect(stopped).toBe(4)
  })
})

describe('lines to rest on', () => {
  test('are those of the frame and of all pieces but the moved ones', async () => {
    const { hand } = await opened()
    // back, middle, front at x 100, 200, 300; 60 wide, and their strokes around.
    const { x, y } = hand.linesFor(['front'])
    expect(x.slice(0, 3)).toEqual([0, 240, 480])
    expect(y.slice(0, 3)).toEqual([0, 135, 270])
    expect(x).toHaveLength(9)
    expect([100, 200, 300].map((at) => x.includes(at))).toEqual([true, true, false])
  })

  test('with the safe areas while these are shown, and not those of pieces that are off', async () => {
    const boxes = threeBoxes()
    const off = boxes.pieces.map((piece) => (piece.id === 'back' ? { ...piece, on: false } : piece)) as Piece[]
    const { hand } = await opened({ ...boxes, pieces: off })
    expect(hand.linesFor(['front']).x).toHaveLength(6)
    useStage().safeAreas = true
    // EBU R 95: 3.5 % for action, 5 % for titles.
    const { x } = hand.linesFor(['front'])
    expect(x.some((at) => Math.abs(at - 480 * 0.035) < 0.01)).toBe(true)
    expect(x.some((at) => Math.abs(at - 480 * 0.05) < 0.01)).toBe(true)
    useStage().safeAreas = false
  })

  test('what lies in a moved group moves along', async () => {
    const boxes = threeBoxes()
    const [front, ...others] = boxes.pieces
    const group = { ...createPiece('group', boxes), id: 'group', x: 0, y: 0, pieces: [front] } as unknown as GroupPiece
    const { hand } = await opened({ ...boxes, pieces: [group, ...others] })
    expect(hand.linesFor(['group']).x.includes(300)).toBe(false)
    expect(hand.linesFor(['back']).x.includes(300)).toBe(true)
  })
})

describe('the space in which a mask is painted', () => {
  const turned = (mask: object | null): Card => {
    const boxes = threeBoxes()
    const masks = mask ? [{ ...createMask('painted', 'mask'), ...mask }] : []
    const change = { x: 200, y: 100, rotation: 90, scale: 200, masks }
    return {
      ...boxes,
      pieces: boxes.pieces.map((piece) => (piece.id === 'front' ? { ...piece, ...change } : piece)),
    } as Card
  }

  test('is that of its piece, moved and turned by its own place; or that of the card', async () => {
    const ten = { x: 10, y: 0 }
    const { bench, hand } = await opened(turned({ x: 5, y: 0, rotation: 0, space: 'piece' }))
    const space = useMaskSpace(hand)
    // A quarter turn, twice as large: 15 px of the piece to the right are 30 px of the card upward.
    bench.select('front', 'mask')
    expect(place(space.value, ten)).toEqual({ x: expect.closeTo(200, 6), y: expect.closeTo(70, 6) })
    bench.select('front')
    expect(place(space.value, ten)).toEqual({ x: expect.closeTo(200, 6), y: expect.closeTo(80, 6) })
    freshStores()
    const onCard = await opened(turned({ x: 5, y: 7, rotation: 0, space: 'card' }))
    onCard.bench.select('front', 'mask')
    expect(place(useMaskSpace(onCard.hand).value, ten)).toEqual({ x: 15, y: 7 })
  })

  test('a pen tells each place where it has been, and how hard it was pressed; a mouse is not pressed', async () => {
    const { hand } = await opened()
    const pen = (x: number, pressure: number) => pointer(LEFT + x, TOP, { pointerType: 'pen', pressure, timeStamp: x })
    const event = { ...pen(8, 0.8), getCoalescedEvents: () => [pen(4, 0.2), pen(8, 0.8)] } as PointerEvent
    expect(penPoints(hand, event)).toEqual([
      { x: 2, y: 0, time: 4, pressure: 0.2 },
      { x: 4, y: 0, time: 8, pressure: 0.8 },
    ])
    const mouse = {
      ...pointer(LEFT + 6, TOP, { pressure: 0.5 }),
      getCoalescedEvents: () => [],
    } as unknown as PointerEvent
    expect(penPoints(hand, mouse)).toEqual([{ x: 3, y: 0, time: 5, pressure: null }])
  })
})
