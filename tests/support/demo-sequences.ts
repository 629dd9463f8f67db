import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { unzipSync } from 'fflate'
import UPNG from 'upng-js'
import type { Engine } from '#core/frame/engine'
import type { Picture } from '#core/paint/pictures'
import { supplied } from './sequences'

// The demo's sequences, as another reader has them (UPNG), by the ids that their contents give.

const sequences = new Map<string, Buffer[]>()

function load(): void {
  for (const file of readdirSync('demo/sequences')) {
    const entries = Object.entries(unzipSync(new Uint8Array(readFileSync(`demo/sequences/${file}`)))).sort()
    const files = entries.map(([, bytes]) => Buffer.from(bytes))
    const whole = createHash('sha256')
    for (const bytes of files) whole.update(createHash('sha256').update(bytes).digest())
    sequences.set(`sequence-${whole.digest('hex').slice(0, 16)}`, files)
  }
}

const pictures = new Map<string, Picture>()

function picture(id: string, index: number): Picture {
  if (sequences.size === 0) load()
  const key = `${id} ${index}`
  const known = pictures.get(key)
  if (known) return known
  const file = sequences.get(id)![index]!
  const decoded = UPNG.decode(new Uint8Array(file).buffer)
  const { width, height } = decoded
  const made = { width, height, pixels: new Uint8Array(UPNG.toRGBA8(decoded)[0]!) }
  pictures.set(key, made)
  return made
}

/** Lets an engine work on a card of the demo. */
export const withDemoSequences = <T>(engine: Engine, work: () => T): T =>
  supplied(engine, (index, id) => picture(id, index), work)
