import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import fc from 'fast-check'
import { setStored } from '#core/edit/values'
import type { Card } from '#core/card/schema'
import type { SaveRequest } from '~/composables/document-saver'
import { useBench } from '~/stores/bench'
import { freshStores, threeBoxes } from './stand-in'

// Saving over a road on which everything can go wrong: nothing that a hand did is lost, and no window meets itself.

beforeEach(() => {
  jest.useFakeTimers()
  freshStores()
})
afterEach(() => {
  jest.useRealTimers()
})

/** What becomes of one request: when its answer comes, and whether it or the answer gets lost. */
interface Fate {
  delay: number
  loss: 'none' | 'request' | 'answer' | 'refused'
}

/** The server as its routes behave, behind a road that delays and loses. */
class Server {
  readonly rows = new Map<string, { document: Card; revision: number; saves: { save: string; revision: number }[] }>()
  readonly conflicts: string[] = []
  private readonly underWay = new Set<string>()
  /** Saves that began while another of the same card was under way. */
  crowded = 0

  constructor(private readonly fates: Fate[]) {
    for (const id of ['a', 'b']) this.rows.set(id, { document: { ...threeBoxes(), name: id }, revision: 1, saves: [] })
    globalThis.fetch = ((url: string, init: RequestInit = {}) => this.answer(url, init)) as typeof fetch
  }

  private async answer(url: string, init: RequestInit): Promise<Response> {
    const id = url.split('/').at(-1)!
    const fate = this.fates.shift() ?? { delay: 1, loss: 'none' }
    const wait = () => new Promise((resolve) => setTimeout(resolve, fate.delay))
    if (init.method !== 'PUT') {
      await wait()
      const { document, revision } = this.rows.get(id)!
      return json(200, { id, revision, document })
    }
    const request = JSON.parse(String(init.body)) as SaveRequest<Card>
    if (this.underWay.has(id)) this.crowded++
    this.underWay.add(id)
    try {
      if (fate.loss === 'request') throw new TypeError('fetch failed')
      if (fate.loss === 'refused') return json(503, { data: { code: 'no-database' } })
      const saved = this.save(id, request)
      await wait()
      if (fate.loss === 'answer') throw new TypeError('fetch failed')
      return saved
    } finally {
      this.underWay.delete(id)
    }
  }

  private save(id: string, { save, document, revision }: SaveRequest<Card>): Response {
    const row = this.rows.get(id)!
    const known = row.saves.find((other) => other.save === save)
    if (known) return json(200, { revision: known.revision })
    if (revision !== row.revision) {
      this.conflicts.push(id)
      return json(409, { data: { code: 'newer-revision' } })
    }
    this.rows.set(id, { document, revision: revision + 1, saves: [...row.saves, { save, revision: revision + 1 }] })
    return json(200, { revision: revision + 1 })
  }
}

const json = (status: number, body: unknown) => ({ ok: status < 300, status, json: async () => body }) as Response
const moveTo = (value: number) => (card: Card) => setStored(card, 'front/x', value)
const x = (card: Card) => (card.pieces[0] as { x: number }).x

const fate = fc.record<Fate>({
  delay: fc.constantFrom(0, 5, 300, 1500, 4000),
  loss: fc.constantFrom('none', 'none', 'none', 'request', 'answer', 'refused'),
})
const deed = fc.oneof(
  { weight: 5, arbitrary: fc.record({ kind: fc.constant('edit' as const) }) },
  { weight: 4, arbitrary: fc.record({ kind: fc.constant('wait' as const), ms: fc.constantFrom(1, 100, 600, 2500) }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('open' as const), card: fc.constantFrom('a', 'b') }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('save' as const) }) },
)

test('any order of edits, answers, failures and cards: nothing is lost, no false conflict, one save at a time', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fate, { maxLength: 25 }), fc.array(deed, { maxLength: 40 }), async (fates, deeds) => {
      freshStores()
      const server = new Server([])
      const bench = useBench()
      const first = bench.open('a')
      await jest.advanceTimersByTimeAsync(10)
      await first
      const done = new Map<string, number>()
      server['fates'].push(...fates)
      let value = 0
      for (const one of deeds) {
        if (one.kind === 'edit' && bench.card) {
          bench.edit('Move', moveTo(++value))
          done.set(bench.id, value)
        } else if (one.kind === 'wait') await jest.advanceTimersByTimeAsync(one.ms)
        else if (one.kind === 'open') {
          // As a page that opens: nothing to see until the card is there.
          bench.card = null
          void bench.open(one.card).catch(() => {})
        } else if (one.kind === 'save') void bench.save()
      }
      server['fates'].length = 0
      await jest.advanceTimersByTimeAsync(120_000)
      expect(server.conflicts).toEqual([])
      expect(server.crowded).toBe(0)
      for (const [id, last] of done) expect([id, x(server.rows.get(id)!.document)]).toEqual([id, last])
      expect(bench.hasUnsaved()).toBe(false)
      expect(bench.newer).toBe(false)
    }),
    { numRuns: 150 },
  )
})

