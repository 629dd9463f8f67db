import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import fc from 'fast-check'
import type { KeptEdit, KeptEdits } from '~/composables/kept-edits'
import { useHistory } from '~/composables/history'
import { offerUnsaved } from '~/composables/unsaved-offer'
import { useSavedDocument } from '~/composables/saved-document'
import { ApiError, SILENT } from '~/composables/api'
import { useNotices } from '~/stores/notices'
import { freshStores } from './stand-in'

// What was done and is not saved outlives the tab: it lies in the browser until the server has it, and is offered back.

beforeEach(() => {
  jest.useFakeTimers()
  freshStores()
})
afterEach(() => {
  jest.useRealTimers()
})

/** A browser's store that outlives its tabs. */
function browser(): KeptEdits & { all: Map<string, KeptEdit> } {
  const all = new Map<string, KeptEdit>()
  return {
    all,
    put: async (edit) => void all.set(edit.place, structuredClone(edit)),
    get: async (place) => all.get(place) ?? null,
    drop: async (place) => void all.delete(place),
  }
}

interface Row {
  document: { text: string }
  revision: number
}

/** A server that can be away. */
class Server {
  isAway = false
  readonly rows = new Map<string, Row>([
    ['a', { document: { text: 'as it was' }, revision: 1 }],
    ['b', { document: { text: 'another' }, revision: 1 }],
  ])

  save(id: string, document: Row['document'], revision: number) {
    if (this.isAway) throw new ApiError(0, SILENT)
    if (this.rows.get(id)!.revision !== revision) throw new ApiError(409, { ...SILENT, code: 'newer-revision' })
    this.rows.set(id, { document, revision: revision + 1 })
    return { revision: revision + 1 }
  }
}

/** A tab with a document open. */
function tab(server: Server, edits: KeptEdits) {
  let shown: Row['document'] | null = null
  const history = useHistory<Row['document']>({
    now: () => shown,
    put: (next) => {
      shown = next
      saved.change(next)
    },
  })
  const saved = useSavedDocument<Row['document']>(
    {
      kind: 'card',
      load: async (id) => ({ id, ...server.rows.get(id)! }),
      send: async (id, { document, revision }) => server.save(id, document, revision),
      show: (_, document) => {
        shown = document
        history.begin()
      },
      found: (kept) => offerUnsaved(history, saved, kept.document as Row['document']),
    },
    edits,
  )
  return {
    ...saved,
    ...history,
    text: () => shown?.text,
    write: (text: string) => history.edit('Write', () => ({ text })),
  }
}
const offered = () => useNotices().current?.action ?? null

describe('after a tab fell while the server was away', () => {
  test('what was done is offered in the next one; taken, it is a step, saved like any other, and kept no longer', async () => {
    const [server, edits] = [new Server(), browser()]
    const first = tab(server, edits)
    await first.open('a')
    server.isAway = true
    for (let k = 1; k <= 20; k++) {
      first.write(`edit ${k}`)
      await jest.advanceTimersByTimeAsync(100)
    }
    await jest.advanceTimersByTimeAsync(400)
    expect(edits.all.get('card a')).toMatchObject({ document: { text: 'edit 20' }, revision: 1 })
    // It is gone, with all its timers.
    jest.clearAllTimers()
    server.isAway = false

    const second = tab(server, edits)
    await second.open('a')
    expect([second.text(), server.rows.get('a')!.document.text]).toEqual(['as it was', 'as it was'])
    await offered()!.run()
    expect(second.text()).toBe('edit 20')
    await jest.advanceTimersByTimeAsync(1500)
    expect(server.rows.get('a')).toEqual({ document: { text: 'edit 20' }, revision: 2 })
    expect([...edits.all]).toEqual([])
    second.undo()
    expect(second.text()).toBe('as it was')
  })

  test('over a newer revision it is offered too: nothing of the newer one is lost', async () => {
    const [server, edits] = [new Server(), browser()]
    edits.all.set('card a', { place: 'card a', document: { text: 'mine' }, revision: 1, at: 0 })
    server.rows.set('a', { document: { text: 'newer' }, revision: 5 })
    const own = tab(server, edits)
    await own.open('a')
    await offered()!.run()
    await own.save()
    expect(server.rows.get('a')).toEqual({ document: { text: 'mine' }, revision: 6 })
    own.undo()
    expect(own.text()).toBe('newer')
  })

  test('nobody sees that of another document; one that the server has already is not offered', async () => {
    const [server, edits] = [new Server(), browser()]
    edits.all.set('card a', { place: 'card a', document: { text: 'as it was' }, revision: 1, at: 0 })
    edits.all.set('roster b', { place: 'roster b', document: { text: 'of a roster' }, revision: 1, at: 0 })
    const own = tab(server, edits)
    await own.open('a')
    await own.open('b')
    expect(offered()).toBeNull()
  })

  test('an offer does not stand once something else was done, or elsewhere', async () => {
    const [server, edits] = [new Server(), browser()]
    edits.all.set('card a', { place: 'card a', document: { text: 'mine' }, revision: 1, at: 0 })
    const own = tab(server, edits)
    await own.open('a')
    const offer = offered()!
    expect(offer.stands!()).toBe(true)
    own.write('other')
    expect(offer.stands!()).toBe(false)
    await own.open('b')
    expect(offer.stands!()).toBe(false)
  })
})

test('a browser that keeps nothing hinders no saving', async () => {
  const server = new Server()
  const broken: KeptEdits = {
    put: () => Promise.reject(new Error('no room')),
    get: () => Promise.reject(new Error('no store')),
    drop: () => Promise.reject(new Error('no store')),
  }
  const own = tab(server, broken)
  await own.open('a')
  own.write('well')
  await jest.advanceTimersByTimeAsync(1500)
  expect([own.saveState.value, server.rows.get('a')!.document.text]).toEqual(['saved', 'well'])
})

test('whatever happens in whatever order: at the end it is with the server, or in the browser', async () => {
  const deed = fc.oneof(
    fc.record({ kind: fc.constant('write' as const) }),
    fc.record({ kind: fc.constant('wait' as const), ms: fc.constantFrom(50, 350, 700, 3000) }),
    fc.record({ kind: fc.constant('server' as const), away: fc.boolean() }),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(deed, { maxLength: 30 }), async (deeds) => {
      const [server, edits] = [new Server(), browser()]
      const own = tab(server, edits)
      await own.open('a')
      let count = 0
      for (const one of deeds) {
        if (one.kind === 'write') own.write(`edit ${++count}`)
        else if (one.kind === 'wait') await jest.advanceTimersByTimeAsync(one.ms)
        else server.isAway = one.away
      }
      await jest.advanceTimersByTimeAsync(350)
      // The tab falls here.
      jest.clearAllTimers()
      const last = count === 0 ? 'as it was' : `edit ${count}`
      const kept = (edits.all.get('card a')?.document as Row['document'] | undefined)?.text
      expect([server.rows.get('a')!.document.text, kept]).toContain(last)
    }),
    { numRuns: 100 },
  )
})
