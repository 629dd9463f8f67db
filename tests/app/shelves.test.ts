import { beforeEach, describe, expect, test } from '@jest/globals'
import { createCoat } from '#core/card/create'
import type { Card } from '#core/card/schema'
import { ApiError, api, faultOf } from '~/composables/api'
import { useCards } from '~/stores/cards'
import { useFonts } from '~/stores/fonts'
import { useNotices } from '~/stores/notices'
import { useRenders } from '~/stores/renders'
import { useSeals } from '~/stores/seals'
import type { Asked } from './stand-in'
import { freshStores, Refusal, SILENCE, standInServer, threeBoxes } from './stand-in'

beforeEach(freshStores)

const { frame, rate, length } = threeBoxes()
const listed = (id: string, name = id) => ({
  ...{ id, name, revision: 1, updatedAt: '2026-01-01' },
  ...{ frame, rate, length, fields: [] },
})
const whole = (id: string, name = id) => ({ ...listed(id, name), document: { ...threeBoxes(), name } })
const made = ({ body }: Asked) => {
  const { document } = body as { document: Card }
  return { ...whole('new-1', document.name), document }
}

describe('the server', () => {
  const fault = { code: 'too-large', place: 'size', message: 'Too large.', remedy: 'Make it smaller.' }

  test('gives what it has; words of its own where it refuses, ours where it is silent', async () => {
    standInServer({
      'GET /a': { ok: 1 },
      'POST /b': new Refusal(422, fault),
      'GET /c': SILENCE,
      'GET /d': new Refusal(500, null),
    })
    expect(await api('/a')).toEqual({ ok: 1 })
    const failed = async (path: string, method: 'GET' | 'POST' = 'GET') => {
      const error: unknown = await api(path, method, method === 'POST' ? { x: 1 } : undefined).catch((e: unknown) => e)
      expect(error).toBeInstanceOf(ApiError)
      return { status: (error as ApiError).status, fault: faultOf(error) }
    }
    expect(await failed('/b', 'POST')).toEqual({ status: 422, fault })
    expect(await failed('/c')).toMatchObject({ status: 0, fault: { code: 'no-server' } })
    expect(await failed('/d')).toMatchObject({ status: 500, fault: { code: 'server' } })
  })

  test('an error of the page is told as one', () => {
    expect(faultOf(new Error('Broken'))).toMatchObject({ code: 'page', message: 'Broken' })
    expect(faultOf('odd')).toMatchObject({ message: 'odd' })
  })

  test('files are sent as they are, all else as JSON', async () => {
    const asked = standInServer({ 'POST /files': {}, 'POST /json': {} })
    const file = new Blob(['x'])
    await api('/files', 'POST', file)
    await api('/json', 'POST', { a: 1 })
    expect(asked[0]!.body).toBe(file)
    expect(asked[1]!.body).toEqual({ a: 1 })
  })
})

