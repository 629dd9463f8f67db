import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import type { IncomingMessage } from 'node:http'
import { request } from 'node:http'
import { text } from 'node:stream/consumers'
import { mkdirSync, rmSync } from 'node:fs'
import { resolve } from 'node:path'
import { movingCard } from '../support/moving-card'
import { freePort } from '../../scripts/cluster.mjs'
import { expect, test } from './bench-page'

// `npm start` as it is run for real: SIGTERM while a save and a render are under way.

// PostgreSQL's own user must be able to go in: no folder for one alone.
const folder = resolve(`.wax/stopping-${process.pid}`)
test.beforeAll(() => mkdirSync(folder, { recursive: true }))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

interface Listed {
  id: string
  revision: number
  status: string
  framesDone: number
}

test('SIGTERM ends what is saved, gives renders back, and the next start goes on with them', async () => {
  test.setTimeout(180_000)
  const port = String(await freePort())
  const address = `http://127.0.0.1:${port}`
  const env = { ...process.env, PORT: port, WAX_DATA: folder, WAX_LOG: 'error', WAX_RENDER_THREADS: '1' }
  let running: ChildProcess
  const start = async () => {
    running = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: 'ignore' })
    const well = () => fetch(`${address}/api/health`).then(({ ok }) => ok, () => false) // prettier-ignore
    await expect.poll(well, { timeout: 60_000 }).toBe(true)
  }
  const ask = async <T>(method: string, path: string, body?: object): Promise<T> => {
    const headers = { 'content-type': 'application/json' }
    const response = await fetch(`${address}/api${path}`, { method, headers, body: body && JSON.stringify(body) })
    expect(response.ok, `${method} ${path}`).toBe(true)
    return (await response.json()) as T
  }
  const renderNow = async (id: string) => (await ask<Listed[]>('GET', '/renders')).find((one) => one.id === id)!

  await start()
  expect(await ask<unknown[]>('GET', '/cards')).toEqual([])
  const document = movingCard(150)
  const card = await ask<Listed>('POST', '/cards', { document })
  const options = { format: 'png', from: 0, to: 150 }
  const { id } = await ask<Listed>('POST', '/renders', { cardId: card.id, options })
  await expect.poll(async () => (await renderNow(id)).framesDone, { timeout: 60_000 }).toBeGreaterThan(3)
  const renamed = { ...document, name: 'Saved while it was stopped' }
  const ended = once(running!, 'exit')
  const body = JSON.stringify({ document: renamed, revision: card.revision })
  // The server has begun with it, and waits for what is to be saved, when it is told to stop.
  const headers = { 'content-type': 'application/json', expect: '100-continue', connection: 'close' }
  const saving = request(`${address}/api/cards/${card.id}`, { method: 'PUT', headers })
  saving.flushHeaders()
  await once(saving, 'continue')
  running!.kill('SIGTERM')
  saving.end(body)
  const [answer] = (await once(saving, 'response')) as [IncomingMessage]
  expect(answer.statusCode).toBe(200)
  expect(JSON.parse(await text(answer))).toMatchObject({ revision: 2 })
  expect((await ended)[0]).toBe(0)

  await start()
  try {
    const kept = await ask<{ revision: number; document: { name: string } }>('GET', `/cards/${card.id}`)
    expect([kept.revision, kept.document.name]).toEqual([2, 'Saved while it was stopped'])
    const again = await renderNow(id)
    expect(['queued', 'running', 'done']).toContain(again.status)
    expect(again.framesDone).toBeGreaterThan(0)
    await expect.poll(async () => (await renderNow(id)).status, { timeout: 90_000 }).toBe('done')
  } finally {
    const stopped = once(running!, 'exit')
    running!.kill('SIGTERM')
    expect((await stopped)[0]).toBe(0)
  }
})
