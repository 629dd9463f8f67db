import { parentPort, workerData } from 'node:worker_threads'
import type { Card } from '../../core/card/schema'
import { Engine } from '../../core/frame/engine'
import { fetchAhead, withPictures } from '../../core/frame/fetching'
import type { WithEngine } from '../../core/judge/with-engine'
import { proofOf } from '../../core/judge/proof/proof'
import type { PixelForm } from '../../core/kernels/pixel-form'
import type { Picture } from '../../core/paint/pictures'
import type { PictureGap } from '../../core/paint/sequences'
import type { ProgrammeRun, Take } from '../../core/rosters/run'
import { takesOf } from '../../core/rosters/run'
import type { Answer, ProofWish, SequenceAnswer, SequenceWish, Wish } from './frame-thread'

// One thread of the frame pool: an engine of its own, frames in and pixels out.

interface ThreadData {
  card: Card
  programme: ProgrammeRun | null
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  form: PixelForm
  scale: number
}

const { card, programme, fonts, pictures, form, scale } = workerData as ThreadData
const takes = programme && takesOf(card, programme).takes
/** A frame that is wanted: of the card, or a take of the programme. */
const takeOf = (frame: number): Take => takes?.[frame] ?? { card, frame }
const engine = new Engine()
const port = parentPort!

try {
  for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
  for (const [id, picture] of pictures ?? []) engine.pictures.add(id, picture)
} catch (error) {
  port.postMessage({ at: -1, fault: faultOf(error) })
}

/** Pixels that are with the reader, by the wish that they came of. */
const lent = new Map<number, Uint8Array>()

/** Pictures of sequences that are on their way. */
const coming = new Map<string, (picture: Picture | PictureGap | null) => void>()
const asked = new Map<string, Promise<Picture | PictureGap | null>>()

/** Asks the pool for a picture; asked for again while it is on its way, it is the same one. */
function ask(id: string, index: number): Promise<Picture | PictureGap | null> {
  const key = `${id} ${index}`
  const known = asked.get(key)
  if (known) return known
  const picture = new Promise<Picture | PictureGap | null>((bring) => coming.set(key, bring))
  asked.set(key, picture)
  port.postMessage({ wanted: { id, index } } satisfies SequenceWish)
  return picture
}

let last: Promise<void> = Promise.resolve()

port.on('message', (message: Wish | ProofWish | SequenceAnswer) => {
  if ('brought' in message) {
    const { id, index, picture } = message.brought
    const key = `${id} ${index}`
    coming.get(key)?.(picture)
    coming.delete(key)
    asked.delete(key)
    return
  }
  if ('prove' in message) {
    last = last.then(() => prove(message))
    return
  }
  // While one frame is made, what the next one shows is on its way.
  const wanted = takeOf(message.frame)
  const ahead = fetchAhead(engine.sequences, ask, wanted.card, wanted.frame)
  last = last.then(async () => {
    await ahead
    await make(message)
  })
})

async function prove({ at, prove: against }: ProofWish): Promise<void> {
  try {
    const withEngine: WithEngine = (work) => withPictures(engine.sequences, ask, () => work(engine))
    const { passed, lines } = await proofOf(card, withEngine, against)
    port.postMessage({ at, proved: { passed, lines } } satisfies Answer)
  } catch (error) {
    port.postMessage({ at, fault: faultOf(error) })
  }
}

async function make({ at, frame, back }: Wish): Promise<void> {
  try {
    if (back) {
      engine.cameBack(lent.get(back.at)!, back.pixels)
      lent.delete(back.at)
    }
    const take = takeOf(frame)
    const picture = await withPictures(engine.sequences, ask, () =>
      engine.render(take.card, take.frame, { ...form, scale, ...(back ? { reuse: back.pixels } : {}) }),
    )
    lent.set(at, picture.pixels)
    port.postMessage({ at, picture } satisfies Answer, [picture.pixels.buffer])
  } catch (error) {
    port.postMessage({ at, fault: faultOf(error) })
  }
}

function faultOf(error: unknown) {
  const known = (error as { fault?: unknown }).fault
  const message = error instanceof Error ? error.message : String(error)
  return known ?? { code: 'engine', place: 'engine', message, remedy: 'Report this with the card file.' }
}