describe('cards on the shelf', () => {
  test('are loaded, made, duplicated, renamed and deleted; the newest comes first', async () => {
    const asked = standInServer({
      'GET /cards': [listed('old')],
      'GET /cards/old': whole('old'),
      'POST /cards': made,
      'PUT /cards/old': { ...listed('old', 'Renamed'), revision: 2 },
      'DELETE /cards/old': {},
    })
    const cards = useCards()
    await cards.load()
    expect(cards.loaded).toBe(true)
    await cards.add({ ...threeBoxes(), name: 'Strip' })
    expect(cards.list.map(({ name }) => name)).toEqual(['Strip', 'old'])
    await cards.duplicate(cards.list[1]!)
    expect(cards.list[0]!.name).toBe('old, copy')
    await cards.rename(cards.list[2]!, 'Renamed')
    expect(cards.list[2]).toMatchObject({ name: 'Renamed', revision: 2 })
    expect(asked.at(-1)!.body).toMatchObject({ revision: 1, document: { name: 'Renamed' } })
    await cards.remove(cards.list[2]!)
    expect(cards.list.map(({ name }) => name)).toEqual(['old, copy', 'Strip'])
  })

  test('are fetched once for each of their revisions, and again where that failed', async () => {
    let silent = true
    const asked = standInServer({ 'GET /cards/old': () => (silent ? SILENCE : whole('old')) })
    const cards = useCards()
    expect(cards.loaded).toBe(false)
    await expect(cards.documentOf(listed('old'))).rejects.toBeInstanceOf(ApiError)
    silent = false
    const failed = asked.length
    await cards.documentOf(listed('old'))
    await cards.documentOf(listed('old'))
    expect(asked).toHaveLength(failed + 1)
    await cards.documentOf({ ...listed('old'), revision: 2 })
    expect(asked).toHaveLength(failed + 2)
  })

  test('a copy of a long name has a name that is long enough', async () => {
    const long = 'n'.repeat(198)
    standInServer({ 'GET /cards/old': whole('old', long), 'POST /cards': made })
    const copy = await useCards().duplicate(listed('old', long))
    expect(copy.name).toBe(`${long}, `)
  })

  test('come in from files: every fault of a broken one is told and nothing is added', async () => {
    const asked = standInServer({ 'POST /cards': made })
    const cards = useCards()
    const file = (text: string, name = 'card.card.json') => new File([text], name)
    const broken = { ...threeBoxes(), length: 0, pieces: [{ kind: 'box' }] }
    const refused = await cards.bringIn(file(JSON.stringify(broken)))
    expect('faults' in refused && refused.faults.map(({ place }) => place)).toEqual(expect.arrayContaining(['length']))
    expect(asked).toEqual([])
    const taken = await cards.bringIn(file(JSON.stringify(threeBoxes())))
    expect('card' in taken && taken.card.name).toBe('Three boxes')
    expect(cards.list).toHaveLength(1)
  })

  test('an archive goes to the server with its name', async () => {
    const asked = standInServer({ 'POST /archives?name=my%20card.zip': whole('zip-1') })
    const file = new File(['zip'], 'my card.zip')
    await useCards().bringIn(file)
    expect(asked[0]!.body).toBe(file)
    expect(useCards().list.map(({ id }) => id)).toEqual(['zip-1'])
  })

  test('a deleted one comes back', async () => {
    standInServer({ 'POST /cards/gone/restore': {}, 'GET /cards': [listed('gone')], 'GET /cards/deleted': [] })
    await useCards().restore({ id: 'gone' })
    expect(useCards().list.map(({ id }) => id)).toEqual(['gone'])
    expect(await useCards().loadDeleted()).toEqual([])
  })
})

