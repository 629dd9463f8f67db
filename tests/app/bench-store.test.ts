import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { changePiece, removePiece } from '#core/edit/stack'
import { setStored } from '#core/edit/values'
import type { Card } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import type { Asked } from './stand-in'
import { freshStores, OtherWindows, Refusal, SILENCE, standInServer, threeBoxes } from './stand-in'

const GET = 'GET /cards/card-1'
const PUT = 'PUT /cards/card-1'
const row = (revision = 4) => ({ id: 'card-1', revision, document: threeBoxes() })
const x = (card: Card | null) => (card?.pieces[0] as { x: number }).x
const moveTo = (value: number) => (card: Card) => setStored(card, 'front/x', value)

beforeEach(() => {
  jest.useFakeTimers()
  freshStores()
})
afterEach(() => {
  jest.useRealTimers()
})

async function opened(answers: Record<string, unknown> = {}) {
  const asked = standInServer({ [GET]: row(), [PUT]: { revision: 5 }, ...answers })
  const bench = useBench()
  await bench.open('card-1')
  return { bench, asked }
}
const puts = (asked: Asked[]) => asked.filter(({ method }) => method === 'PUT')

describe('history', () => {
  test('opening selects the foremost piece and has nothing to undo', async () => {
    const { bench } = await opened()
    expect(bench.selectedPiece).toBe('front')
    expect(bench.past).toEqual([])
    bench.undo()
    bench.redo()
    expect(bench.card).toEqual(row().document)
    expect(bench.hasUnsaved()).toBe(false)
  })

  test('steps are named, undone and done again; a new step forgets what was undone', async () => {
    const { bench } = await opened()
    bench.edit('One', moveTo(1))
    bench.edit('Two', moveTo(2))
    expect(bench.past.map(({ label }) => label)).toEqual(['One', 'Two'])
    bench.undo()
    expect(x(bench.card)).toBe(1)
    expect(bench.future.map(({ label }) => label)).toEqual(['Two'])
    bench.redo()
    expect(x(bench.card)).toBe(2)
    bench.undo()
    bench.edit('Three', moveTo(3))
    expect(bench.future).toEqual([])
    bench.redo()
    expect(x(bench.card)).toBe(3)
  })

  test('quick edits with the same mark are one step; a pause, a settle or another mark begins the next', async () => {
    const { bench } = await opened()
    for (let i = 0; i < 5; i++) bench.edit('Drag', moveTo(i), 'front/x')
    expect(bench.past).toHaveLength(1)
    bench.edit('Drag', moveTo(6), 'front/y')
    expect(bench.past).toHaveLength(2)
    bench.endStep()
    bench.edit('Drag', moveTo(7), 'front/y')
    expect(bench.past).toHaveLength(3)
    jest.advanceTimersByTime(2000)
    bench.edit('Drag', moveTo(8), 'front/y')
    expect(bench.past).toHaveLength(4)
    for (let i = 0; i < 4; i++) bench.undo()
    expect(bench.card).toEqual(row().document)
  })

  test('after an undo the same gesture does not go on in the step before it', async () => {
    const { bench } = await opened()
    bench.edit('Drag', moveTo(1), 'front/x')
    bench.undo()
    bench.edit('Drag', moveTo(2), 'front/x')
    expect(bench.past).toHaveLength(1)
    bench.undo()
    expect(bench.card).toEqual(row().document)
  })

  test('an edit that changes nothing is no step', async () => {
    const { bench } = await opened()
    bench.edit('Nothing', (card) => card)
    expect(bench.past).toEqual([])
    expect(bench.hasUnsaved()).toBe(false)
  })
})

