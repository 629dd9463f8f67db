import type { Card } from '#core/card/schema'
import { fontsNamed, picturesOf } from '#core/card/tree'
import type { Fault } from '#core/errors'
import type { Engine } from '#core/frame/engine'
import type { SequenceSource } from '#core/frame/fetching'
import { isShipped } from '#core/type/families'

// What engines in workers get from the server: fonts, pictures, and pictures of sequences.

const loading = new Map<string, Promise<void>>()

/** Brings the fonts and pictures that a card names; what is not there is named by the engine. */
export async function loadAssets(engine: Engine, card: Card): Promise<void> {
  await Promise.all([
    ...fontsNamed(card)
      .filter((id) => !engine.fonts.has(id))
      .map((id) => once(id, () => loadFont(engine, id))),
    ...picturesOf(card)
      .filter((id) => !engine.pictures.has(id))
      .map((id) => once(id, () => loadPicture(engine, id))),
  ])
}

/** Pictures of sequences that are on their way. */
const fetching = new Map<string, ReturnType<SequenceSource>>()

export const pictureOfSequence: SequenceSource = (id, index) => {
  const key = `${id} ${index}`
  const known = fetching.get(key) ?? fetchPicture(id, index).finally(() => fetching.delete(key))
  fetching.set(key, known)
  return known
}

async function fetchPicture(id: string, index: number): ReturnType<SequenceSource> {
  const response = await fetch(`/api/sequences/${id}/pictures/${index}`).catch(() => null)
  if (!response) return { message: 'The server cannot be reached.', remedy: 'It is tried again with the next picture.' }
  if (response.status === 404) return null
  if (!response.ok) {
    const answer = (await response.json().catch(() => null)) as { data?: Fault } | null
    return answer?.data ?? null
  }
  const number = (name: string) => Number(response.headers.get(name))
  const bytes = await response.arrayBuffer()
  const pixels = number('x-bits') === 16 ? new Uint16Array(bytes) : new Uint8Array(bytes)
  return { width: number('x-width'), height: number('x-height'), pixels }
}

/** Work that several callers wait for is done once. */
function once(id: string, load: () => Promise<void>): Promise<void> {
  const work = loading.get(id) ?? load().finally(() => loading.delete(id))
  loading.set(id, work)
  return work
}

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