describe('seals on the shelf', () => {
  const seal = (name: string, tags: string[]) => ({
    name,
    tags,
    variants: [{ name: 'Plain', coats: { face: [createCoat('fill', 'fill-1')], behind: [] } }],
  })
  const row = (id: string, name: string, tags: string[]) => ({
    id,
    name,
    revision: 1,
    updatedAt: '',
    document: seal(name, tags),
  })

  test('are found by all words, in name and tags', async () => {
    standInServer({
      'GET /seals': [
        row('1', 'Night tube', ['neon', 'dark']),
        row('2', 'Frost', ['cold']),
        row('3', 'Day tube', ['neon']),
      ],
    })
    const seals = useSeals()
    await seals.load()
    const found = (words: string) => seals.search(words).map(({ id }) => id)
    expect(found('')).toEqual(['1', '2', '3'])
    expect(found('NEON')).toEqual(['1', '3'])
    expect(found('tube dark')).toEqual(['1'])
    expect(found('tube cold')).toEqual([])
  })

  test('stand in the order of their names, whatever is added or changed', async () => {
    standInServer({
      'GET /seals': [row('b', 'Brass', [])],
      'POST /seals': ({ body }: Asked) => row('a', (body as { document: { name: string } }).document.name, []),
      'PUT /seals/a': row('a', 'Zinc', []),
      'DELETE /seals/b': {},
    })
    const seals = useSeals()
    await seals.load()
    const added = await seals.add(seal('Amber', []) as never)
    expect(seals.list.map(({ name }) => name)).toEqual(['Amber', 'Brass'])
    await seals.change(added, seal('Zinc', []) as never)
    expect(seals.list.map(({ name }) => name)).toEqual(['Brass', 'Zinc'])
    await seals.remove(seals.list[0]!)
    expect(seals.list.map(({ name }) => name)).toEqual(['Zinc'])
  })

  test('go out as a file that comes in again; of a broken file nothing is added', async () => {
    const asked = standInServer({
      'POST /seals': ({ body }: Asked) => row('x', (body as { document: { name: string } }).document.name, []),
    })
    const seals = useSeals()
    const file = await seals.asFile('My set', [row('1', 'Night tube', ['neon']), row('2', 'Frost', [])] as never)
    const text = JSON.stringify(file)
    const taken = await seals.bringIn(text)
    expect('added' in taken && taken.added.map(({ name }) => name)).toEqual(['Night tube', 'Frost'])
    const refused = await seals.bringIn(JSON.stringify({ ...file, version: 99 }))
    expect('faults' in refused && refused.faults.length).toBeGreaterThan(0)
    expect(asked).toHaveLength(2)
  })
})

test('renders: the list is busy while one is under way; a new one comes first', async () => {
  const row = (id: string, status: string) => ({ id, status })
  standInServer({
    'GET /renders': [row('1', 'done'), row('2', 'failed')],
    'POST /renders': row('3', 'queued'),
    'POST /renders/3/cancel': row('3', 'cancelled'),
    'DELETE /renders/1': {},
  })
  const renders = useRenders()
  await renders.load()
  expect(renders.busy).toBe(false)
  await renders.start('card-1', 4, { format: 'png', bits: 8, from: 0, to: 10, holds: 1 })
  expect(renders.list.map(({ id }) => id)).toEqual(['3', '1', '2'])
  expect(renders.busy).toBe(true)
  await renders.cancel('3')
  expect(renders.busy).toBe(false)
  expect(renders.list.map(({ status }) => status)).toEqual(['cancelled', 'done', 'failed'])
  await renders.remove('1')
  expect(renders.list.map(({ id }) => id)).toEqual(['3', '2'])
})

test('fonts: those brought in stand before those that ship, each with the name of its style', async () => {
  const own = { id: 'own-0123456789abcdef', family: 'Harbour', style: 'Bold', fileName: 'harbour.ttf' }
  standInServer({ 'GET /fonts': [own], 'POST /fonts?name=harbour.ttf': own })
  const fonts = useFonts()
  expect(await fonts.bringIn(new File(['x'], 'harbour.ttf'))).toBe(own.id)
  expect(fonts.choices[0]).toEqual({ id: own.id, title: 'Harbour Bold', kind: 'Brought in', css: `sample-${own.id}` })
  expect(fonts.choices.find(({ id }) => id === 'anton')!.title).toBe('Anton')
  expect(new Set(fonts.choices.map(({ id }) => id)).size).toBe(fonts.choices.length)
})

test('notices: the last word stands, with what can be done about it', () => {
  const notices = useNotices()
  const run = () => {}
  notices.say('Deleted', { label: 'Undo', run })
  expect(notices.current).toEqual({ text: 'Deleted', bad: false, action: { label: 'Undo', run } })
  // What it offers once stays until something is done.
  notices.say('Kept', { label: 'Take back', run }, true)
  expect(notices.current).toMatchObject({ text: 'Kept', lasts: true })
  notices.fault({ message: 'No.', remedy: 'Try again.' })
  expect(notices.current).toEqual({ text: 'No.', remedy: 'Try again.', bad: true })
})
