import { readdirSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll } from '@jest/globals'
import type { EventHandler, RouterMethod } from 'h3'
import * as h3 from 'h3'

/** What an address answered: its status and what it sent. */
interface Answer<T> {
  status: number
  body: T
  headers: Headers
}

/**
 * Asks an address of the API; `body` is sent as JSON, bytes as they are. What is answered is read as JSON, and is its bytes where it is
 * none. `token`: of a program.
 */
export type Ask = <T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
  token?: string,
) => Promise<Answer<T>>

const FILES = 'server/api'

/**
 * The handlers of `server/api` on a server of their own, on loopback, without a build and without a browser. What the web server
 * hands to them unasked (its own functions and those of `server/utils`) is put where they look for it. Routes are named as
 * their files are.
 *
 * @param folders folders of `server/api`, `cards` for one
 * @param settings gives the settings once the first test begins: the address of the database is not known before
 */
export function handlersOf(folders: readonly string[], settings: () => { databaseUrl: string; storage: string }): Ask {
  let address = ''
  let server: ReturnType<typeof createServer>
  beforeAll(async () => {
    Object.assign(globalThis, h3, { useRuntimeConfig: settings })
    for (const file of readdirSync('server/utils')) Object.assign(globalThis, await import(`#server/utils/${file}`))
    const router = h3.createRouter()
    for (const folder of folders) {
      for (const file of readdirSync(join(FILES, folder), { recursive: true, encoding: 'utf8' })) {
        const [, path, method] = /^(.+)\.(get|put|post|patch|delete)\.ts$/.exec(file) ?? []
        if (!path) continue
        const { default: handler } = (await import(`#server/api/${folder}/${file}`)) as { default: EventHandler }
        const route = `/${folder}/${path}`.replace(/\/index$/, '').replace(/\[(\w+)\]/g, ':$1')
        router.add(route, handler, method as RouterMethod)
      }
    }
    server = createServer(h3.toNodeListener(h3.createApp().use(router)))
    await new Promise<void>((go) => server.listen(0, '127.0.0.1', go))
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  })
  afterAll(async () => {
    server.closeAllConnections()
    server.close()
    const { useDatabase } = globalThis as unknown as { useDatabase: () => { $client: { end: () => Promise<void> } } }
    await useDatabase().$client.end()
  })
  return async <T>(method: string, path: string, body?: unknown, token?: string) => {
    const isRaw = body instanceof Uint8Array
    const type = isRaw ? 'application/octet-stream' : 'application/json'
    const sent = isRaw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body)
    const headers = {
      ...(body === undefined ? {} : { 'content-type': type }),
      ...(token === undefined ? {} : { authorization: `Bearer ${token}` }),
    }
    const answer = await fetch(`${address}${path}`, { method, headers, ...(body === undefined ? {} : { body: sent }) })
    const isJson = answer.headers.get('content-type')?.includes('json')
    const got: unknown = isJson ? await answer.json() : Buffer.from(await answer.arrayBuffer())
    return { status: answer.status, body: got as T, headers: answer.headers }
  }
}
