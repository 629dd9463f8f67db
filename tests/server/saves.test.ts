import { readFileSync } from 'node:fs'
import { beforeEach, describe, expect, test } from '@jest/globals'
import { sql } from 'drizzle-orm'
import type { Card } from '#core/card/schema'
import type { Roster } from '#core/rosters/roster'
import { readSealsText } from '#core/seals/read'
import { movingBox, ownDatabase } from '../support/database'
import { handlersOf } from '../support/handlers'

// Saving over a revision, and what is kept of it: through the handlers themselves, on a database, without a browser.

const own = ownDatabase('saves')
const ask = handlersOf(['cards', 'rosters', 'seals'], () => ({ databaseUrl: own.url, storage: own.folder }))

interface Row {
  id: string
  name: string
  revision: number
  document: { name: string }
  data?: { code: string; place: string }
}
interface Version {
  id: string
  revision: number
  name: string | null
  document: Card
}

const roster = (name: string): Roster => ({
  ...{ format: 'wax-ribbon-roster', version: 1, name },
  ...{ columns: [{ id: 'c', name: 'Name', also: [] }], rows: [] },
})
const [seal] = readSealsText(readFileSync('demo/seals/lantern-regatta.seals.json', 'utf8')).document!.seals

/** Documents that are saved over revisions; a window can take a seal over only by opening it again. */
const KINDS = [
  { kind: 'cards', made: (name: string) => ({ ...movingBox(), name }), takesOver: true },
  { kind: 'rosters', made: roster, takesOver: true },
  { kind: 'seals', made: (name: string) => ({ ...seal!, name }), takesOver: false },
]

describe.each(KINDS)('$kind', ({ kind, made, takesOver }) => {
  let id = ''
  const save = (name: string, about: object) => ask<Row>('PUT', `/${kind}/${id}`, { document: made(name), ...about })
  const now = async () => (await ask<Row[]>('GET', `/${kind}`)).body.find((row) => row.id === id)
  beforeEach(async () => {
    const { status, body } = await ask<Row>('POST', `/${kind}`, { document: made('First') })
    expect([status, body.revision]).toEqual([200, 1])
    id = body.id
  })

  test('a save over the revision that it was made from makes the next one', async () => {
    expect((await save('Second', { revision: 1 })).body).toMatchObject({ id, name: 'Second', revision: 2 })
    expect((await save('Third', { revision: 2 })).body).toMatchObject({ id, name: 'Third', revision: 3 })
    expect(await now()).toMatchObject({ name: 'Third', revision: 3 })
  })

  test.each([
    ['an older revision', { revision: 1 }],
    ['a revision that is still to come', { revision: 3 }],
    ['none', {}],
    ['one that is no number', { revision: '2' }],
  ])('nothing newer is saved over: %s is refused, and the place is told', async (_, about) => {
    await save('Second', { revision: 1 })
    const { status, body } = await save('Too late', about)
    expect([status, body.data]).toMatchObject([409, { code: 'newer-revision', place: 'revision 2' }])
    expect(await now()).toMatchObject({ name: 'Second', revision: 2 })
  })

  test('of two saves over the same revision at once one arrives and one is refused', async () => {
    const both = await Promise.all([save('One', { revision: 1 }), save('Other', { revision: 1 })])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const arrived = both.find(({ status }) => status === 200)!
    expect(await now()).toMatchObject({ name: arrived.body.name, revision: 2 })
  })

  test('what is deleted is not saved over; brought back it is as it was', async () => {
    await ask('DELETE', `/${kind}/${id}`)
    expect((await save('Second', { revision: 1 })).status).toBe(404)
    expect(await now()).toBeUndefined()
    await ask('POST', `/${kind}/${id}/restore`)
    expect(await now()).toMatchObject({ name: 'First', revision: 1 })
  })

  test('a broken document is refused and nothing changes; so is text that no database can hold', async () => {
    const broken = await ask<Row>('PUT', `/${kind}/${id}`, { document: { name: 'Broken' }, revision: 1 })
    expect(broken.status).toBe(422)
    expect((await save('Nu\u0000l', { revision: 1 })).status).toBe(422)
    expect(await now()).toMatchObject({ name: 'First', revision: 1 })
  })

  if (!takesOver) return

  test('a save that comes a second time is answered again and changes nothing, also when others were saved since', async () => {
    const sent = { revision: 1, save: 'save-1' }
    expect((await save('Second', sent)).body).toMatchObject({ revision: 2 })
    expect((await save('Second', sent)).body).toMatchObject({ revision: 2 })
    await save('Third', { revision: 2, save: 'save-2' })
    const again = await save('Second', sent)
    expect([again.status, again.body.revision]).toEqual([200, 2])
    expect(await now()).toMatchObject({ name: 'Third', revision: 3 })
  })

  test('a window that takes over saves over whatever is there; what was there is kept', async () => {
    await save('Second', { revision: 1 })
    expect((await save('Mine', { revision: 1, takeOver: true })).body).toMatchObject({ name: 'Mine', revision: 3 })
    const kept =
      kind === 'cards'
        ? (await ask<Version[]>('GET', `/cards/${id}/versions`)).body.map(({ name }) => name)
        : (await ask<Row[]>('GET', '/rosters')).body.map(({ name }) => name)
    expect(kept).toContainEqual(expect.stringMatching(/before another window took over$/i))
  })
})

