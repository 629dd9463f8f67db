import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { Look } from '~/workers/engine.worker'
import { useRibbon } from '~/stores/ribbon'
import { freshStores, threeBoxes } from './stand-in'

// What the stage shows while engines take their time: never a picture that was given back, always the last one asked for.

class Picture {
  closed = false
  constructor(
    readonly card: Card,
    readonly frame: number,
    readonly look: Look,
  ) {}
  close() {
    expect(this.closed).toBe(false)
    this.closed = true
  }
}

type Shown = { bitmap: Picture; milliseconds: number; engines: number } | { fault: Fault }

/** Pictures that were asked for and have not come yet. */
let asked: { frame: number; look: Look; shared: boolean; give: (shown: Shown) => void; card: Card }[] = []
let made: Picture[] = []
let now: Card
let forgotten: string[] = []

const ask = (shared: boolean) => (_name: string, frame: number, look: Look) =>
  new Promise<Shown>((give) => asked.push({ frame, look, shared, give, card: now }))

jest.unstable_mockModule('~/workers/engine-pool', () => ({
  poolSize: 2,
  freeEngines: () => 2,
  setCard: (_name: string, card: Card) => (now = card),
  forgetCard: (name: string) => forgotten.push(name),
  onEngine: async (work: (face: object) => unknown) => work({ outlook: async () => [] }),
  pictureOf: ask(false),
  sharedPictureOf: ask(true),
}))
const { usePreview, useComparison } = await import('~/composables/preview')

const settled = async () => {
  for (let i = 0; i < 8; i++) await nextTick()
}

/** The engine gives the picture that was asked for first. */
async function come(milliseconds = 5) {
  const { frame, look, give, card, shared } = asked.shift()!
  const picture = new Picture(card, frame, look)
  made.push(picture)
  give({ bitmap: picture, milliseconds, engines: shared ? 2 : 1 })
  await settled()
  return picture
}

/** All pictures that are asked for come, until none is. */
async function allCome() {
  while (asked.length > 0) await come()
}

let frames: ((time: number) => void)[] = []
let time = 0

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['performance', 'queueMicrotask', 'nextTick'] })
  freshStores()
  ;[asked, made, forgotten, frames, time] = [[], [], [], [], 1000]
  jest.spyOn(performance, 'now').mockImplementation(() => time)
  jest.spyOn(performance, 'measure').mockImplementation(() => ({}) as PerformanceMeasure)
  globalThis.requestAnimationFrame = (step) => frames.push(step)
  globalThis.cancelAnimationFrame = (id) => void (frames[id - 1] = () => {})
})
afterEach(() => {
  jest.useRealTimers()
  jest.restoreAllMocks()
})

function begin(length = 10) {
  const card = shallowRef<Card | null>({ ...threeBoxes(), length })
  const dragging = ref(false)
  const scope = effectScope()
  const preview = scope.run(() => usePreview({ name: 'bench', card, scale: ref(0.5), dragging }))!
  const shown = () => preview.picture.value as unknown as Picture
  return { card, dragging, preview, scope, shown, ribbon: useRibbon() }
}

/** The hand has rested for as long as it takes until the loop is made ready. */
async function rest() {
  await jest.advanceTimersByTimeAsync(400)
  await settled()
}

