import * as Comlink from 'comlink'
import { onScopeDispose, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { Flashes } from '#core/judge/measures/flashes'
import type { ProofLine } from '#core/judge/proof/definition'
import type { HeldAgainst } from '#core/judge/proof/look'
import { faultOf } from '~/composables/api'
import type { ProofFace } from '~/workers/proof.worker'

/** Proves cards in a worker, one after the other; a new one ends the one before. The worker stays, for pictures of what it found. */
export function useProof() {
  const lines = shallowRef<ProofLine[]>([])
  /** How far it is, 0–1; null while nothing is proved. */
  const share = ref<number | null>(null)
  const fault = shallowRef<Fault | null>(null)
  const flashes = shallowRef<Flashes | null>(null)
  let face: Comlink.Remote<ProofFace> | null = null
  let worker: Worker | null = null

  function stop() {
    worker?.terminate()
    worker = null
    face = null
    share.value = null
  }

  async function prove(card: Card, against: HeldAgainst) {
    stop()
    const own = new Worker(new URL('../workers/proof.worker.ts', import.meta.url), { type: 'module' })
    worker = own
    share.value = 0
    fault.value = null
    try {
      // A worker whose module cannot be loaded says so, and nothing else.
      const broken = new Promise<never>((_, reject) =>
        own.addEventListener('error', () => reject(new Error('The proof could not be started.'))),
      )
      const told = Comlink.proxy((now: number) => {
        if (worker === own) share.value = now
      })
      const plain = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T
      const { own: grounds = [], rows = [] } = against
      face = Comlink.wrap<ProofFace>(own)
      const proof = await Promise.race([face.prove(plain(card), { own: grounds, rows: plain(rows) }, told), broken])
      if (worker !== own) return
      lines.value = proof.lines
      flashes.value = proof.flashes
    } catch (error) {
      if (worker === own) fault.value = faultOf(error)
    } finally {
      if (worker === own) share.value = null
    }
  }

  /** A picture of what a check looked at; null where it has none. */
  const pictureOf = async (check: string) => (await face?.picture(check)) ?? null

  onScopeDispose(stop)
  return { lines, flashes, share, fault, prove, pictureOf, stop }
}
