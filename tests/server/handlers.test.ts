import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import type { Card } from '#core/card/schema'
import { ownDatabase } from '../support/database'
import { demoCard, fontBytes } from '../support/engine'
import { handlersOf } from '../support/handlers'

// What is brought in and handed out again, tokens, and the queue of renders: through the handlers themselves, without a browser and
// without a worker.

const own = ownDatabase('handlers')
const ask = handlersOf(['archives', 'cards', 'examples', 'fonts', 'pictures', 'renders', 'tokens'], () => ({
  databaseUrl: own.url,
  storage: own.folder,
}))

interface Row {
  id: string
  name: string
  revision: number
  document: Card
  status: string
  kept: boolean
  priority: number
  framesTotal: number
  options: Record<string, unknown>
  data?: { code: string; place: string; remedy: string }
}

/** Every address that is about one thing refuses an id that nothing has, with a word and not with an error of ours. */
test.each([
  ['GET', '/cards/nothing'],
  ['GET', '/cards/nothing/head'],
  ['GET', '/cards/nothing/archive'],
  ['GET', '/cards/nothing/versions/nothing'],
  ['DELETE', '/cards/nothing'],
  ['POST', '/cards/nothing/restore'],
  ['GET', '/examples/nothing'],
  ['GET', '/fonts/nothing/file'],
  ['GET', '/pictures/nothing/file'],
  ['GET', '/pictures/nothing/pixels'],
  ['GET', '/renders/nothing'],
  ['GET', '/renders/nothing/document'],
  ['GET', '/renders/nothing/programme'],
  ['GET', '/renders/nothing/sidecar'],
  ['GET', '/renders/nothing/small'],
  ['GET', '/renders/nothing/files/0'],
  ['GET', '/renders/nothing/as-read'],
  ['DELETE', '/renders/nothing'],
  ['POST', '/renders/nothing/cancel'],
  ['POST', '/renders/nothing/go-on'],
  ['PATCH', '/renders/nothing', { kept: true }],
  ['DELETE', '/tokens/nothing'],
])('%s %s is not found', async (...[method, path, body]: (string | object)[]) => {
  const { status, body: said } = await ask<Row>(method as string, path as string, body)
  expect(status).toBe(404)
  expect(said.data!.remedy).not.toBe('')
})

describe('tokens', () => {
  test('are told once, listed without what they are, and withdrawn', async () => {
    const { body: made } = await ask<Row & { token: string }>('POST', '/tokens', { name: ' The press in the cellar ' })
    expect(made).toMatchObject({ name: 'The press in the cellar' })
    expect(made.token.length).toBeGreaterThanOrEqual(32)
    const { body: other } = await ask<Row & { token: string }>('POST', '/tokens', { name: 'Another' })
    expect(other.token).not.toBe(made.token)
    const listed = await ask<Row[]>('GET', '/tokens')
    expect(listed.body.map(({ name }) => name)).toEqual(['Another', 'The press in the cellar'])
    expect(JSON.stringify(listed.body)).not.toContain(made.token)
    expect((await ask('DELETE', `/tokens/${made.id}`)).status).toBe(200)
    expect((await ask('DELETE', `/tokens/${made.id}`)).status).toBe(404)
    expect((await ask<Row[]>('GET', '/tokens')).body.map(({ name }) => name)).toEqual(['Another'])
  })

  test.each([[{ name: '  ' }], [{}], [{ name: 'x'.repeat(81) }], [{ name: 7 }]])('%j is no name', async (body) => {
    expect((await ask('POST', '/tokens', body)).status).toBe(422)
  })
})

