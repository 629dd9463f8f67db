import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { effectScope } from 'vue'
import { useEditFrames } from '~/composables/edit-frames'

// The frames of a delivered file: fetched ahead of what is played, kept within a budget, each given back once.

class Bitmap {
  static made: Bitmap[] = []
  closed = false
  constructor(
    readonly place: number,
    readonly width: number | undefined,
  ) {
    Bitmap.made.push(this)
  }
  close() {
    expect(this.closed).toBe(false)
    this.closed = true
  }
}

const COUNT = 600
const BROKEN = 555
let asked: string[]
let waiting: (() => void)[]
let about: { there: number; ended: boolean } | null

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
  ;[asked, waiting, Bitmap.made] = [[], [], []]
  about = { there: COUNT, ended: true }
  globalThis.fetch = (async (url: string) => {
    asked.push(url)
    if (url.endsWith('/as-read')) {
      const fault = { code: 'gone', place: 'render', message: 'It is gone.', remedy: 'Render it again.' }
      if (!about) return { ok: false, status: 404, json: async () => ({ data: fault }) }
      const order = Array.from({ length: COUNT }, (_, i) => i)
      return { ok: true, status: 200, json: async () => ({ width: 1920, height: 1080, order, ...about }) }
    }
    await new Promise<void>((go) => waiting.push(go))
    const place = Number(url.split('/').at(-1))
    return { ok: place !== BROKEN, blob: async () => place }
  }) as unknown as typeof fetch
  globalThis.createImageBitmap = (async (place: unknown, options: ImageBitmapOptions) =>
    new Bitmap(place as number, options.resizeWidth)) as unknown as typeof createImageBitmap
})
afterEach(() => {
  jest.useRealTimers()
})

const soon = () => new Promise<void>((go) => setImmediate(go))

/** Lets so many answers come. */
async function answer(count: number) {
  for (let i = 0; i < count; i++) {
    waiting.shift()?.()
    await soon()
  }
}
const places = () => asked.filter((url) => !url.endsWith('as-read')).map((url) => Number(url.split('/').at(-1)))

async function begin() {
  const scope = effectScope()
  const frames = scope.run(() => useEditFrames('render-1', () => 640))!
  await soon()
  return { frames, scope }
}

describe('how far a file has been read', () => {
  test('is asked again until it is, and not once nobody looks any more', async () => {
    about = { there: 3, ended: false }
    const { frames, scope } = await begin()
    expect(frames.about.value).toMatchObject({ there: 3 })
    about = { there: 9, ended: false }
    jest.advanceTimersByTime(500)
    await soon()
    expect(frames.about.value).toMatchObject({ there: 9 })
    scope.stop()
    jest.advanceTimersByTime(5000)
    await soon()
    expect(asked).toHaveLength(2)
  })

  test('is told where it cannot be, and asked again by hand', async () => {
    about = null
    const { frames } = await begin()
    expect(frames.fault.value).toMatchObject({ message: 'It is gone.', remedy: 'Render it again.' })
    jest.advanceTimersByTime(5000)
    await soon()
    expect(asked).toHaveLength(1)
    about = { there: COUNT, ended: true }
    await frames.retry()
    expect([frames.fault.value, frames.about.value?.there]).toEqual([null, COUNT])
  })
})

describe('what is played', () => {
  test('is fetched ahead, four at once, round the end, each once, at the size of the stage', async () => {
    const { frames } = await begin()
    frames.ahead(598)
    frames.ahead(598)
    await soon()
    expect(places()).toEqual([598, 599, 0, 1])
    await answer(2)
    expect(places()).toEqual([598, 599, 0, 1, 2, 3])
    expect(frames.small(598)).toMatchObject({ place: 598, width: 640 })
    expect(frames.small(3)).toBeNull()
    await answer(200)
    // So many ahead, and no more until it is played on.
    expect(places()).toHaveLength(120)
    expect(new Set(places()).size).toBe(120)
  })

  test('is kept within its budget: those go whose turn comes last', async () => {
    const { frames } = await begin()
    for (let from = 0; from < 480; from += 60) {
      frames.ahead(from)
      await answer(200)
    }
    const open = Bitmap.made.filter(({ closed }) => !closed).map(({ place }) => place)
    // From 420 on, and then, round the end, from the beginning.
    const run = (from: number) => Array.from({ length: 120 }, (_, i) => from + i)
    expect(open.sort((a, b) => a - b)).toEqual([...run(0), ...run(420)])
    expect(frames.small(419)).toBeNull()
    expect(frames.small(119)).toMatchObject({ place: 119 })
  })

  test('what comes after the stage is closed is given back at once', async () => {
    const { frames, scope } = await begin()
    frames.ahead(20)
    await soon()
    await answer(1)
    scope.stop()
    await answer(4)
    expect(Bitmap.made.length).toBeGreaterThan(1)
    expect(Bitmap.made.every(({ closed }) => closed)).toBe(true)
  })
})

describe('a frame that is looked at', () => {
  test('comes in its own size, once; the next one takes its place', async () => {
    const { frames } = await begin()
    const [one, same] = [frames.own(5), frames.own(5)]
    await answer(2)
    expect(await one).toBe(await same)
    expect(await one).toMatchObject({ place: 5, width: undefined, closed: false })
    const next = frames.own(6)
    await answer(1)
    await soon()
    expect(await one).toMatchObject({ closed: true })
    expect(await next).toMatchObject({ place: 6, closed: false })
  })

  test('that could not be read is asked for again', async () => {
    const { frames } = await begin()
    const first = frames.own(BROKEN)
    await answer(1)
    expect(await first).toBeNull()
    await soon()
    void frames.own(BROKEN)
    await soon()
    expect(places()).toEqual([BROKEN, BROKEN])
  })
})
