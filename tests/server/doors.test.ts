import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { H3Event, RouterMethod } from 'h3'
import { createApp, createError, createRouter, eventHandler, toNodeListener } from 'h3'
import { CHAPTERS } from '#server/open-api/chapters'
import { isOpen, routedPath } from '#server/rim/doors'
import { spellings } from '../support/spellings'

// Who is let in is decided on the address that the router decides on: held against the router itself, in many spellings.

const OPEN = { pages: ['/', '/help', '/card/:id()', '/sign-in'], files: ['_nuxt', 'fonts', 'mark.svg'] }
const OPERATIONS = CHAPTERS.flatMap(({ operations }) => operations).map(({ method, path }) => ({
  method,
  path: `/api${path}`,
}))
let reached: string[] = []

/** The router with every route, behind the door; nobody has a token. */
function application() {
  const app = createApp()
  app.use(
    eventHandler((event: H3Event) => {
      const { originalUrl = '', method = '' } = event.node.req as { originalUrl?: string; method?: string }
      const path = routedPath(originalUrl)
      if (path === null) throw createError({ statusCode: 400 })
      if (!isOpen(method, path, OPEN)) throw createError({ statusCode: 401 })
    }),
  )
  const router = createRouter({ preemptive: true })
  for (const { method, path } of OPERATIONS) {
    router.add(
      path.replace(/\{(\w+)\}/g, ':$1'),
      eventHandler(() => {
        reached.push(path)
        return 'reached'
      }),
      method as RouterMethod,
    )
  }
  return app.use(
    router.add(
      '/**',
      eventHandler(() => 'page'),
    ),
  )
}

const server = createServer(toNodeListener(application()))
beforeAll(() => new Promise<void>((go) => server.listen(0, '127.0.0.1', go)))
afterAll(() => {
  server.close()
})

function ask(method: string, path: string): Promise<number> {
  const { port } = server.address() as AddressInfo
  return new Promise((resolve, reject) => {
    const asking = request({ port, host: '127.0.0.1', method, path }, (response) => {
      response.resume()
      response.on('end', () => resolve(response.statusCode!))
    })
    asking.on('error', reject)
    asking.end()
  })
}

test('no route of the API is reached without a token, however its address is written', async () => {
  reached = []
  let asked = 0
  for (const { method, path } of OPERATIONS) {
    for (const written of spellings(path.replace(/\{\w+\}/g, '1'))) {
      const status = await ask(method.toUpperCase(), written)
      expect([method, written, [400, 401].includes(status)]).toEqual([method, written, true])
      asked++
    }
  }
  expect(reached).toEqual([])
  expect(asked).toBeGreaterThanOrEqual(OPERATIONS.length * 10)
})

test('the spellings are ones that the router itself would follow', async () => {
  // Without a door in front of it, so that this test would notice a router that stopped decoding.
  const bare = createRouter({ preemptive: true }).add(
    '/api/cards',
    eventHandler(() => 'reached'),
  )
  const open = createServer(toNodeListener(createApp().use(bare)))
  await new Promise<void>((go) => open.listen(0, '127.0.0.1', go))
  const { port } = open.address() as AddressInfo
  expect(await (await fetch(`http://127.0.0.1:${port}/%61pi/cards`)).text()).toBe('reached')
  open.close()
})

describe('what is open', () => {
  test.each([
    ['GET', '/'],
    ['GET', '/card/demo-01'],
    ['HEAD', '/help'],
    ['GET', '/help/'],
    ['GET', '/_nuxt/entry.js'],
    ['GET', '/fonts/anton.ttf'],
    ['GET', '/mark.svg'],
    ['POST', '/api/sign-in'],
  ])('%s %s', async (method, path) => expect(await ask(method, path)).not.toBe(401))

  test.each([
    ['GET', '/api/sign-in'],
    ['POST', '/api/sign-in/more'],
    ['POST', '/'],
    ['DELETE', '/card/demo-01'],
    ['GET', '/card/demo-01/more'],
    ['GET', '/somewhere'],
    ['GET', '/__nuxt_error'],
    ['OPTIONS', '/api/cards'],
    ['GET', '/Help'],
  ])('%s %s is not', async (method, path) => expect(await ask(method, path)).toBe(401))
})

test('an address is read as RFC 3986 has it, or not at all', () => {
  expect(routedPath('/api/cards/%41b?x=%2561')).toBe('/api/cards/Ab')
  expect(routedPath('/api/examples/a%20word.csv')).toBe('/api/examples/a word.csv')
  expect(routedPath('/api/cards/船-½.card')).toBe('/api/cards/船-½.card')
  for (const odd of ['', '*', 'api', '/a%', '/a%FF', '/a%00', '/a%0A', '/.', '/..', '/a/..', '/a//b', '/a%5Cb']) {
    expect([odd, routedPath(odd)]).toEqual([odd, null])
  }
})
