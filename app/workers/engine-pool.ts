import * as Comlink from 'comlink'
import type { Card } from '#core/card/schema'
import type { EngineFace } from './engine.worker'

interface Member {
  face: Comlink.Remote<EngineFace>
  waiting: number
}

/** As many engines as the machine bears: one core stays for the page, but never fewer than two engines. */
const SIZE = Math.min(4, Math.max(2, (navigator.hardwareConcurrency || 2) - 1))

let members: Member[] | undefined

function pool(): Member[] {
  members ??= Array.from({ length: SIZE }, () => {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' })
    return { face: Comlink.wrap<EngineFace>(worker), waiting: 0 }
  })
  return members
}

export const poolSize = SIZE

/** Tells every engine of a card; it is known under its name until it is forgotten. */
export function setCard(name: string, card: Card): void {
  const plain = JSON.parse(JSON.stringify(card)) as Card
  for (const { face } of pool()) void face.setCard(name, plain)
}

export function forgetCard(name: string): void {
  for (const { face } of pool()) void face.forgetCard(name)
}

/** Runs a piece of work on the engine that has least to do. */
export async function onEngine<T>(work: (face: Comlink.Remote<EngineFace>) => Promise<T>): Promise<T> {
  const [free] = [...pool()].sort((a, b) => a.waiting - b.waiting)
  free!.waiting++
  try {
    return await work(free!.face)
  } finally {
    free!.waiting--
  }
}
