import { beforeEach, describe, expect, test } from '@jest/globals'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { DELIVERY_FORMATS, deliveryOf } from '#core/formats/deliveries/table'
import { aboutRender, badgeWords, deliveryWords, rateWords, sizeWords } from '~/composables/render-words'
import { useBatches } from '~/stores/batches'
import type { RenderRow } from '~/stores/renders'
import { isActive, useRenders } from '~/stores/renders'
import { useWorkers } from '~/stores/workers'
import { Connections, freshStores, page, Refusal, standInServer } from './stand-in'

// What the press room says, and what it asks the server for.

const row = (values: object = {}): RenderRow =>
  ({
    ...{ id: 'one', cardId: 'card-1', name: 'Opening', take: 1, status: 'done', framesDone: 0, framesTotal: 50 },
    ...{ frame: { width: 1920, height: 1080 }, rate: { numerator: 30_000, denominator: 1001 }, report: null },
    options: expectOptions({ format: 'prores4444', from: 0, to: 50, scale: 0.5 }),
    ...values,
  }) as unknown as RenderRow

beforeEach(freshStores)

describe('a render in words', () => {
  test.each(DELIVERY_FORMATS)('as %s: named as its table has it, with its depth where that can be chosen', (format) => {
    const options = expectOptions({ format, from: 0, to: 1 })
    const { label, options: table } = deliveryOf(format)
    const words = deliveryWords(options)
    expect(words.startsWith(label)).toBe(true)
    expect(words.length > label.length).toBe(table.bits?.kind === 'choice')
  })

  test('says its size as it was rendered, its rate and its frames; one frame has no rate', () => {
    expect(aboutRender(row())).toMatch(/ · 960×540 · 29\.97 fps · 50 frames$/)
    const options = expectOptions({ format: 'still', from: 0, to: 1 })
    expect(aboutRender(row({ options, framesTotal: 1 }))).toMatch(/ · 1920×1080 · one frame$/)
  })

  test('says its pace only once something is known of it', () => {
    expect(rateWords(undefined)).toEqual([])
    const pace = { rate: 4.26, left: 130 }
    expect(rateWords(pace as never)[0]).toBe('4.3 frames a second')
    expect(rateWords({ ...pace, rate: 31.6 } as never)[0]).toBe('32 frames a second')
    expect(rateWords({ ...pace, left: null } as never)).toEqual([])
  })

  test('says how large its file is, never nothing', () => {
    expect([1, 999, 1500, 999_499, 1_000_000, 48_260_000].map(sizeWords)).toEqual([
      ...['1 KB', '1 KB', '2 KB', '999 KB'],
      ...['1.0 MB', '48.3 MB'],
    ])
  })

  test('says of its alpha what was measured, and claims none where there is none', () => {
    const alpha = (largest: number, mean: number) => badgeWords(row({ report: { alpha: { largest, mean } } }))
    expect(alpha(0, 0)).toEqual({ title: 'Transparency verified', more: 'alpha is the same everywhere' })
    expect(alpha(1.5, 0.0312).more).toBe('alpha off by 1.50 at most, 0.031 on average, of 255')
    expect(badgeWords(row({ report: { alpha: null } })).title).toBe('Checked, no transparency')
    expect(badgeWords(row()).title).toBe('Checked, no transparency')
  })

  test('is under way until it is done, failed or cancelled', () => {
    const states = ['queued', 'running', 'checking', 'done', 'failed', 'cancelled']
    expect(states.filter((status) => isActive(row({ status })))).toEqual(['queued', 'running', 'checking'])
  })
})

