import * as Comlink from 'comlink'
import { onScopeDispose, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { ProofLine } from '#core/judge/proof/definition'
import { faultOf } from '~/composables/api'
import type { ProofFace } from '~/workers/proof.worker'

/** Proves cards in a worker, one after the other; a new one ends the one before. */
export function useProof() {
  const lines = shallowRef<ProofLine[]>([])
  /** How far it is, 0–1; null while nothing is proved. */
  const share = ref<number | null>(null)
  const fault = shallowRef<Fault | null>(null)
  let worker: Worker | null = null

  function stop() {
    worker?.terminate()
    worker = null
    share.value = null
  }

  async function prove(card: Card) {
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
      const plain = JSON.parse(JSON.stringify(card)) as Card
      const proof = await Promise.race([Comlink.wrap<ProofFace>(own).prove(plain, told), broken])
      if (worker === own) lines.value = proof.lines
    } catch (error) {
      if (worker === own) fault.value = faultOf(error)
    } finally {
      if (worker === own) stop()
    }
  }

  onScopeDispose(stop)
  return { lines, share, fault, prove, stop }
}
