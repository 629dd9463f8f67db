import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { Validator } from '@seriousme/openapi-schema-validator'
import type { z } from 'zod'
import { CHAPTERS, UNTOLD } from '../../server/open-api/chapters'
import type { Operation } from '../../server/open-api/operation'
import { addColumn, addRows, setCells } from '../../core/rosters/edit'
import { createRoster } from '../../core/rosters/roster'
import { demoCard } from '../support/engine'
import { expect, test } from './bench-page'

// The routes as other programs see them: the document is sound, tells every route, and what comes is what it says.

const operations = CHAPTERS.flatMap((chapter) => chapter.operations)
const keyOf = ({ method, path }: Pick<Operation, 'method' | 'path'>) => `${method} ${path}`

/** Routes as they lie in the server's folder. */
function routesIn(folder: string, at = ''): string[] {
  return readdirSync(join(folder, at), { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) return routesIn(folder, join(at, entry.name))
    const found = /^(.+)\.(get|post|put|patch|delete)\.ts$/.exec(entry.name)
    if (!found) return []
    const [, name, method] = found as unknown as [string, string, string]
    const path = `/${join(at, name === 'index' ? '' : name)}`.replace(/\/$/, '').replace(/\[(\w+)\]/g, '{$1}')
    return [`${method} ${path}`]
  })
}

test('the document is sound OpenAPI 3.1 and tells every route that is not our own', async ({ page }) => {
  const document = (await (await page.request.get('/api/open-api')).json()) as {
    openapi: string
    paths: Record<string, Record<string, unknown>>
  }
  const outcome = await new Validator().validate(structuredClone(document) as never)
  expect(outcome.errors ?? []).toEqual([])
  expect(document.openapi).toBe('3.1.1')
  const told = Object.entries(document.paths).flatMap(([path, one]) => Object.keys(one).map((way) => `${way} ${path}`))
  const isUntold = (route: string) => UNTOLD.some((start) => route.split(' ')[1]!.startsWith(start))
  expect(new Set(told)).toEqual(new Set(routesIn('server/api').filter((route) => !isUntold(route))))
})

test('a program makes a card, proves it, renders it and takes the file away', async ({ page }) => {
  /** Asks, and holds the answer against what the document says of it. */
  async function ask<T>(method: Operation['method'], path: string, values: Record<string, string>, data?: object) {
    const operation = operations.find((one) => keyOf(one) === `${method} ${path}`)!
    const address = path.replace(/\{(\w+)\}/g, (_, name: string) => values[name]!)
    const response = await page.request.fetch(`/api${address}`, { method, ...(data ? { data } : {}) })
    const body = (await response.json()) as unknown
    expect([address, response.status()], JSON.stringify(body)).toEqual([address, 200])
    const { json } = operation.answer as { json: z.ZodType }
    const read = json.safeParse(body)
    expect(read.error?.issues ?? [], address).toEqual([])
    return body as T
  }
  interface Known {
    id: string
    revision: number
    status: string
    files: { name: string }[]
  }
  const document = { ...demoCard('02-lower-third'), name: 'By a program' }
  const card = await ask<Known>('post', '/cards', {}, { document })
  await ask('get', '/cards', {})
  await ask('get', '/cards/{id}', card as never)
  await ask('put', '/cards/{id}', card as never, { document, revision: card.revision })
  await ask('post', '/cards/{id}/versions', card as never, { name: 'First' })
  await ask('get', '/cards/{id}/versions', card as never)
  const proof = await ask<{ passed: boolean; lines: unknown[] }>('post', '/proofs', {}, { cardId: card.id })
  expect([proof.passed, proof.lines.length]).toEqual([true, 12])
  const { roster: headed, id: column } = addColumn(createRoster('Crews by a program'), 'Name')
  const { roster: rows, ids } = addRows(headed, 2)
  const crews = setCells(
    rows,
    ids.map((row, i) => ({ row, column, text: ['Ada Reed', 'Tam Voss'][i]! })),
  )
  const roster = await ask<{ id: string }>('post', '/rosters', {}, { document: crews, cardId: card.id })
  const withRows = await ask<{ lines: unknown[] }>('post', '/proofs', {}, { cardId: card.id, rosterId: roster.id })
  expect(withRows.lines).toContainEqual(expect.objectContaining({ said: 'all fits, in 2 rows too' }))

  const options = { format: 'apng', from: 30, to: 34 }
  const render = await ask<Known>('post', '/renders', {}, { cardId: card.id, options })
  await page.goto('/mark.svg')
  const told = await page.evaluate(
    (id) =>
      new Promise<string[]>((done) => {
        const seen: string[] = []
        const events = new EventSource('/api/renders/events')
        events.addEventListener('render', ({ data }: MessageEvent<string>) => {
          const row = JSON.parse(data) as { id: string; status: string }
          if (row.id !== id) return
          seen.push(row.status)
          if (row.status === 'done' || row.status === 'failed') done(seen)
        })
      }),
    render.id,
  )
  expect(told.at(-1)).toBe('done')
  await ask('get', '/renders', {})
  await ask('get', '/renders/{id}', render as never)
  await ask('get', '/renders/{id}/document', render as never)
  await ask('get', '/renders/{id}/sidecar', render as never)
  await ask('patch', '/renders/{id}', render as never, { kept: true })
  const file = await page.request.get(`/api/renders/${render.id}/files/0`)
  expect((await file.body()).subarray(1, 4).toString()).toBe('PNG')
  const whole = await file.body()
  const part = async (range: string) => {
    const response = await page.request.get(`/api/renders/${render.id}/files/0`, { headers: { range } })
    return [response.status(), response.headers()['content-range'], (await response.body()).toString('hex')]
  }
  const size = whole.length
  expect(await part('bytes=4-7')).toEqual([206, `bytes 4-7/${size}`, whole.subarray(4, 8).toString('hex')])
  expect(await part('bytes=-3')).toEqual([
    206,
    `bytes ${size - 3}-${size - 1}/${size}`,
    whole.subarray(-3).toString('hex'),
  ])
  expect((await part(`bytes=${size}-`))[0]).toBe(416)
  const small = await page.request.get(`/api/renders/${render.id}/small`)
  expect((await small.body()).subarray(8, 12).toString()).toBe('WEBP')
  for (const path of ['/fonts', '/pictures', '/sequences', '/seals', '/workers', '/tokens', '/health']) {
    await ask('get', path, {})
  }
  await ask('delete', '/renders/{id}', render as never)
  expect((await page.request.get(`/api/renders/${render.id}`)).status()).toBe(404)
  await ask('delete', '/cards/{id}', card as never)
})

