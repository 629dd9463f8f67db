import { request as ask } from 'node:http'
import { CHAPTERS } from '../../server/open-api/chapters'
import { demoCard } from '../support/engine'
import { spellings } from '../support/spellings'
import { expect, openCard, test } from './bench-page'

interface Answer {
  status: number
  headers: Record<string, string | string[] | undefined>
  text: string
}

/** A request as no browser would send it. */
function send(
  path: string,
  options: { method?: string; headers?: object; body?: (write: (part: Buffer) => boolean) => void },
) {
  const { hostname, port } = new URL(process.env.WAX_ADDRESS!)
  return new Promise<Answer>((resolve, reject) => {
    const { method = 'GET', headers = {}, body } = options
    const sent = ask(
      { hostname, port, path, method, headers: { ...headers } as Record<string, string> },
      (response) => {
        let text = ''
        response.on('data', (part) => (text += String(part)))
        response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, text }))
        response.on('error', () => resolve({ status: response.statusCode!, headers: response.headers, text }))
      },
    )
    sent.on('error', reject)
    body?.((part) => sent.write(part))
    sent.end()
  })
}
const faultOf = ({ text }: Answer) => (JSON.parse(text) as { data: { code: string; remedy: string } }).data

test('strangers are refused: other names, other pages, bodies without an end', async () => {
  const { host } = new URL(process.env.WAX_ADDRESS!)
  for (const path of ['/', '/api/cards', '/mark.svg']) {
    expect((await send(path, { headers: { host: 'evil.example' } })).status).toBe(403)
    expect((await send(path, { headers: { host } })).status).toBe(200)
  }
  const foreign = { host, origin: 'http://evil.example', 'content-type': 'text/plain' }
  for (const [method, path] of [
    ['POST', '/api/cards'],
    ['POST', '/api/renders'],
    ['POST', '/api/cards/demo-01-opening/versions'],
    ['POST', '/api/cards/demo-01-opening/restore'],
    ['PUT', '/api/cards/demo-01-opening'],
    ['DELETE', '/api/cards/demo-01-opening'],
  ] as const) {
    const answer = await send(path, { method, headers: foreign })
    expect([path, answer.status, faultOf(answer).code]).toEqual([path, 403, 'foreign-page'])
  }
  // Counted as they come: a body that does not say how long it is.
  const endless = await send('/api/cards', {
    method: 'POST',
    headers: { host, 'content-type': 'application/json', 'transfer-encoding': 'chunked' },
    body: (write) => {
      for (let i = 0; i < 20; i++) write(Buffer.alloc(1024 * 1024, 32))
    },
  }).catch((error: NodeJS.ErrnoException) => error.code)
  // The connection may end before all of it was sent.
  if (typeof endless === 'object') expect([endless.status, faultOf(endless).code]).toEqual([413, 'too-large'])
  else expect(['EPIPE', 'ECONNRESET']).toContain(endless)
})

test('broken requests get a fault with a remedy, never 500 or a page', async ({ page }) => {
  const card = demoCard('02-lower-third')
  const post = (data: unknown) => page.request.post('/api/cards', { data: data as object })
  const put = (data: object) => page.request.put('/api/cards/demo-02-lower-third', { data })
  for (const [answer, status, code] of [
    [await page.request.get('/api/nothing/here'), 404, 'not-found'],
    [await post('{"broken'), 400, 'not-json'],
    [await post([1, 2]), 400, 'not-json'],
    [await post({ document: { ...card, name: 'a\0b' } }), 422, 'odd-text'],
    [await post({ document: { ...card, name: 'a\ud83d' } }), 422, 'odd-text'],
    [await put({ document: card, revision: 1.5 }), 409, 'newer-revision'],
    [await put({ document: card, revision: 1e300 }), 409, 'newer-revision'],
  ] as const) {
    const { data } = (await answer.json()) as { data: { code: string; place: string; remedy: string } }
    expect([answer.status(), data.code]).toEqual([status, code])
    expect(data.remedy.length).toBeGreaterThan(5)
  }
})

