import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import type { EffectScope } from 'vue'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { RowFlag } from '#core/judge/row/definition'
import type { RowCard } from '#core/rosters/rows'
import { emptyCard, withBox } from '../support/engine'

// In which order rows are looked at, which of them again, and when not.

const scrolling = ref(false)
jest.unstable_mockModule('~/composables/scrolling', () => ({ useScrolling: () => scrolling }))

/** What the worker was asked, in order; each answer is there when the test gives it. */
const asked: string[] = []
const answers: ((flags: RowFlag[] | Error) => void)[] = []
let ended = 0
const face = {
  setDesign: (card: Card) => Promise.resolve(void asked.push(`design ${card.name}`)),
  look: (card: Card) => {
    asked.push(card.name)
    return new Promise((go, fail) => answers.push((flags) => (flags instanceof Error ? fail(flags) : go(flags))))
  },
  fitted: (piece: string) => Promise.resolve({ ...named('fitted'), id: piece }),
}
jest.unstable_mockModule('comlink', () => ({ wrap: () => face }))
Object.assign(globalThis, {
  Worker: class {
    terminate = () => void ended++
  },
})
const { useRowLooks } = await import('~/composables/row-looks')

const named = (name: string, x = 160): Card => ({
  ...withBox(emptyCard(320, 180, 10), { x, y: 90, width: 40, height: 40 }, {}),
  name,
})
const row = (id: string, x?: number): RowCard =>
  ({ row: { id, on: true, cells: {} }, card: named(id, x), holds: 10 }) as unknown as RowCard
const flag = (kind: string) => ({ kind }) as unknown as RowFlag

const settled = async () => {
  await nextTick()
  for (let i = 0; i < 4; i++) await new Promise((go) => setImmediate(go))
}
const answer = async (flags: RowFlag[] | Error = []) => {
  answers.shift()!(flags)
  await settled()
}

let scope: EffectScope
const design = shallowRef<Card | null>(null)
const rows = shallowRef<readonly RowCard[]>([])
const first = ref<string[]>([])
const use = () => scope.run(() => useRowLooks(design, rows, first))!

beforeEach(() => {
  asked.length = answers.length = ended = 0
  scrolling.value = false
  design.value = named('crew')
  rows.value = ['a', 'b', 'c', 'd'].map((id) => row(id))
  first.value = []
  scope = effectScope()
})
afterEach(() => scope.stop())

test('those that are seen come first, one after the other, each once', async () => {
  first.value = ['c']
  const looks = use()
  await settled()
  expect(asked).toEqual(['design crew', 'c'])
  expect(looks.flagsOf('c')).toBeNull()
  first.value = ['c', 'd']
  await answer([flag('outside')])
  expect(looks.flagsOf('c')).toEqual([{ kind: 'outside' }])
  for (let i = 0; i < 3; i++) await answer()
  expect(asked).toEqual(['design crew', 'c', 'd', 'a', 'b'])
  expect(looks.done.value).toBe(4)
})

test('only what changed is looked at again; what was found meanwhile stays to be seen', async () => {
  const looks = use()
  await settled()
  for (let i = 0; i < 4; i++) await answer([flag('outside')])
  asked.length = 0
  rows.value = [row('a'), row('b', 80), row('c'), row('e')]
  await settled()
  expect(looks.flagsOf('b')).toEqual([{ kind: 'outside' }])
  await answer()
  await answer()
  expect(asked).toEqual(['b', 'e'])
  expect(looks.flagsOf('b')).toEqual([])
})

test('another card begins anew: what is on its way for the old one is not taken', async () => {
  const looks = use()
  await settled()
  design.value = named('title')
  await settled()
  expect(ended).toBe(1)
  await answer([flag('outside')])
  expect(looks.flagsOf('a')).toBeNull()
  expect(asked).toEqual(['design crew', 'a', 'design title', 'a'])
  design.value = null
  await settled()
  expect([ended, looks.done.value]).toEqual([2, 0])
  expect(await looks.fitted('name')).toBeNull()
})

test('a row that cannot be looked at holds no other up', async () => {
  const looks = use()
  await settled()
  await answer(new Error('lost'))
  expect(looks.flagsOf('a')).toEqual([])
  expect(asked).toEqual(['design crew', 'a', 'b'])
})

test('none is begun while something scrolls', async () => {
  use()
  await settled()
  scrolling.value = true
  await answer()
  expect(asked).toEqual(['design crew', 'a'])
  scrolling.value = false
  await settled()
  expect(asked).toEqual(['design crew', 'a', 'b'])
})
