import * as Comlink from 'comlink'
import type { Engine, PieceOutlook } from '#core/frame/engine'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { WaxError } from '#core/errors'
import { fontsNamed, picturesOf } from '#core/card/tree'
import { isShipped } from '#core/type/families'

/** A rendered frame for the screen, or why there is none. */
export type Shown = { bitmap: ImageBitmap; milliseconds: number } | { fault: Fault }

// The engine's module waits for the shaping library to load. Messages that arrive before the worker listens
// would be lost, so it listens at once and loads the engine beside it.
const starting = import('#core/frame/engine').then(({ Engine }) => new Engine())
const cards = new Map<string, Card>()
const loading = new Map<string, Promise<void>>()
let pixels: Uint8Array<ArrayBuffer> | undefined

const face = {
  /** Makes a card known under a name; a newer one takes its place. */
  setCard(name: string, card: Card): void {
    cards.set(name, card)
  },

  forgetCard(name: string): void {
    cards.delete(name)
  },

  async render(name: string, frame: number, scale: number): Promise<Shown> {
    const card = cards.get(name)
    if (!card)
      return { fault: { code: 'no-card', place: name, message: 'The card is gone.', remedy: 'Open it again.' } }
    try {
      const engine = await engineFor(card)
      const start = performance.now()
      const picture = engine.render(card, frame, { scale, ...(pixels ? { reuse: pixels } : {}) })
      pixels = picture.pixels
      // The data is copied when the call is made; the pixels can be used again.
      const data = new ImageData(new Uint8ClampedArray(pixels.buffer), picture.width, picture.height)
      const bitmap = await createImageBitmap(data)
      return Comlink.transfer({ bitmap, milliseconds: performance.now() - start }, [bitmap])
    } catch (error) {
      return { fault: faultOf(error) }
    }
  },

  /** SHA-256 of a frame at full size, straight 8-bit RGBA: what the command line and the server must also make. */
  async hash(card: Card, frame: number): Promise<string> {
    const engine = await engineFor(card)
    const { pixels: full } = engine.render(card, frame)
    const digest = await crypto.subtle.digest('SHA-256', full)
    return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  },

  async outlook(name: string, frame: number): Promise<PieceOutlook[]> {
    const card = cards.get(name)
    if (!card) return []
    try {
      return (await engineFor(card)).outlook(card, frame)
    } catch {
      // The picture tells the fault; without it there are no handles.
      return []
    }
  },
}

export type EngineFace = typeof face

/** The engine, with the card's fonts loaded. */
async function engineFor(card: Card): Promise<Engine> {
  const engine = await starting
  await Promise.all([
    ...fontsNamed(card)
      .filter((id) => !engine.fonts.has(id))
      .map((id) => once(id, () => loadFont(engine, id))),
    ...picturesOf(card)
      .filter((id) => !engine.pictures.has(id))
      .map((id) => once(id, () => loadPicture(engine, id))),
  ])
  return engine
}

/** Work that several callers wait for is done once. */
function once(id: string, load: () => Promise<void>): Promise<void> {
  const work = loading.get(id) ?? load().finally(() => loading.delete(id))
  loading.set(id, work)
  return work
}

// A font or picture that is not there is named by the engine.
async function loadFont(engine: Engine, id: string): Promise<void> {
  const response = await fetch(isShipped(id) ? `/fonts/${id}.ttf` : `/api/fonts/${id}/file`)
  if (response.ok) engine.fonts.add(id, new Uint8Array(await response.arrayBuffer()))
}

async function loadPicture(engine: Engine, id: string): Promise<void> {
  const response = await fetch(`/api/pictures/${id}/pixels`)
  if (!response.ok) return
  const side = (name: string) => Number(response.headers.get(name))
  const pixels = new Uint8Array(await response.arrayBuffer())
  engine.pictures.add(id, { width: side('x-width'), height: side('x-height'), pixels })
}

function faultOf(error: unknown): Fault {
  if (error instanceof WaxError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  return { code: 'engine', place: 'engine', message, remedy: 'Undo the last step; report this with the card file.' }
}

Comlink.expose(face)