describe('a card that is left', () => {
  test('while its save is under way keeps its revision to itself', async () => {
    const server = new Server([{ delay: 1, loss: 'none' }])
    const bench = useBench()
    void bench.open('a')
    await jest.advanceTimersByTimeAsync(5)
    server['fates'].push({ delay: 3000, loss: 'none' }, { delay: 1, loss: 'none' })
    bench.edit('Move', moveTo(7))
    await jest.advanceTimersByTimeAsync(600)
    void bench.open('b')
    await jest.advanceTimersByTimeAsync(100)
    expect([bench.id, bench.revision, bench.saveState]).toEqual(['b', 1, 'saved'])
    await jest.advanceTimersByTimeAsync(5000)
    expect([bench.id, bench.revision]).toEqual(['b', 1])
    expect(server.rows.get('a')!.revision).toBe(2)
  })

  test('with a save that failed goes on trying, and is shown as it was left when it is opened again', async () => {
    const lost = Array.from({ length: 8 }, (): Fate => ({ delay: 1, loss: 'request' }))
    const server = new Server([{ delay: 1, loss: 'none' }])
    const bench = useBench()
    void bench.open('a')
    await jest.advanceTimersByTimeAsync(5)
    server['fates'].push({ delay: 1, loss: 'request' }, { delay: 1, loss: 'none' }, ...lost)
    bench.edit('Move', moveTo(7))
    await jest.advanceTimersByTimeAsync(600)
    expect(bench.saveState).toBe('failed')
    void bench.open('b')
    await jest.advanceTimersByTimeAsync(50)
    expect([bench.id, bench.hasUnsaved()]).toEqual(['b', true])
    void bench.open('a')
    await jest.advanceTimersByTimeAsync(50)
    expect([bench.id, x(bench.card!), bench.saveState]).toEqual(['a', 7, 'failed'])
    await jest.advanceTimersByTimeAsync(120_000)
    expect([bench.saveState, x(server.rows.get('a')!.document)]).toEqual(['saved', 7])
  })
})

test('a drag without a rest is saved on its way', async () => {
  const server = new Server([])
  const bench = useBench()
  void bench.open('a')
  await jest.advanceTimersByTimeAsync(5)
  for (let i = 1; i <= 40; i++) {
    bench.edit('Move', moveTo(i), 'front/x')
    await jest.advanceTimersByTimeAsync(100)
  }
  // Whoever pulls the plug now loses at most a second.
  expect(x(server.rows.get('a')!.document)).toBeGreaterThan(30)
})

test('a hand that rests in the middle of a drag goes on with the same step', async () => {
  new Server([])
  const bench = useBench()
  void bench.open('a')
  await jest.advanceTimersByTimeAsync(5)
  bench.dragging = true
  bench.edit('Move', moveTo(1), 'front/x')
  await jest.advanceTimersByTimeAsync(5000)
  bench.edit('Move', moveTo(2), 'front/x')
  expect(bench.past).toHaveLength(1)
  bench.endStep()
  bench.edit('Move', moveTo(3), 'front/x')
  expect(bench.past).toHaveLength(2)
})

describe('an answer that never comes', () => {
  test('is given up in time, and the same save is sent again: it is known by its id', async () => {
    const server = new Server([{ delay: 1, loss: 'none' }])
    const bench = useBench()
    void bench.open('a')
    await jest.advanceTimersByTimeAsync(5)
    // It arrives, and its answer is on the way for ever.
    server['fates'].push({ delay: 10 ** 9, loss: 'none' })
    bench.edit('Move', moveTo(7))
    await jest.advanceTimersByTimeAsync(600)
    expect(bench.saveState).toBe('saving')
    await jest.advanceTimersByTimeAsync(25_000)
    expect([bench.saveState, bench.hasUnsaved(), server.rows.get('a')!.revision]).toEqual(['saved', false, 2])
    expect(server.conflicts).toEqual([])
  })

  test.each([408, 429])('nor does %s say that it has not arrived', async (status) => {
    const server = new Server([{ delay: 1, loss: 'none' }])
    const bench = useBench()
    void bench.open('a')
    await jest.advanceTimersByTimeAsync(5)
    const answers = server['answer'].bind(server)
    let told = 0
    server['answer'] = async (url, init) => {
      const answer = await answers(url, init)
      return init.method === 'PUT' && told++ === 0 ? json(status, { data: { code: 'slow' } }) : answer
    }
    bench.edit('Move', moveTo(7))
    await jest.advanceTimersByTimeAsync(5000)
    // Taken for not arrived it would have been sent as another save, over a revision that is none any more.
    expect([server.conflicts, server.rows.get('a')!.revision, bench.saveState]).toEqual([[], 2, 'saved'])
  })
})

test('who took over once does not take over again: the next save is one like any other', async () => {
  const server = new Server([{ delay: 1, loss: 'none' }])
  const sent: SaveRequest<Card>[] = []
  const save = server['save'].bind(server)
  server['save'] = (id, request) => {
    sent.push(request)
    return save(id, request)
  }
  const bench = useBench()
  void bench.open('a')
  await jest.advanceTimersByTimeAsync(5)
  const mine = bench.takeOver()
  await jest.advanceTimersByTimeAsync(50)
  await mine
  bench.edit('Move', moveTo(7))
  await jest.advanceTimersByTimeAsync(2000)
  expect(sent.map(({ takeOver }) => takeOver)).toEqual([true, undefined])
})