describe('selection', () => {
  test('grows, shrinks, spans the stack, and is told in stack order', async () => {
    const { bench } = await opened()
    bench.select('back')
    bench.toggleSelected('front')
    expect(bench.selection).toEqual(['back', 'front'])
    expect(bench.pieces.map(({ id }) => id)).toEqual(['front', 'back'])
    bench.toggleSelected('back')
    expect(bench.selection).toEqual(['front'])
    bench.selectTo('back')
    expect(bench.pieces.map(({ id }) => id)).toEqual(['front', 'middle', 'back'])
    expect(bench.selectedPiece).toBe('back')
  })

  test('a coat is selected on all selected pieces, and goes with another piece', async () => {
    const { bench } = await opened()
    bench.selectAll(['front', 'middle'])
    bench.select('front', 'stroke-front')
    expect(bench.coat?.id).toBe('stroke-front')
    expect(bench.selection).toEqual(['middle', 'front'])
    bench.select('back')
    expect(bench.coat).toBeNull()
    expect(bench.selection).toEqual(['back'])
    bench.select(null)
    expect(bench.piece).toBeNull()
  })

  test('from the last that was selected, whichever way, to the one that is pressed', async () => {
    const { bench } = await opened()
    bench.select('back')
    bench.selectTo('front')
    expect(bench.selection).toEqual(['middle', 'back', 'front'])
    expect(bench.selectedPiece).toBe('front')
    bench.select(null)
    bench.selectTo('middle')
    expect(bench.selection).toEqual(['middle'])
  })

  test('without a card nothing is selected', () => {
    const bench = useBench()
    expect([bench.pieces, bench.piece, bench.finish, bench.entry, bench.lanes]).toEqual([[], null, null, null, []])
  })

  test('a finish, a step and a mask of the piece are known by their ids', async () => {
    const { bench } = await opened()
    const parts = { finishes: [{ id: 'glow' }], outlineSteps: [{ id: 'rough' }], masks: [{ id: 'round' }] }
    bench.edit('Parts', (card) => changePiece(card, 'front', parts as never))
    const found = (id: string | null) => {
      bench.select('front', id)
      return [bench.finish, bench.step, bench.mask, bench.entry].map((one) => one?.id ?? null)
    }
    expect(found('glow')).toEqual(['glow', null, null, 'glow'])
    expect(found('rough')).toEqual([null, 'rough', null, 'rough'])
    expect(found('round')).toEqual([null, null, 'round', 'round'])
    expect(found('gone')).toEqual([null, null, null, null])
    bench.select('back', 'glow')
    expect(bench.finish).toBeNull()
  })

  test('what is taken away is no longer selected', async () => {
    const { bench } = await opened()
    bench.selectAll(['front', 'middle'])
    bench.edit('Delete', (card) => removePiece(card, 'front'))
    expect(bench.selection).toEqual(['middle'])
  })
})

describe('saving', () => {
  test('comes by itself after a rest, once for several edits, and tells the other windows', async () => {
    const { bench, asked } = await opened()
    bench.edit('One', moveTo(1))
    bench.edit('Two', moveTo(2))
    expect(bench.saveState).toBe('waiting')
    await jest.advanceTimersByTimeAsync(1000)
    expect(bench.saveState).toBe('saved')
    expect(puts(asked)).toHaveLength(1)
    expect(puts(asked)[0]!.body).toMatchObject({ revision: 4 })
    expect(x((puts(asked)[0]!.body as { document: Card }).document)).toBe(2)
    expect(bench.revision).toBe(5)
    expect(OtherWindows.told).toEqual([{ id: 'card-1', revision: 5 }])
    await bench.save()
    expect(puts(asked)).toHaveLength(1)
  })

  test('what is changed while it is under way is saved next', async () => {
    const { bench, asked } = await opened()
    bench.edit('One', moveTo(1))
    const first = bench.save()
    bench.edit('Two', moveTo(2))
    await first
    expect(puts(asked).map(({ body }) => x((body as { document: Card }).document))).toEqual([1, 2])
    expect(bench.saveState).toBe('saved')
  })

  test('a lost server is told of and tried again until it is back; nothing is lost', async () => {
    let there = false
    const { bench, asked } = await opened({ [PUT]: () => (there ? { revision: 5 } : SILENCE) })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(600)
    expect(bench.saveState).toBe('failed')
    expect(bench.saveFault?.code).toBe('no-server')
    expect(x(bench.card)).toBe(1)
    await jest.advanceTimersByTimeAsync(10_000)
    expect(puts(asked).length).toBeGreaterThan(2)
    there = true
    await jest.advanceTimersByTimeAsync(16_000)
    expect(bench.saveState).toBe('saved')
    expect(bench.saveFault).toBeNull()
  })

  test('what the server refuses is told and not tried again by itself; the next edit is', async () => {
    const fault = { code: 'out-of-range', place: 'pieces[0].x', message: 'Too far.', remedy: 'Come back.' }
    let refused = true
    const { bench, asked } = await opened({ [PUT]: () => (refused ? new Refusal(422, fault) : { revision: 5 }) })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(60_000)
    expect(bench.saveState).toBe('failed')
    expect(bench.saveFault).toEqual(fault)
    expect(puts(asked)).toHaveLength(1)
    refused = false
    bench.edit('Two', moveTo(2))
    await jest.advanceTimersByTimeAsync(1000)
    expect(bench.saveState).toBe('saved')
  })

  test('a failing server that says nothing gets words of our own', async () => {
    const { bench } = await opened({ [PUT]: new Refusal(500, null) })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(600)
    expect(bench.saveFault).toMatchObject({ code: 'server', message: expect.stringContaining('server') })
  })
})

