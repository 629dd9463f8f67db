import { parentPort, workerData } from 'node:worker_threads'
import type { Card } from '../../core/card/schema'
import { Engine } from '../../core/frame/engine'
import type { Picture } from '../../core/paint/pictures'

// One thread of the frame pool: an engine of its own, frames in and pixels out.

interface ThreadData {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  bits: 8 | 16
}

const { card, fonts, pictures, bits } = workerData as ThreadData
const engine = new Engine()
const port = parentPort!

try {
  for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
  for (const [id, picture] of pictures ?? []) engine.pictures.add(id, picture)
} catch (error) {
  port.postMessage({ at: -1, fault: faultOf(error) })
}

/** Pixels that are with the reader, by the place of their frame in the run. */
const lent = new Map<number, Uint8Array>()

/** What is wanted next. `back` are pixels that were read: new memory for every frame would have to be cleared first. */
interface Wish {
  at: number
  frame: number
  back?: { at: number; pixels: Uint8Array<ArrayBuffer> }
}

port.on('message', ({ at, frame, back }: Wish) => {
  try {
    if (back) {
      engine.cameBack(lent.get(back.at)!, back.pixels)
      lent.delete(back.at)
    }
    const picture = engine.render(card, frame, { bits, ...(back ? { reuse: back.pixels } : {}) })
    lent.set(at, picture.pixels)
    port.postMessage({ at, picture }, [picture.pixels.buffer])
  } catch (error) {
    port.postMessage({ at, fault: faultOf(error) })
  }
})

function faultOf(error: unknown) {
  const known = (error as { fault?: unknown }).fault
  const message = error instanceof Error ? error.message : String(error)
  return known ?? { code: 'engine', place: 'engine', message, remedy: 'Report this with the card file.' }
}