test('a save that comes a second time is known; one that is late is refused', async ({ page }) => {
  const card = demoCard('02-lower-third')
  const made = (await (await page.request.post('/api/cards', { data: { document: card } })).json()) as { id: string }
  const put = async (data: object) => {
    const answer = await page.request.put(`/api/cards/${made.id}`, { data: { document: card, ...data } })
    return [answer.status(), ((await answer.json()) as { revision?: number }).revision]
  }
  expect(await put({ revision: 1, save: 'one' })).toEqual([200, 2])
  // Its answer was lost: the same save again.
  expect(await put({ revision: 1, save: 'one' })).toEqual([200, 2])
  expect(await put({ revision: 1, save: 'two' })).toEqual([409, undefined])
  expect(await put({ revision: 2, save: 'two' })).toEqual([200, 3])
  expect(await put({ revision: 1, save: 'one' })).toEqual([200, 2])
  const head = (await (await page.request.get(`/api/cards/${made.id}/head`)).json()) as { revision: number }
  expect(head.revision).toBe(3)
})

test('pages carry a strict policy and nothing breaks it', async ({ page }) => {
  const broken: string[] = []
  await page.addInitScript(() => {
    const found: string[] = []
    Object.assign(window, { waxBroken: found })
    document.addEventListener('securitypolicyviolation', (event) =>
      found.push(`${event.violatedDirective} ${event.blockedURI}`),
    )
  })
  const answer = await page.goto('/')
  const headers = answer!.headers()
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'wasm-unsafe-eval' 'sha256-/)
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'")
  expect(headers['x-content-type-options']).toBe('nosniff')
  expect(headers['x-frame-options']).toBe('DENY')
  expect(headers['x-powered-by']).toBeUndefined()
  await page.locator('article.tile canvas').first().waitFor()
  broken.push(...(await page.evaluate(() => (window as unknown as { waxBroken: string[] }).waxBroken)))
  await openCard(page, demoCard('11-flicker'))
  broken.push(...(await page.evaluate(() => (window as unknown as { waxBroken: string[] }).waxBroken)))
  expect(broken).toEqual([])
})

test('an archive has its card’s name in any script', async ({ page }) => {
  const card = { ...demoCard('02-lower-third'), name: 'Лодка 船 ½' }
  const made = (await (await page.request.post('/api/cards', { data: { document: card } })).json()) as { id: string }
  const answer = await page.request.get(`/api/cards/${made.id}/archive`)
  expect(answer.status()).toBe(200)
  expect(decodeURIComponent(answer.headers()['content-disposition']!)).toContain('лодка-船')
})

test('an engine that hangs is replaced: one bad card takes neither the bench nor the next card with it', async ({
  page,
}) => {
  await page.addInitScript(() => Object.assign(window, { waxEngineLimit: 4000 }))
  const heavy = demoCard('10-badge-settles')
  const wide = { id: 'blur', kind: 'shadow', softness: 1000, distance: 0, lift: 0 }
  const [piece] = heavy.pieces
  // Sixty pieces, each exposed many times under the widest blur: minutes of work.
  const many = Array.from({ length: 60 }, (_, i) => {
    const x = {
      keys: [
        { frame: 0, value: 0, easing: 'linear' },
        { frame: 1, value: 1900, easing: 'linear' },
      ],
    }
    const coats = { face: [], behind: [{ ...wide, id: `blur-${i}` }] }
    return { kind: 'box', id: `box-${i}`, name: `Box ${i}`, x, y: 540, width: 1800, height: 900, coats }
  })
  const bad = { ...heavy, shutter: { angle: 720, phase: 0 }, zones: null, pieces: [...many, { ...piece, on: false }] }
  const response = await page.request.post('/api/cards', { data: { document: bad } })
  expect(response.status()).toBe(200)
  const { id } = (await response.json()) as { id: string }
  await page.goto(`/card/${id}`)
  await expect(page.getByText('takes too long and was given up')).toBeVisible()
  await openCard(page, demoCard('02-lower-third'))
})

test('by another name nothing answers without a token, however its address is written', async () => {
  const { port } = new URL(process.env.WAX_ADDRESS!)
  const headers = { host: `press.localhost:${port}` }
  const cards = async () => (await send('/api/cards', {})).text
  const before = await cards()
  const letIn: string[] = []
  for (const { method, path } of CHAPTERS.flatMap(({ operations }) => operations)) {
    for (const written of spellings(`/api${path.replace(/\{\w+\}/g, 'demo-01-opening')}`)) {
      const { status } = await send(written, { method: method.toUpperCase(), headers })
      if (![400, 401].includes(status)) letIn.push(`${method} ${written} ${status}`)
    }
  }
  expect(letIn).toEqual([])
  expect(await cards()).toBe(before)
  // The pages and the one question that brings a token are there.
  for (const path of ['/', '/sign-in', '/mark.svg']) expect((await send(path, { headers })).status).toBe(200)
})