describe('two windows', () => {
  const conflict = new Refusal(409, { code: 'newer', place: 'card', message: 'Newer.', remedy: 'Choose.' })

  test('a conflict stops the saving until it is decided', async () => {
    const { bench, asked } = await opened({ [PUT]: conflict })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(1000)
    expect(bench.saveState).toBe('conflict')
    bench.edit('Two', moveTo(2))
    await jest.advanceTimersByTimeAsync(60_000)
    expect(puts(asked)).toHaveLength(1)
    expect(bench.saveState).toBe('conflict')
  })

  test('taking over saves what is here and says so', async () => {
    const { bench, asked } = await opened({
      [PUT]: ({ body }: Asked) => ((body as { takeOver?: boolean }).takeOver ? { revision: 9 } : conflict),
    })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(1000)
    await bench.takeOver()
    expect(bench.saveState).toBe('saved')
    expect(bench.revision).toBe(9)
    expect(bench.newer).toBe(false)
    expect(puts(asked).at(-1)!.body).toMatchObject({ takeOver: true })
    expect(OtherWindows.told).toContainEqual({ id: 'card-1', revision: 9 })
  })

  test('a copy keeps what is here under a name of its own', async () => {
    const { bench, asked } = await opened({ [PUT]: conflict, 'POST /cards': { id: 'card-2' } })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(1000)
    expect(await bench.keepAsCopy()).toBe('card-2')
    const { document } = asked.at(-1)!.body as { document: Card }
    expect(document.name).toBe('Three boxes, copy')
    expect(x(document)).toBe(1)
    expect(bench.hasUnsaved()).toBe(false)
    expect(bench.card?.name).toBe('Three boxes, copy')
  })

  test('what is edited while the copy is made belongs to the copy', async () => {
    const { bench } = await opened({ [PUT]: conflict, 'POST /cards': { id: 'card-2', revision: 1 } })
    bench.edit('One', moveTo(1))
    await jest.advanceTimersByTimeAsync(1000)
    const made = bench.keepAsCopy()
    bench.edit('Two', moveTo(2))
    await made
    expect([bench.card?.name, x(bench.card)]).toEqual(['Three boxes, copy', 2])
  })

  test('another window’s newer revision is heard; its older ones and other cards are not', async () => {
    const { bench } = await opened()
    OtherWindows.say({ id: 'card-1', revision: 4 })
    OtherWindows.say({ id: 'card-7', revision: 40 })
    expect(bench.newer).toBe(false)
    OtherWindows.say({ id: 'card-1', revision: 5 })
    expect(bench.newer).toBe(true)
    await bench.open('card-1')
    expect(bench.newer).toBe(false)
  })

  test('coming back to the window looks for a newer one, not while it is hidden', async () => {
    const { bench, asked } = await opened({ 'GET /cards/card-1/head': { revision: 6 } })
    globalThis.document = { hidden: true } as Document
    await bench.lookForNewer()
    expect(asked).toHaveLength(1)
    globalThis.document = { hidden: false } as Document
    await bench.lookForNewer()
    expect(bench.newer).toBe(true)
  })

  test('a server that cannot be asked is no newer revision', async () => {
    const { bench } = await opened({ 'GET /cards/card-1/head': SILENCE })
    await bench.lookForNewer()
    expect(bench.newer).toBe(false)
  })
})

test('lanes are the values that move, of locked pieces too', async () => {
  const { bench } = await opened()
  expect(bench.lanes).toEqual([])
  bench.edit('Key', (card) =>
    changePiece(card, 'middle', {
      locked: true,
      x: { keys: [{ frame: 0, value: 3 }] },
      on: { keys: [{ frame: 0, value: true }] },
    }),
  )
  expect(bench.lanes.map(({ address }) => address)).toEqual(['middle/x', 'middle/on'])
})
