import * as Comlink from 'comlink'
import type { Card } from '#core/card/schema'
import type { Flashes } from '#core/judge/measures/flashes'
import type { ProofLine } from '#core/judge/proof/definition'
import type { HeldAgainst, Looked } from '#core/judge/proof/look'
import type { WithEngine } from '#core/judge/with-engine'
import { loadAssets, pictureOfSequence } from './card-assets'

// Proves a card with an engine of its own: it looks at every frame, which takes a while.

// The engine's module waits for the shaping library to load, and messages that arrive before the worker listens would be lost:
// it listens at once.
const core = Promise.all([
  import('#core/frame/engine'),
  import('#core/frame/fetching'),
  import('#core/judge/proof/proof'),
  import('#core/judge/pictures/table'),
])

/** What was looked at, for pictures of it. */
let last: { looked: Looked; withEngine: WithEngine } | null = null

const face = {
  async prove(card: Card, against: HeldAgainst, onShare: (share: number) => void): Promise<Proved> {
    const [{ Engine }, { withPictures }, { proofOf }] = await core
    const engine = new Engine()
    for (const one of [card, ...(against.rows ?? []).map((row) => row.card)]) await loadAssets(engine, one)
    const withEngine: WithEngine = (work) => withPictures(engine.sequences, pictureOfSequence, () => work(engine))
    const { passed, lines, looked } = await proofOf(card, withEngine, { ...against, onFrame: onShare })
    last = { looked, withEngine }
    return { passed, lines, flashes: looked.flashes }
  },

  /** A picture of what a check looked at in the card that was proved last. */
  async picture(check: string): Promise<{ bitmap: ImageBitmap; frame: number; caption: string } | null> {
    const [, , , { CHECK_PICTURES }] = await core
    const draw = CHECK_PICTURES[check]
    if (!draw || !last || last.looked.moments.length === 0) return null
    const { picture, frame, caption } = await draw(last.looked, last.withEngine)
    const image = new ImageData(new Uint8ClampedArray(picture.pixels), picture.width, picture.height)
    const bitmap = await createImageBitmap(image)
    return Comlink.transfer({ bitmap, frame, caption }, [bitmap])
  },
}

export interface Proved {
  passed: boolean
  lines: ProofLine[]
  flashes: Flashes
}

export type ProofFace = typeof face

Comlink.expose(face)
