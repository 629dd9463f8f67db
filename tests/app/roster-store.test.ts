import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import { addRows, setCells } from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import { undoOffer } from '~/composables/undo-offer'
import { useRoster } from '~/stores/roster'
import type { Asked } from './stand-in'
import { freshStores, Refusal, SILENCE, standInServer } from './stand-in'

// A roster that is open: its steps, and what goes to the server.

const CREW: Roster = {
  name: 'Crew',
  columns: [{ id: 'name', name: 'Name', also: [] }],
  rows: ['Ada', 'Wren'].map((name, i) => ({
    ...{ id: `row-${i + 1}`, on: true, cells: { name }, in: '', out: '', name: '', note: '' },
  })),
} as unknown as Roster

const named = (row: string, name: string) => (roster: Roster) =>
  setCells(roster, [{ row, column: 'name', text: name }] as Parameters<typeof setCells>[1])

const ROW = { id: 'crew', document: CREW, cardId: 'card-1', revision: 4 }
const saved = (asked: readonly Asked[]) =>
  asked
    .filter(({ method }) => method === 'PUT')
    .map(({ body }) => body as { document: Roster; cardId: string; revision: number })

async function opened(put: unknown = { revision: 5 }) {
  const asked = standInServer({ 'GET /rosters/crew': ROW, 'PUT /rosters/crew': put })
  const store = useRoster()
  await store.open('crew')
  return { store, asked }
}
const names = (store: ReturnType<typeof useRoster>) => store.desk!.roster.rows.map(({ cells }) => cells.name)

beforeEach(() => {
  jest.useRealTimers()
  freshStores()
})

describe('its steps', () => {
  test('are undone and done again one by one; a new one ends what was undone', async () => {
    const { store } = await opened()
    store.edit('Ada', named('row-1', 'Ada Reed'))
    store.edit('Wren', named('row-2', 'Wren Halloway'))
    expect(store.past.map(({ label }) => label)).toEqual(['Ada', 'Wren'])
    store.undo()
    store.undo()
    store.undo()
    expect(names(store)).toEqual(['Ada', 'Wren'])
    store.redo()
    expect(names(store)).toEqual(['Ada Reed', 'Wren'])
    expect(store.future.map(({ label }) => label)).toEqual(['Wren'])
    store.edit('Two more', (roster) => addRows(roster, 2).roster)
    expect([store.future, store.desk!.roster.rows.length]).toEqual([[], 4])
  })

  test('a step that was just made is offered back as long as it is the last one', async () => {
    const { store } = await opened()
    store.edit('Ada', named('row-1', 'Ada Reed'))
    const offer = undoOffer(store)
    expect(offer.stands!()).toBe(true)
    store.edit('Wren', named('row-2', 'Wren Halloway'))
    expect(offer.stands!()).toBe(false)
    store.undo()
    const again = undoOffer(store)
    await again.run()
    expect([names(store), again.stands!()]).toEqual([['Ada', 'Wren'], false])
  })

  test('what changes nothing is no step, and is not saved', async () => {
    const { store, asked } = await opened()
    store.edit('Nothing', (roster) => roster)
    store.fillInto('card-1')
    expect(await store.save()).toBe(true)
    expect([store.past, saved(asked)]).toEqual([[], []])
  })
})

describe('what goes to the server', () => {
  test('the roster with its card, over the revision that was opened', async () => {
    const { store, asked } = await opened()
    store.edit('Ada', named('row-1', 'Ada Reed'))
    store.fillInto('card-2')
    expect(store.hasUnsaved()).toBe(true)
    expect(await store.save()).toBe(true)
    const [last] = saved(asked).slice(-1)
    expect(last).toMatchObject({
      cardId: 'card-2',
      revision: 4,
      document: { rows: [{ cells: { name: 'Ada Reed' } }, {}] },
    })
    expect([store.revision, store.saveState, store.hasUnsaved()]).toEqual([5, 'saved', false])
  })

  test('without an answer it is kept and said; with one it is saved after all', async () => {
    let silent = true
    const { store, asked } = await opened(() => (silent ? SILENCE : { revision: 5 }))
    store.edit('Ada', named('row-1', 'Ada Reed'))
    expect(await store.save()).toBe(false)
    expect([store.saveState, store.saveFault?.code]).toEqual(['failed', 'no-server'])
    silent = false
    expect(await store.save()).toBe(true)
    expect([store.saveState, store.saveFault, saved(asked).at(-1)!.document.rows[0]!.cells.name]).toEqual([
      'saved',
      null,
      'Ada Reed',
    ])
  })

  test('changed in another window meanwhile: nothing is written over until one takes over', async () => {
    const fault = {
      code: 'conflict',
      place: 'roster',
      message: 'It was changed elsewhere.',
      remedy: 'Open the newer one.',
    }
    const { store, asked } = await opened(({ body }: Asked) =>
      (body as { takeOver?: true }).takeOver ? { revision: 8 } : new Refusal(409, fault),
    )
    store.edit('Ada', named('row-1', 'Ada Reed'))
    expect(await store.save()).toBe(false)
    expect(store.saveState).toBe('conflict')
    // One works on meanwhile.
    store.edit('Wren', named('row-2', 'Wren Halloway'))
    await store.takeOver()
    expect(await store.save()).toBe(true)
    expect([store.saveState, store.revision]).toEqual(['saved', 8])
    expect(
      saved(asked)
        .at(-1)!
        .document.rows.map(({ cells }) => cells.name),
    ).toEqual(['Ada Reed', 'Wren Halloway'])
  })

  test('what is not saved goes on its way when it is closed', async () => {
    const { store, asked } = await opened()
    store.edit('Ada', named('row-1', 'Ada Reed'))
    store.close()
    expect(store.desk).toBeNull()
    await new Promise((go) => setTimeout(go, 20))
    expect(saved(asked)).toHaveLength(1)
    store.edit('Nothing is open', named('row-1', 'B'))
    expect(store.past).toHaveLength(1)
  })
})

test('a roster whose save failed and that is opened again is as it was left, and says that it is not saved', async () => {
  let away = true
  const asked = standInServer({
    'GET /rosters/crew': ROW,
    'GET /rosters/other': { ...ROW, id: 'other' },
    'PUT /rosters/crew': () => (away ? SILENCE : { revision: 5 }),
  })
  const store = useRoster()
  await store.open('crew')
  store.edit('Ada', named('row-1', 'Ada Reed'))
  expect(await store.save()).toBe(false)
  store.close()
  await store.open('other')
  await store.open('crew')
  expect([names(store)[0], store.saveState]).toEqual(['Ada Reed', 'failed'])
  away = false
  expect(await store.save()).toBe(true)
  expect(saved(asked).at(-1)!.document.rows[0]!.cells.name).toBe('Ada Reed')
})
