import * as Comlink from 'comlink'
import { toRaw } from 'vue'
import type { CardPatch } from '#core/card/patch'
import { patchFrom } from '#core/card/patch'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { WaxError } from '#core/errors'
import type { EngineFace, Shown } from './engine.worker'
import { Seat } from './seat'

type Face = Comlink.Remote<EngineFace>

declare global {
  interface Window {
    /** Milliseconds after which an engine is taken to hang: tests set it lower. */
    waxEngineLimit?: number
  }
}

/** As many engines as the machine bears: one core stays for the page, but never fewer than two engines. */
const SIZE = Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1))
/** The longest that one picture may take. */
const LIMIT = 20_000

const DIED: Fault = {
  code: 'engine-died',
  place: 'engine',
  message: 'The engine stopped at this picture; another one was started.',
  remedy: 'Undo the last step; report this with the card file.',
}

/** Cards that engines know, and that a new one is told of. */
const known = new Map<string, Card>()
let seats: Seat<Face>[] | undefined

function begin(seat: Seat<Face>) {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' })
  worker.addEventListener('error', () => seat.replace(DIED))
  const face = Comlink.wrap<EngineFace>(worker)
  for (const [name, card] of known) void face.setCard(name, plain(patchFrom(null, card)))
  return { face, end: () => worker.terminate() }
}

const later = (ms: number, work: () => void) => {
  const timer = setTimeout(work, ms)
  return () => clearTimeout(timer)
}

function pool(): Seat<Face>[] {
  seats ??= Array.from({ length: SIZE }, () => new Seat<Face>(begin, window.waxEngineLimit ?? LIMIT, later))
  return seats
}

export const poolSize = SIZE

/**
 * Tells every engine of a card; it is known under its name until it is forgotten. Of a card that is known only what is other
 * is sent, so that engines keep what they have made for the rest.
 */
export function setCard(name: string, shown: Card): void {
  const card = toRaw(shown)
  // The pool first: engines that begin now are told of what is known.
  const engines = pool()
  const patch = plain(patchFrom(known.get(name) ?? null, card))
  known.set(name, card)
  for (const { face } of engines) void face.setCard(name, patch)
}

/** What may be sent: without the interface's own wrappers. */
const plain = (patch: CardPatch): CardPatch => JSON.parse(JSON.stringify(patch)) as CardPatch

export function forgetCard(name: string): void {
  known.delete(name)
  for (const { face } of pool()) void face.forgetCard(name)
}

/** Runs a piece of work on the engine that has least to do; `lost` says what is given where the engine was lost over it. */
export async function onEngine<T>(work: (face: Face) => Promise<T>, lost: (fault: Fault) => T): Promise<T> {
  const [free] = [...pool()].sort((a, b) => a.waiting - b.waiting)
  try {
    return await free!.run(work)
  } catch (error) {
    if (error instanceof WaxError) return lost(error.fault)
    throw error
  }
}

/** A picture of a card that the engines know, or why there is none. */
export const pictureOf = (name: string, frame: number, scale: number, draft = false): Promise<Shown> =>
  onEngine<Shown>(
    (face) => face.render(name, frame, scale, draft) as Promise<Shown>,
    (fault) => ({ fault }),
  )
