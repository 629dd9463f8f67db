import { createPinia, setActivePinia } from 'pinia'
import type { Card } from '#core/card/schema'
import { coat, emptyCard, solid, withBox } from '../support/engine'

// A server and the other windows, as the stores see them.

/** A request that the stores made. */
export interface Asked {
  method: string
  path: string
  body: unknown
}

type Answer = unknown | ((asked: Asked) => unknown)

/** An answer that is not good. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly fault: { code: string; place: string; message: string; remedy: string } | null,
  ) {}
}

/** No answer at all. */
export const SILENCE = Symbol('silence')

/** Answers to `METHOD /path`; what is asked beside them fails the test. */
export function standInServer(answers: Record<string, Answer>): Asked[] {
  const asked: Asked[] = []
  globalThis.fetch = (async (url: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET'
    const path = url.replace(/^\/api/, '')
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : init.body
    const one: Asked = { method, path, body }
    asked.push(one)
    const key = `${method} ${path}`
    if (!(key in answers)) throw new Error(`Nobody answers ${key}`)
    const answer = answers[key]
    const given: unknown = typeof answer === 'function' ? (answer as (asked: Asked) => unknown)(one) : answer
    if (given === SILENCE) throw new TypeError('fetch failed')
    if (given instanceof Refusal) {
      return { ok: false, status: given.status, json: async () => ({ data: given.fault }) } as Response
    }
    return { ok: true, status: 200, json: async () => given } as Response
  }) as typeof fetch
  return asked
}

/** The other windows: what was told to them, and a way to tell this one. */
export class OtherWindows {
  static told: unknown[] = []
  static all: OtherWindows[] = []
  onmessage: ((event: { data: unknown }) => void) | null = null

  constructor() {
    OtherWindows.all.push(this)
  }

  postMessage(message: unknown) {
    OtherWindows.told.push(message)
  }

  static say(data: unknown) {
    for (const one of OtherWindows.all) one.onmessage?.({ data })
  }
}

// A save that nobody takes is tried again for as long as the window is open; the tests are done before.
const setTimer = globalThis.setTimeout
globalThis.setTimeout = ((work: () => void, ms?: number) => {
  const timer = setTimer(work, ms)
  timer.unref()
  return timer
}) as typeof setTimeout

/** Fresh stores in a window of their own. */
export function freshStores(): void {
  OtherWindows.told = []
  OtherWindows.all = []
  globalThis.BroadcastChannel = OtherWindows as unknown as typeof BroadcastChannel
  globalThis.document = { hidden: false } as Document
  setActivePinia(createPinia())
}

/** Three boxes, front first: front, middle, back. */
export function threeBoxes(): Card {
  return ['back', 'middle', 'front'].reduce<Card>(
    (card, id, i) =>
      withBox(
        card,
        { id, name: id, x: 100 + 100 * i, y: 90, width: 60, height: 40 },
        {
          face: [
            coat('fill', `fill-${id}`, { paint: solid('#E2683C') }),
            coat('stroke', `stroke-${id}`, { width: 4 + i, paint: solid('#1B1420') }),
          ],
        },
      ),
    { ...emptyCard(480, 270, 100), name: 'Three boxes' },
  )
}

/** Streams of events that the page has opened, as the server tells on them. */
export class Connections {
  static all: Connections[] = []
  private readonly listeners = new Map<string, (event: { data: string }) => void>()
  readyState = 0

  static reset() {
    Connections.all = []
    globalThis.EventSource = Connections as unknown as typeof EventSource
  }

  static get open(): Connections[] {
    return Connections.all.filter(({ readyState }) => readyState < 2)
  }

  constructor() {
    Connections.all.push(this)
  }

  addEventListener(name: string, listener: (event: { data: string }) => void) {
    this.listeners.set(name, listener)
  }

  happen(name: string, data = '') {
    if (name === 'open') this.readyState = 1
    this.listeners.get(name)?.({ data })
  }

  close() {
    this.readyState = 2
  }
}

/** A page in a tab that is seen. */
export function page() {
  const document = Object.assign(new EventTarget(), { visibilityState: 'visible' })
  const window = new EventTarget()
  Object.assign(globalThis, { document, window })
  const become = (state: 'visible' | 'hidden') => {
    document.visibilityState = state
    document.dispatchEvent(new Event('visibilitychange'))
  }
  return {
    hide: () => become('hidden'),
    show: () => become('visible'),
    leave: () => window.dispatchEvent(new Event('pagehide')),
  }
}