test('what cannot be is refused in words, before anything starts', async ({ page }) => {
  const refused = async (options: object, cardId = 'demo-02-lower-third') => {
    const response = await page.request.post('/api/renders', { data: { cardId, options } })
    const { data } = (await response.json()) as { data: { code: string; place: string; remedy: string } }
    expect(data.remedy).not.toBe('')
    return [response.status(), data.code]
  }
  const all = { from: 0, to: 10 }
  expect(await refused({ format: 'film', ...all })).toEqual([422, 'unknown-format'])
  expect(await refused({ format: 'png', from: 5, to: 5 })).toEqual([422, 'no-frames'])
  expect(await refused({ format: 'png', from: 0, to: 900_000 })).toEqual([422, 'out-of-range'])
  expect(await refused({ format: 'png', ...all, name: '../../up' })).toEqual([422, 'bad-name'])
  expect(await refused({ format: 'png', ...all, alpha: 'none' })).toEqual([422, 'not-allowed'])
  expect(await refused({ format: 'png', ...all }, 'no-such-card')).toEqual([404, 'not-found'])
  const proof = await page.request.post('/api/proofs', {
    data: { cardId: 'demo-02-lower-third', backdrop: 'picture-0123456789abcdef' },
  })
  expect([proof.status(), ((await proof.json()) as { data: { code: string } }).data.code]).toEqual([404, 'no-picture'])
})

test('by another name than the machine’s own there is nothing without a token, and all with one until it is withdrawn', async ({
  page,
}) => {
  const made = await page.request.post('/api/tokens', { data: { name: 'A browser elsewhere' } })
  const { id, token } = (await made.json()) as { id: string; token: string }
  const elsewhere = `http://press.localhost:${new URL(process.env.WAX_ADDRESS!).port}`
  await page.goto(elsewhere)
  await expect(page.getByRole('form', { name: 'Token' })).toBeVisible()
  await page.getByRole('textbox', { name: 'Token' }).fill(`${token}x`)
  await page.getByRole('button', { name: 'Let me in' }).click()
  await expect(page.getByRole('alert')).toContainText('not known here')
  await page.getByRole('textbox', { name: 'Token' }).fill(token)
  await page.getByRole('button', { name: 'Let me in' }).click()
  await expect(page.getByRole('link', { name: /Lower third/ }).first()).toBeVisible()
  expect(await page.evaluate(() => document.cookie)).toBe('')
  await page.request.delete(`/api/tokens/${id}`)
  // A tile that asked for its card meanwhile has led to the sign-in already, and the reload is given up.
  await page.reload().catch(() => {})
  await expect(page.getByRole('form', { name: 'Token' })).toBeVisible()
})

test('the page of the API shows it, with the policy of our pages', async ({ page }) => {
  await page.goto('/api-guide')
  await expect(page.getByText('Asks for a render.')).toBeVisible()
  await page.getByText('Asks for a render.').click()
  await expect(page.getByText('no such frame')).toBeVisible()
})