describe('the picture on the stage', () => {
  test('is asked for once however often the playhead moves meanwhile, and then the last frame', async () => {
    const { ribbon, shown } = begin()
    await settled()
    expect(asked.map(({ frame }) => frame)).toEqual([0])
    for (const frame of [3, 5, 7]) {
      ribbon.go(frame, 10)
      await settled()
    }
    expect(asked).toHaveLength(1)
    await come()
    expect(asked.map(({ frame }) => frame)).toEqual([7])
    await come()
    expect(shown().frame).toBe(7)
    expect(asked).toEqual([])
  })

  test('is placed when the outlook is that of the card and the frame that are there now', async () => {
    const { card, preview, ribbon } = begin()
    const isPlaced = () => preview.isPlaced.value
    await settled()
    expect(isPlaced()).toBe(false)
    await come()
    expect(isPlaced()).toBe(true)
    card.value = { ...card.value!, name: 'Another' }
    expect(isPlaced()).toBe(false)
    await settled()
    await come()
    expect(isPlaced()).toBe(true)
    ribbon.go(4, 10)
    expect(isPlaced()).toBe(false)
    await settled()
    await come()
    expect(isPlaced()).toBe(true)
    // A card that cannot be drawn is waited for by nobody.
    card.value = { ...card.value, name: 'Broken' }
    await settled()
    asked.shift()!.give({ fault: { code: 'too-much', place: 'pieces[0]', message: 'Too much.', remedy: 'Less.' } })
    await settled()
    expect(isPlaced()).toBe(true)
  })

  test('is never one that was given back, whatever comes in between; in the end all are given back', async () => {
    const { card, dragging, ribbon, shown, scope } = begin()
    await settled()
    for (let i = 0; i < 60; i++) {
      // Edits, drags, moves of the playhead, rests and pictures in an order that no two of them share.
      if (i % 2 === 0) ribbon.go(i * 3, 10)
      if (i % 3 === 0) card.value = { ...card.value!, name: `Edit ${i}` }
      if (i % 5 === 0) dragging.value = !dragging.value
      if (i % 7 === 0) await rest()
      await settled()
      if (asked.length > 0 && i % 4 !== 1) await come(i)
      if (shown()) expect(shown().closed).toBe(false)
    }
    dragging.value = false
    await settled()
    await allCome()
    await rest()
    await allCome()
    expect(shown()).toMatchObject({ frame: ribbon.frame, card: { name: card.value!.name }, closed: false })
    expect(made.filter(({ closed }) => !closed)).toHaveLength(10)
    scope.stop()
    expect(made.every(({ closed }) => closed)).toBe(true)
    expect(forgotten).toEqual(['bench'])
  })

  test('that comes after the bench was left is given back', async () => {
    const { preview, scope } = begin()
    await settled()
    scope.stop()
    expect(await come()).toMatchObject({ closed: true })
    expect(preview.picture.value).toBeNull()
  })

  test('while a hand moves is shared by the engines that are free, and whole by one when it rests', async () => {
    const { card, dragging, shown } = begin()
    await settled()
    await come(4000)
    dragging.value = true
    card.value = { ...card.value!, name: 'Moved' }
    await settled()
    expect(asked[0]).toMatchObject({ shared: true, look: { draft: true } })
    expect(asked[0]!.look.scale).toBeLessThan(0.5)
    dragging.value = false
    await settled()
    await come(30)
    expect(asked[0]).toMatchObject({ shared: false, look: { scale: 0.5 } })
    await come()
    expect(shown()).toMatchObject({ look: { scale: 0.5 }, card: { name: 'Moved' } })
  })

  test('stays where the engine is at fault, which is told until a picture comes', async () => {
    const { card, preview, shown } = begin()
    await settled()
    await come()
    card.value = { ...card.value!, name: 'Too much' }
    await settled()
    const fault = { code: 'too-much', place: 'pieces[0]', message: 'Too much.', remedy: 'Take less.' }
    asked.shift()!.give({ fault })
    await settled()
    expect(preview.fault.value).toEqual(fault)
    expect(shown()).toMatchObject({ card: { name: 'Three boxes' }, closed: false })
    card.value = { ...card.value, name: 'Less' }
    await settled()
    await come()
    expect(preview.fault.value).toBeNull()
    expect(shown().card.name).toBe('Less')
  })
})

describe('the loop', () => {
  test('is made ready when the hand rests, from the playhead on; an edit begins it anew', async () => {
    const { card, ribbon } = begin()
    await settled()
    ribbon.go(6, 10)
    await allCome()
    expect(ribbon.ready.filter(Boolean)).toHaveLength(2)
    await rest()
    // Two engines at once, and what is there already is not asked for.
    expect(asked.map(({ frame }) => frame)).toEqual([7, 8])
    await allCome()
    expect(ribbon.ready).toEqual(new Array(10).fill(true))
    const old = made.filter(({ closed }) => !closed)
    card.value = { ...card.value!, name: 'Edited' }
    await settled()
    expect(ribbon.ready).toEqual(new Array(10).fill(false))
    await come()
    expect(old.every(({ closed }) => closed)).toBe(true)
  })

  test('a picture of the card before comes too late and is not kept', async () => {
    const { card, ribbon } = begin()
    await settled()
    await come()
    await rest()
    const late = asked.splice(0)
    card.value = { ...card.value!, name: 'Edited' }
    await settled()
    for (const { frame, look, give, card: before } of late) {
      const picture = new Picture(before, frame, look)
      give({ bitmap: picture, milliseconds: 1, engines: 1 })
      await settled()
      expect(picture.closed).toBe(true)
    }
    expect(ribbon.ready.some(Boolean)).toBe(false)
    await allCome()
    expect(made.at(-1)!.card.name).toBe('Edited')
  })

  test('plays from what is ready at the rate of the card, round the seam, and asks for nothing', async () => {
    const { ribbon, shown } = begin()
    await settled()
    await allCome()
    await rest()
    await allCome()
    const before = made.length
    ribbon.playing = true
    await settled()
    const seen: number[] = []
    for (let i = 1; i <= 12; i++) {
      // A frame of 25 a second, and a little more.
      time += 40.01
      frames.at(-1)!(time)
      await settled()
      expect(shown().frame).toBe(ribbon.frame)
      seen.push(ribbon.frame)
    }
    expect(seen).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 1, 2])
    expect([made.length, asked.length]).toEqual([before, 0])
    ribbon.playing = false
    await settled()
    time += 400
    frames.at(-1)!(time)
    expect(ribbon.frame).toBe(2)
  })
})

describe('what the preview is compared with', () => {
  test('is made only while it is wanted, and of several the last', async () => {
    const [card, wanted] = [shallowRef<Card | null>(threeBoxes()), ref(false)]
    const scope = effectScope()
    const picture = scope.run(() => useComparison({ name: 'before', card, scale: ref(1) }, wanted))!
    await settled()
    expect(asked).toEqual([])
    wanted.value = true
    await settled()
    useRibbon().go(4, 100)
    await settled()
    const [first, second] = [await come(), await come()]
    expect(first.closed).toBe(true)
    expect(picture.value).toBe(second)
    expect(second.frame).toBe(4)
    scope.stop()
    expect(second.closed).toBe(true)
  })
})
