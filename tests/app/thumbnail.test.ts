import { beforeEach, expect, jest, test } from '@jest/globals'
import type { EffectScope, Ref } from 'vue'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import { emptyCard } from '../support/engine'

// When a small picture is made, and of what the engines know meanwhile.

const page = new EventTarget()
Object.assign(globalThis, { document: page, window: { devicePixelRatio: 1 } })

/** What the engines were asked, in order; each picture is there when the test says so. */
const asked: string[] = []
const given: ((width: number) => void)[] = []
const bitmaps: { width: number; closed: boolean; close(): void }[] = []
jest.unstable_mockModule('~/workers/engine-pool', () => ({
  setCard: (name: string, card: Card) => asked.push(`set ${name} ${card.name}`),
  forgetCard: (name: string) => asked.push(`forget ${name}`),
  inTurn: (work: () => Promise<unknown>, wanted: () => boolean) => Promise.resolve().then(() => wanted() && work()),
  pictureOf: (name: string, frame: number) => {
    asked.push(`picture ${name} ${frame}`)
    return new Promise((go) =>
      given.push((width) => {
        const bitmap = { width, closed: false, close: () => (bitmap.closed = true) }
        bitmaps.push(bitmap)
        go({ bitmap })
      }),
    )
  },
}))
const { useThumbnail } = await import('~/composables/thumbnail')

const named = (name: string): Card => ({ ...emptyCard(320, 180, 10), name })
const settled = async () => {
  await nextTick()
  await new Promise((go) => setImmediate(go))
}

let scope: EffectScope
const use = (card: Ref<Card | null>, near: Ref<boolean>, made?: (still: ImageBitmap) => void) =>
  scope.run(() => useThumbnail('tile', card, 160, near, undefined, made))!

beforeEach(() => {
  asked.length = given.length = bitmaps.length = 0
  scope = effectScope()
})

test('it is made when it is near, once, and told of', async () => {
  const near = ref(false)
  const told: unknown[] = []
  const { picture } = use(shallowRef(named('A')), near, (still) => told.push(still))
  await settled()
  expect(asked).toEqual([])
  near.value = true
  await settled()
  expect(asked).toEqual(['set tile A', 'picture tile 5'])
  given[0]!(160)
  await settled()
  expect(picture.value).toMatchObject({ width: 160 })
  expect(told).toEqual([picture.value])
  near.value = false
  await settled()
  near.value = true
  await settled()
  expect(asked).toHaveLength(2)
  scope.stop()
  expect(asked.at(-1)).toBe('forget tile')
  expect(bitmaps.every(({ closed }) => closed)).toBe(true)
})

test('while something scrolls none is begun; when it rests those that are near are', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] })
  const near = ref(true)
  use(shallowRef(named('A')), near)
  page.dispatchEvent(new Event('scroll'))
  await settled()
  expect(asked).toEqual([])
  jest.advanceTimersByTime(1000)
  await settled()
  await settled()
  expect(asked).toEqual(['set tile A', 'picture tile 5'])
  jest.useRealTimers()
  scope.stop()
})

test('of a card that changed meanwhile the old picture is let go, and the new one made', async () => {
  const card = shallowRef<Card | null>(named('A'))
  const { picture } = use(card, ref(true))
  await settled()
  card.value = named('B')
  await settled()
  expect(asked).toEqual(['set tile A', 'picture tile 5', 'set tile B', 'picture tile 5'])
  given[0]!(1)
  given[1]!(2)
  await settled()
  expect(picture.value).toMatchObject({ width: 2 })
  expect(bitmaps.map(({ closed }) => closed)).toEqual([true, false])
  // The engines forget it, though the last card was never told of.
  card.value = null
  await settled()
  scope.stop()
  expect(asked.at(-1)).toBe('forget tile')
})

test('one that is asked to play waits for its card', async () => {
  const card = shallowRef<Card | null>(null)
  const { playing } = use(card, ref(false))
  playing.value = true
  await settled()
  expect(asked).toEqual([])
  card.value = named('A')
  await settled()
  expect(asked[0]).toBe('set tile A')
  expect(asked[1]).toMatch(/^picture tile /)
  playing.value = false
  scope.stop()
})
