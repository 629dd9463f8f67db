import { beforeEach, describe, expect, test } from '@jest/globals'
import { createRoster } from '#core/rosters/roster'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import type { Card, TypePiece } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import { useRosters } from '~/stores/rosters'
import { useShownRow } from '~/stores/shown-row'
import { withType } from '../support/engine'
import { freshStores, Refusal, standInServer, threeBoxes } from './stand-in'

// A row of a roster that the bench shows: the card itself stays what it is.

const NAMES = ['Ada', 'Wren', 'Ossian']

function card(): Card {
  const words = withType(threeBoxes(), { id: 'words', wording: 'Name' }, {})
  const field = { id: 'name', kind: 'wording', label: 'Name', at: ['words/wording'] }
  return { ...words, fields: [field] } as unknown as Card
}

function roster(names: readonly string[]): Roster {
  const columned = addColumn(createRoster('Crew'), 'Name').roster
  const rows = addRows(columned, names.length).roster
  const column = rows.columns[0]!.id
  return setCells(
    rows,
    rows.rows.map(({ id }, i) => ({ row: id, column, text: names[i]! })),
  )
}

async function opened(names = NAMES, more: Record<string, unknown> = {}) {
  const document = roster(names)
  const asked = standInServer({
    'GET /cards/card-1': { id: 'card-1', revision: 1, document: card() },
    'GET /rosters/crew': { id: 'crew', name: 'Crew', cardId: 'card-1', revision: 1, document },
    'GET /pictures': [],
    ...more,
  })
  const bench = useBench()
  await bench.open('card-1')
  const row = useShownRow()
  const wording = () => (row.shown!.pieces.find(({ id }) => id === 'words') as TypePiece).wording
  return { bench, row, wording, document, asked }
}

beforeEach(freshStores)

describe('the row that the bench shows', () => {
  test('fills the card on the stage and not the card; the card again when it is put away', async () => {
    const { bench, row, wording } = await opened()
    expect(wording()).toBe('Name')
    await row.choose('crew')
    expect(wording()).toBe('Ada')
    expect(bench.card).toEqual(card())
    expect(bench.past).toEqual([])
    await row.choose('')
    expect([wording(), row.on, row.rows]).toEqual(['Name', false, []])
  })

  test('is stepped through round both ends', async () => {
    const { row, wording } = await opened()
    await row.choose('crew')
    const seen = [1, 1, 1, -1, -1].map((by) => {
      row.step(by as 1 | -1)
      return wording()
    })
    expect(seen).toEqual(['Wren', 'Ossian', 'Ada', 'Ossian', 'Wren'])
  })

  test('is the one that was asked for, or the first where that is gone', async () => {
    const { row, wording, document } = await opened()
    await row.choose('crew', document.rows[2]!.id)
    expect(wording()).toBe('Ossian')
    await row.choose('crew', 'gone')
    expect(wording()).toBe('Ada')
  })

  test('goes along with what is edited on the bench', async () => {
    const { bench, row, wording } = await opened()
    await row.choose('crew')
    bench.edit('Larger', (now) => ({
      ...now,
      pieces: now.pieces.map((piece) => (piece.id === 'words' ? { ...piece, size: 99 } : piece)) as Card['pieces'],
    }))
    expect(wording()).toBe('Ada')
    expect(row.shown!.pieces.find(({ id }) => id === 'words')).toMatchObject({ size: 99 })
  })

  test('is none where the roster has no rows, or cannot be had', async () => {
    const { row, wording } = await opened([])
    await row.choose('crew')
    row.step(1)
    expect([row.on, row.index, wording()]).toEqual([false, 0, 'Name'])
    const fault = { code: 'gone', place: 'roster', message: 'It is gone.', remedy: 'Choose another.' }
    standInServer({ 'GET /rosters/other': new Refusal(404, fault), 'GET /pictures': [] })
    await expect(row.choose('other')).rejects.toMatchObject({ fault })
    expect(wording()).toBe('Name')
  })

  test('shows although pictures cannot be listed', async () => {
    const fault = { code: 'busy', place: 'pictures', message: 'Busy.', remedy: 'Wait.' }
    const { row, wording } = await opened(NAMES, { 'GET /pictures': new Refusal(503, fault) })
    await row.choose('crew')
    expect(wording()).toBe('Ada')
  })
})

describe('rosters on the shelf', () => {
  const made = (asked: readonly { method: string; path: string; body: unknown }[]) =>
    asked.filter(({ method, path }) => method === 'POST' && path === '/rosters').map(({ body }) => body)

  test('a new one has a column for each field of its card, and rows to write in', async () => {
    const { asked } = await opened(NAMES, { 'POST /rosters': { id: 'new' } })
    const rosters = useRosters()
    await rosters.create('Heats', [{ label: 'Name' }, { label: 'Boat' }], 'card-1')
    await rosters.create('By hand', [], null)
    const [heats, byHand] = made(asked) as { document: Roster; cardId: string | null }[]
    expect(heats).toMatchObject({ cardId: 'card-1', document: { name: 'Heats' } })
    expect(heats!.document.columns.map(({ name }) => name)).toEqual(['Name', 'Boat'])
    expect(heats!.document.rows).toHaveLength(5)
    expect(byHand!.document.columns.map(({ name }) => name)).toEqual(['Name'])
    expect(rosters.loaded).toBe(false)
  })

  test('one that was taken away comes back', async () => {
    const listed = { id: 'crew', name: 'Crew', cardId: null, revision: 1, rows: 3, columns: ['Name'], updatedAt: '' }
    await opened(NAMES, {
      'GET /rosters': [listed],
      'DELETE /rosters/crew': null,
      'POST /rosters/crew/restore': null,
    })
    const rosters = useRosters()
    await rosters.load()
    await rosters.remove(listed)
    expect(rosters.list).toEqual([])
    await rosters.restore(listed)
    expect(rosters.list).toEqual([listed])
  })
})