describe('pictures', () => {
  const pixels = Uint8Array.from({ length: 3 * 2 * 4 }, (_, i) => (i * 37) % 256)
  const png = () =>
    sharp(pixels, { raw: { width: 3, height: 2, channels: 4 } })
      .png()
      .toBuffer()
      .then((bytes) => Uint8Array.from(bytes))

  test('come in once, and are handed out as they were brought and as the engine takes them', async () => {
    const file = await png()
    const { status, body } = await ask<Row>('POST', '/pictures?name=boat.png', file)
    expect([status, body]).toEqual([200, { id: body.id, fileName: 'boat.png', width: 3, height: 2 }])
    expect((await ask<Row>('POST', '/pictures?name=again.png', file)).body.id).toBe(body.id)
    expect((await ask<Row[]>('GET', '/pictures')).body.map(({ id }) => id)).toEqual([body.id])
    const back = await ask<Buffer>('GET', `/pictures/${body.id}/file`)
    expect([...back.body]).toEqual([...file])
    expect(back.headers.get('cache-control')).toContain('immutable')
    const straight = await ask<Buffer>('GET', `/pictures/${body.id}/pixels`)
    expect([straight.headers.get('x-width'), straight.headers.get('x-height')]).toEqual(['3', '2'])
    expect([...straight.body]).toEqual([...pixels])
  })

  test('what is none is refused and does not stay', async () => {
    const before = (await ask<Row[]>('GET', '/pictures')).body
    const { status, body } = await ask<Row>('POST', '/pictures?name=notes.png', Uint8Array.from([1, 2, 3, 4]))
    expect(status).toBe(422)
    expect(body.data!.place).toBe('notes.png')
    expect((await ask<Row[]>('GET', '/pictures')).body).toEqual(before)
  })
})

test('fonts come in once and are handed out as the engine reads them; what is none is refused', async () => {
  const file = Uint8Array.from(readFileSync('demo/examples/righteous.woff2'))
  const { status, body } = await ask<Row & { family: string }>('POST', '/fonts?name=righteous.woff2', file)
  expect([status, body.family]).toEqual([200, 'Righteous'])
  expect((await ask<Row>('POST', '/fonts?name=other.woff2', file)).body.id).toBe(body.id)
  const listed = (await ask<Row[]>('GET', '/fonts')).body.filter(({ id }) => id === body.id)
  expect(listed).toHaveLength(1)
  const sfnt = await ask<Buffer>('GET', `/fonts/${body.id}/file`)
  // OpenType 1.9, "Organization of an OpenType font": TrueType outlines, or CFF.
  expect([0x00010000, 0x4f54544f]).toContain(sfnt.body.readUInt32BE(0))
  const broken = await ask<Row>('POST', '/fonts?name=broken.ttf', Uint8Array.from(fontBytes('anton').slice(0, 200)))
  expect([broken.status, broken.body.data!.place]).toEqual([422, 'broken.ttf'])
})

test('examples are handed out as they lie there', async () => {
  const { status, body } = await ask<Buffer>('GET', '/examples/crews.csv')
  expect(status).toBe(200)
  expect(Buffer.compare(body, readFileSync('demo/examples/crews.csv'))).toBe(0)
})

describe('a card', () => {
  const made = async () => (await ask<Row>('POST', '/cards', { document: demoCard('02-lower-third') })).body

  test('is deleted, listed among the deleted, and comes back as it was', async () => {
    const card = await made()
    expect((await ask('DELETE', `/cards/${card.id}`)).status).toBe(200)
    expect((await ask('GET', `/cards/${card.id}`)).status).toBe(404)
    expect((await ask<Row[]>('GET', '/cards/deleted')).body.map(({ id }) => id)).toContain(card.id)
    expect((await ask('POST', `/cards/${card.id}/restore`)).status).toBe(200)
    expect((await ask<Row>('GET', `/cards/${card.id}`)).body.document).toEqual(card.document)
  })

  test('goes out as an archive and comes in again; half of it is refused, and no card comes in', async () => {
    const card = await made()
    const archive = await ask<Buffer>('GET', `/cards/${card.id}/archive`)
    expect(archive.headers.get('content-disposition')).toContain('.card.zip')
    const whole = Uint8Array.from(archive.body)
    const back = await ask<Row>('POST', '/archives?name=back.card.zip', whole)
    expect([back.status, back.body.document]).toEqual([200, card.document])
    expect(back.body.id).not.toBe(card.id)
    const count = async () => (await ask<Row[]>('GET', '/cards')).body.length
    const before = await count()
    const half = await ask<Row>('POST', '/archives?name=half.card.zip', whole.slice(0, whole.length >> 1))
    expect([half.status, half.body.data!.place]).toEqual([422, 'half.card.zip'])
    expect(await count()).toBe(before)
  })
})

