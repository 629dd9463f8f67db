import * as Comlink from 'comlink'
import { toRaw } from 'vue'
import type { CardPatch } from '#core/card/patch'
import { patchFrom } from '#core/card/patch'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { WaxError } from '#core/errors'
import type { Band, Bands } from './bands'
import type { EngineFace, Look, Shown } from './engine.worker'
import { Seat } from './seat'
import { WaitingRoom } from './waiting-room'

type Face = Comlink.Remote<EngineFace>

declare global {
  interface Window {
    /** Milliseconds after which an engine is taken to hang: tests set it lower. */
    waxEngineLimit?: number
    /** How many engines there are, for measuring. */
    waxEngines?: number
  }
}

/** As many engines as the machine bears: one core stays for the page, but never fewer than two engines. */
const CORES = navigator.hardwareConcurrency || 2
const SIZE = window.waxEngines ?? Math.min(4, Math.max(2, CORES - 1))
/**
 * As many engines share one picture: the page needs a core of its own meanwhile. On two cores a picture that two engines
 * shared came later than one that a single engine made.
 */
const SHARING = window.waxEngines ?? Math.max(1, CORES - 1)
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
export const pictureOf = (name: string, frame: number, look: Look): Promise<Shown> =>
  onEngine<Shown>(
    (face) => face.render(name, frame, look) as Promise<Shown>,
    (fault) => ({ fault }),
  )

const waitingRoom = new WaitingRoom(SIZE)

/** Small pictures and what is made ready for them: they wait until the engines made those that were asked for before. */
export const inTurn = <T>(work: () => Promise<T>, wanted: () => boolean): Promise<T | null> =>
  waitingRoom.take(work, wanted)

/** Lets the engines begin: what they are needed for is still on its way. */
export const wakeEngines = (): void => void pool()

/** Engines without work that may share a picture. */
const free = () =>
  pool()
    .filter(({ waiting }) => waiting === 0)
    .slice(0, SHARING)

export const freeEngines = (): number => free().length

/** As `pictureOf`, but all engines that are free make a band of it each. */
export async function sharedPictureOf(name: string, frame: number, look: Look, bands: Bands): Promise<Shown> {
  const card = known.get(name)
  const engines = free()
  if (!card || engines.length < 2) return pictureOf(name, frame, look)
  const side = (px: number) => Math.max(1, Math.round(px * look.scale))
  const [width, height] = [side(card.frame.width), side(card.frame.height)]
  const parts = bands.split(width, engines.length)
  try {
    const shown = await Promise.all(
      parts.map(({ x, w }, i) =>
        engines[i]!.run(
          (face) => face.render(name, frame, { ...look, region: { x, y: 0, w, h: height } }) as Promise<Shown>,
        ),
      ),
    )
    const made = shown.filter((part): part is Made => !('fault' in part))
    const broken = shown.find((part) => 'fault' in part)
    if (broken) {
      for (const { bitmap } of made) bitmap.close()
      return broken
    }
    const times = made.map(({ milliseconds }) => milliseconds)
    bands.took(times)
    const bitmap = joined(made, parts, { width, height })
    return { bitmap, milliseconds: Math.max(...times), engines: parts.length }
  } catch (error) {
    if (error instanceof WaxError) return { fault: error.fault }
    throw error
  }
}

type Made = Extract<Shown, { bitmap: ImageBitmap }>

let table: OffscreenCanvas | undefined

/** Bands beside each other as one picture; they are closed. */
function joined(
  made: readonly Made[],
  bands: readonly Band[],
  { width, height }: { width: number; height: number },
): ImageBitmap {
  if (table?.width !== width || table.height !== height) table = new OffscreenCanvas(width, height)
  const context = table.getContext('2d')!
  context.globalCompositeOperation = 'copy'
  made.forEach(({ bitmap }, i) => {
    context.drawImage(bitmap, bands[i]!.x, 0)
    context.globalCompositeOperation = 'source-over'
    bitmap.close()
  })
  return table.transferToImageBitmap()
}
