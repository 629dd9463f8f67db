import { beforeEach, describe, expect, test } from '@jest/globals'
import { createFinish, createMask, createStep } from '#core/card/create'
import type { Card, Finish, GroupPiece } from '#core/card/schema'
import { setStored } from '#core/edit/values'
import { FINISHES, FINISH_KINDS } from '#core/finishes/table'
import { MASKS, MASK_KINDS } from '#core/masks/table'
import { STEPS, STEP_KINDS } from '#core/steps/table'
import { momentOf } from '#core/time/ring'
import { clockWords } from '~/composables/clock-words'
import { allParametersOf, entryHeadline, entryTitle, familyOf } from '~/composables/entry-words'
import { usePutValues } from '~/composables/put-values'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { emptyCard, finish, withPiece } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

const moment = (frame = 0) => momentOf({ ...emptyCard(480, 270, 100) }, frame)

beforeEach(freshStores)

describe('a finish, an outline step or a mask in words', () => {
  const all = [
    ...FINISHES.map((definition) => ['finish', createFinish(definition.kind, 'one'), definition] as const),
    ...STEPS.map((definition) => ['step', createStep(definition.kind, 'one'), definition] as const),
    ...MASKS.map((definition) => ['mask', createMask(definition.kind, 'one'), definition] as const),
  ]

  test.each(all.map((one) => [`${one[0]} ${one[1].kind}`, ...one] as const))(
    '%s: its family, its name, and the value that says most of it',
    (_, family, entry, { label, parameters }) => {
      expect(familyOf(entry)).toBe(family)
      expect(entryTitle(entry).startsWith(label)).toBe(true)
      expect(entryTitle({ ...entry, name: 'Mine' })).toBe('Mine')
      expect(entryHeadline(entry, moment())).not.toMatch(/undefined|NaN|\[object/)
      expect(Object.keys(allParametersOf(entry))).toEqual(expect.arrayContaining(Object.keys(parameters)))
    },
  )

  test('no kind is in two tables', () => {
    const kinds = [...FINISH_KINDS, ...STEP_KINDS, ...MASK_KINDS]
    expect(new Set(kinds).size).toBe(kinds.length)
  })

  test('a length is told in its unit, a moving one as it is at the playhead', () => {
    const radius = (value: unknown) => ({ ...finish('blur'), radius: value }) as Finish
    expect(entryHeadline(radius(12.34), moment())).toBe('12.3 px')
    expect(entryHeadline(radius({ unit: '%', value: 4 }), moment())).toBe('4 %')
    const keys = [
      { frame: 0, value: 0, easing: 'linear' },
      { frame: 10, value: 20 },
    ]
    expect(entryHeadline(radius({ keys, loop: false }), moment(5))).toBe('10 px')
  })

  test('of a mask, what it does: more than how large it is', () => {
    const mask = createMask('box', 'one')
    expect(entryHeadline({ ...mask, mode: 'take' }, moment())).not.toBe(entryHeadline(mask, moment()))
  })
})

describe('a clock in words', () => {
  const group = (values: object) =>
    withPiece<GroupPiece>(emptyCard(480, 270, 100), 'group', values as Partial<GroupPiece>).pieces[0] as GroupPiece

  test.each([
    [{}, null],
    [{ clock: 'own' }, /^[a-z]/],
    [{ clock: 'own', clockSpeed: 50, clockBackward: true }, /^backward, 50 %, /],
    [{ clock: 'keyed', clockFrame: 12.34 }, /^held at frame 12\.3$/],
    [{ clock: 'keyed', clockFrame: { keys: [{ frame: 0, value: 3 }] } }, /^frame by hand$/],
  ])('%j', (values, words) => {
    const said = clockWords(group(values), moment())
    if (words === null) expect(said).toBeNull()
    else expect(said).toMatch(words)
  })
})

describe('what a hand on the stage writes', () => {
  async function opened(radius: unknown) {
    const boxes = threeBoxes()
    const treated = { ...finish('blur', {}, 'soft'), radius } as Finish
    const document: Card = {
      ...boxes,
      pieces: boxes.pieces.map((piece) => (piece.id === 'front' ? { ...piece, finishes: [treated] } : piece)),
    }
    standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document } })
    const bench = useBench()
    await bench.open('card-1')
    bench.select('front', 'soft')
    const entry = () => bench.piece!.finishes[0]!
    return { bench, entry, put: usePutValues(entry, () => 40) }
  }
  const radiusOf = (entry: object) => (entry as { radius: unknown }).radius

  test('is px where the value is in px, and % of its reference where it is in %', async () => {
    const px = await opened(10)
    px.put('Radius', { radius: 14.26 })
    expect(radiusOf(px.entry())).toBe(14.3)
    freshStores()
    const share = await opened({ unit: '%', value: 25 })
    share.put('Radius', { radius: 14 })
    expect(radiusOf(share.entry())).toEqual({ unit: '%', value: 35 })
  })

  test('stays within the range of the value, and is one step while it is moved', async () => {
    const { bench, entry, put } = await opened(10)
    put('Radius', { radius: -5 })
    expect(radiusOf(entry())).toBe(0)
    put('Radius', { radius: 5 })
    put('Radius', { radius: 6 })
    expect(bench.past.map(({ label }) => label)).toEqual(['Radius'])
  })

  test('is a key where the value moves', async () => {
    const { bench, entry, put } = await opened(10)
    const keys = [
      { frame: 0, value: 0, easing: 'linear' },
      { frame: 20, value: 20, easing: 'linear' },
    ]
    bench.edit('Move', (card) => setStored(card, 'front/soft/radius', { keys, loop: false }))
    useRibbon().go(10, 100)
    put('Radius', { radius: 3 })
    const { keys: now } = radiusOf(entry()) as { keys: { frame: number; value: number }[] }
    expect(now.map(({ frame, value }) => [frame, value])).toEqual([
      [0, 0],
      [10, 3],
      [20, 20],
    ])
  })
})