describe('the queue of renders', () => {
  const asked = async (options: object = {}, about: object = {}) => {
    const { body: card } = await ask<Row>('POST', '/cards', { document: demoCard('02-lower-third') })
    return {
      card,
      render: await ask<Row>('POST', '/renders', {
        cardId: card.id,
        options: { format: 'png', from: 0, to: 4, ...options },
        ...about,
      }),
    }
  }

  test('takes a card as it is; what happens to the card later does not change it', async () => {
    const { card, render } = await asked({ from: 10, to: 14 })
    expect(render.body).toMatchObject({ status: 'queued', framesTotal: 4, kept: false })
    await ask('PUT', `/cards/${card.id}`, { document: { ...card.document, name: 'Later' }, revision: card.revision })
    const { body } = await ask<Card>('GET', `/renders/${render.body.id}/document`)
    expect(body).toEqual(card.document)
    const again = await ask<Row>('POST', '/renders', {
      renderId: render.body.id,
      options: { format: 'webp', from: 0, to: 2 },
    })
    expect(again.body).toMatchObject({ status: 'queued', framesTotal: 2 })
    expect((await ask<Card>('GET', `/renders/${again.body.id}/document`)).body).toEqual(card.document)
    expect((await ask('GET', `/renders/${render.body.id}/programme`)).body).toEqual({ programme: null })
  })

  test('renders only the revision that was looked at', async () => {
    const { render } = await asked({}, { revision: 7 })
    expect([render.status, render.body.data]).toMatchObject([409, { code: 'newer-revision', place: 'revision 1' }])
  })

  test.each([
    [{ format: 'tape' }, /format/],
    [{ from: 20, to: 20 }, /frames/],
    [{ from: 0, to: 1e9 }, /frames/],
    [{ format: 'gif', bits: 16 }, /bits/],
    [{ from: undefined }, /from/],
  ])('refuses %j', async (options, place) => {
    const { render } = await asked(options)
    expect(render.status).toBe(422)
    expect(render.body.data!.place).toMatch(place)
  })

  test('cancels what is not done: nothing of it is offered, and it can be removed', async () => {
    const { render } = await asked({ from: 0, to: 3 })
    const path = `/renders/${render.body.id}`
    expect((await ask('GET', `${path}/files/0`)).status).toBe(404)
    expect((await ask<Row>('POST', `${path}/cancel`)).body.status).toBe('cancelled')
    // A second time nothing happens.
    expect((await ask<Row>('POST', `${path}/cancel`)).body.status).toBe('cancelled')
    expect((await ask('GET', `${path}/sidecar`)).status).toBe(404)
    expect((await ask('DELETE', path)).body).toEqual({ id: render.body.id })
    expect((await ask('GET', path)).status).toBe(404)
    expect((await ask<Row[]>('GET', '/renders')).body.map(({ id }) => id)).not.toContain(render.body.id)
  })

  test('keeps for good what is told so, by a switch and nothing else', async () => {
    const { render } = await asked()
    const path = `/renders/${render.body.id}`
    expect((await ask<Row>('PATCH', path, { kept: true })).body.kept).toBe(true)
    expect((await ask<Row>('PATCH', path, { kept: 'no' })).status).toBe(422)
    expect((await ask<Row>('GET', path)).body.kept).toBe(true)
    expect((await ask<Row>('PATCH', path, { kept: false })).body.kept).toBe(false)
  })
})