describe('versions of a card', () => {
  let id = ''
  const save = (name: string, revision: number) =>
    ask<Row>('PUT', `/cards/${id}`, { document: { ...movingBox(), name }, revision })
  const kept = async () => (await ask<Version[]>('GET', `/cards/${id}/versions`)).body
  /** Time goes by. */
  const later = (minutes: number) =>
    own.connection.database.execute(
      sql`update versions set created_at = created_at - make_interval(mins => ${minutes}) where card_id = ${id}`,
    )
  beforeEach(async () => {
    id = (await ask<Row>('POST', '/cards', { document: { ...movingBox(), name: 'First' } })).body.id
  })

  test('are kept at a pace of three minutes, as the card was before the save', async () => {
    await save('Second', 1)
    const [first, ...more] = await kept()
    expect([first!.revision, first!.name, more]).toEqual([1, null, []])
    expect((await ask<Version>('GET', `/cards/${id}/versions/${first!.id}`)).body.document.name).toBe('First')
    await save('Third', 2)
    await later(2)
    await save('Fourth', 3)
    expect((await kept()).map(({ revision }) => revision)).toEqual([1])
    await later(2)
    await save('Fifth', 4)
    expect((await kept()).map(({ revision }) => revision)).toEqual([4, 1])
  })

  test('of those that came by themselves the last 200 are kept; named ones stay', async () => {
    await ask('POST', `/cards/${id}/versions`, { name: '  Signed off  ' })
    await own.connection.database.execute(sql`
      insert into versions (id, card_id, revision, document, created_at)
      select ${id} || '-' || n, ${id}, n, document, now() - make_interval(mins => 300 - n)
      from cards, generate_series(1, 205) n where cards.id = ${id}`)
    await later(5)
    await save('Second', 1)
    const all = await kept()
    const alone = all.filter(({ name }) => name === null)
    // The newest is what was just saved over; the six oldest are gone.
    expect([alone.length, alone[0]!.revision, alone.at(-1)!.revision]).toEqual([200, 1, 7])
    expect(all.filter(({ name }) => name === 'Signed off')).toHaveLength(1)
  })

  test('a version without a name is not made, and another card’s is not found', async () => {
    expect((await ask<Row>('POST', `/cards/${id}/versions`, { name: ' ' })).body.data).toMatchObject({
      code: 'no-name',
    })
    const { body: version } = await ask<Version>('POST', `/cards/${id}/versions`, { name: 'Mine' })
    const { body: other } = await ask<Row>('POST', '/cards', { document: movingBox() })
    expect((await ask('GET', `/cards/${other.id}/versions/${version.id}`)).status).toBe(404)
    expect((await ask('GET', `/cards/none/versions`)).status).toBe(404)
  })
})