describe('the list', () => {
  test('a card’s takes are counted by the highest there is', () => {
    const renders = useRenders()
    renders.list = [row({ take: 2 }), row({ id: 'two', take: 5 }), row({ id: 'three', cardId: 'other', take: 9 })]
    expect([renders.takes('card-1'), renders.takes('other'), renders.takes('nobody')]).toEqual([5, 9, 0])
  })

  test('follows what the server tells: changes in place, new ones first, gone ones out; what was missed is asked for', async () => {
    const asked = standInServer({ 'GET /renders': [row(), row({ id: 'two' })] })
    page()
    Connections.reset()
    const renders = useRenders()
    const stop = renders.follow()
    const [source] = Connections.open
    source!.happen('open')
    await new Promise((go) => setImmediate(go))
    expect(asked).toHaveLength(1)
    source!.happen('render', JSON.stringify(row({ status: 'running', framesDone: 3 })))
    source!.happen('render', JSON.stringify(row({ id: 'new', status: 'queued' })))
    expect(renders.list.map(({ id, status }) => [id, status])).toEqual([
      ['new', 'queued'],
      ['one', 'running'],
      ['two', 'done'],
    ])
    expect(renders.busy).toBe(true)
    // How fast they are is known of those that are in work alone.
    expect([...renders.paces.keys()].sort()).toEqual(['new', 'one'])
    source!.happen('render', JSON.stringify(row({ status: 'done' })))
    expect([...renders.paces.keys()]).toEqual(['new'])
    source!.happen('gone', 'new')
    source!.happen('gone', 'one')
    expect(renders.busy).toBe(false)
    stop()
    expect(Connections.open).toHaveLength(0)
  })

  test('asks for what is done with a render, and keeps it as it was where that is refused', async () => {
    const fault = { code: 'busy', place: 'render', message: 'It is being read.', remedy: 'Wait.' }
    const asked = standInServer({
      'POST /renders/one/cancel': row({ status: 'cancelled' }),
      'POST /renders/one/go-on': row({ status: 'queued' }),
      'PATCH /renders/one': row({ kept: true }),
      'POST /renders': row({ id: 'again', status: 'queued' }),
      'DELETE /renders/one': new Refusal(409, fault),
    })
    const renders = useRenders()
    renders.list = [row({ status: 'running' })]
    await renders.cancel('one')
    expect(renders.list[0]!.status).toBe('cancelled')
    await renders.goOn('one')
    expect(renders.list[0]!.status).toBe('queued')
    await renders.keep('one', true)
    const wish = { format: 'png', from: 0, to: 9 } as const
    await renders.again('one', wish)
    expect(renders.list.map(({ id }) => id)).toEqual(['again', 'one'])
    await expect(renders.remove('one')).rejects.toMatchObject({ fault })
    expect(renders.list.map(({ id }) => id)).toEqual(['again', 'one'])
    expect(asked.map(({ body }) => body)).toContainEqual({ renderId: 'one', options: wish })
  })
})

describe('jobs of many files', () => {
  const batch = (id: string, values: object = {}) => ({ id, running: 1, done: 0, cancelled: 0, ...values })

  test('stand in the list once, the newest first; what is unfolded has its rows', async () => {
    standInServer({
      'GET /batches': [batch('a')],
      'POST /batches': batch('b'),
      'GET /batches/a': { ...batch('a', { running: 0, done: 1 }), renders: [row(), row({ id: 'two' })] },
      'POST /batches/b/cancel': batch('b', { running: 0, cancelled: 1 }),
      'POST /batches/b/go-on': batch('b'),
      'DELETE /batches/a': null,
    })
    const batches = useBatches()
    await batches.load()
    await batches.start({} as never)
    await batches.loadRows('a')
    expect(batches.list.map(({ id, running, done }) => [id, running, done])).toEqual([
      ['b', 1, 0],
      ['a', 0, 1],
    ])
    expect(batches.rows.a!.map(({ id }) => id)).toEqual(['one', 'two'])
    expect(batches.list[1]).not.toHaveProperty('renders')
    await batches.cancel('b')
    expect(batches.list[0]!.cancelled).toBe(1)
    await batches.goOn('b')
    await batches.remove('a')
    expect(batches.list.map(({ id, running }) => [id, running])).toEqual([['b', 1]])
  })
})

describe('workers', () => {
  const worker = (place: 'here' | 'elsewhere', id: string) => ({ id, name: id, place, lanes: 1 })

  test('are told by where they are', () => {
    const workers = useWorkers()
    const words = (...list: ReturnType<typeof worker>[]) => {
      workers.list = list
      return workers.words
    }
    expect(words()).toBe('No worker')
    expect(words(worker('here', 'a'))).toBe('1 worker here')
    expect(words(worker('here', 'a'), worker('here', 'b'))).toBe('2 workers here')
    expect(words(worker('here', 'a'), worker('elsewhere', 'b'))).toBe('1 worker here · 1 elsewhere')
    expect(words(worker('elsewhere', 'b'))).toBe('1 elsewhere')
  })

  test('a token is told once, and kept in the list without its secret', async () => {
    const made = { id: 't', name: 'Machine', createdAt: 'now', usedAt: null }
    standInServer({ 'POST /tokens': { ...made, token: 'secret' }, 'DELETE /tokens/t': null })
    const workers = useWorkers()
    expect(await workers.makeToken('Machine')).toBe('secret')
    expect(workers.tokens).toEqual([made])
    await workers.withdraw('t')
    expect(workers.tokens).toEqual([])
  })
})
