import * as Comlink from 'comlink'
import type { Card } from '#core/card/schema'
import type { ProofLine } from '#core/judge/proof/definition'
import { loadAssets, pictureOfSequence } from './card-assets'

// Proves a card with an engine of its own: it looks at every frame, which takes a while.

// The engine's module waits for the shaping library to load, and messages that arrive before the worker listens would be lost:
// it listens at once.
const core = Promise.all([
  import('#core/frame/engine'),
  import('#core/frame/fetching'),
  import('#core/judge/proof/proof'),
])

const face = {
  async prove(card: Card, onShare: (share: number) => void): Promise<{ passed: boolean; lines: ProofLine[] }> {
    const [{ Engine }, { withPictures }, { proofOf }] = await core
    const engine = new Engine()
    await loadAssets(engine, card)
    const { passed, lines } = await proofOf(
      card,
      (work) => withPictures(engine.sequences, pictureOfSequence, () => work(engine)),
      onShare,
    )
    return { passed, lines }
  },
}

export type ProofFace = typeof face

Comlink.expose(face)
