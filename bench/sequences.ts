import { createCanvas, ImageData } from '@napi-rs/canvas'
import sharp from 'sharp'
import { createCard, createPiece } from '../core/card/create'
import type { Card, SequencePiece } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import type { SmallFrame } from '../core/judge/best-cut'
import { bestCut, distancesOf } from '../core/judge/best-cut'
import type { Picture } from '../core/paint/pictures'
import { decodedValues } from '../server/pictures/decoded'
import type { Row } from './measure'
import { beside, median } from './measure'

// Pictures of a sequence at 1920×1080: decoded, laid, mixed, and all of them compared with each other.

const [W, H] = [1920, 1080]
const COUNT = 24
const ID = 'sequence-0123456789abcdef'

/** Soft stripes that move, with alpha: something between a flat field and noise. */
function picture(frame: number, bits: 8 | 16): Picture {
  const pixels = bits === 8 ? new Uint8Array(W * H * 4) : new Uint16Array(W * H * 4)
  const step = bits === 8 ? 1 : 257
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)]
    const v = (x * 3 + y * 5 + frame * 17) & 255
    pixels.set([v * step, (255 - v) * step, ((x ^ y) & 255) * step, (128 + (v >> 1)) * step], i * 4)
  }
  return { width: W, height: H, pixels }
}

function card(values: Partial<SequencePiece>): Card {
  const base = createCard('Sequence', { width: W, height: H, rate: { numerator: 25, denominator: 1 }, length: COUNT })
  const own = { sequence: { id: ID, frames: COUNT }, width: W, height: H, x: W / 2, y: H / 2 }
  return { ...base, pieces: [{ ...createPiece('sequence', base), ...own, ...values } as SequencePiece] }
}

function engineWith(pictures: readonly Picture[]): Engine {
  const engine = new Engine()
  pictures.forEach((one, i) => engine.sequences.add(ID, i, one))
  return engine
}

export async function sequenceRows(): Promise<Row[]> {
  const rows: Row[] = []
  const eight = Array.from({ length: 8 }, (_, i) => picture(i, 8))
  const images = eight.map(({ pixels }) => new ImageData(new Uint8ClampedArray(pixels), W, H))
  let frame = 0
  let other = 0
  const plain = engineWith(eight)
  const skia = () => {
    const [one, two] = [createCanvas(W, H), createCanvas(W, H)]
    one.getContext('2d').putImageData(images[other++ % 8]!, 0, 0)
    two.getContext('2d').drawImage(one, 0, 0)
    return two.getContext('2d').getImageData(0, 0, W, H)
  }
  const peer = '@napi-rs/canvas (Skia, u8), drawn and read'
  const laid = (engine: Engine, values: Partial<SequencePiece>, scale = 1) => {
    const shown = card(values)
    return () => engine.render(shown, frame++ % 8, { scale })
  }
  rows.push(await beside('8 bit, laid at its size', laid(plain, {}), peer, skia))
  rows.push(await beside('8 bit, at a third for the stage', laid(plain, {}, 1 / 3), peer, skia))
  rows.push(
    await beside(
      'two of them mixed',
      laid(plain, { rate: { numerator: 12, denominator: 1 }, between: 'mixed' }),
      peer,
      skia,
    ),
  )
  const deep = engineWith(Array.from({ length: 8 }, (_, i) => picture(i, 16)))
  rows.push(await beside('16 bit, laid at its size', laid(deep, {}), peer, skia))
  const png = await sharp(eight[0]!.pixels, { raw: { width: W, height: H, channels: 4 } })
    .png({ compressionLevel: 1 })
    .toBuffer()
  rows.push({
    ...{ name: 'decoded from its PNG file', ours_ms: await median(() => decodedValues(png, false)) },
    ...{ peer: 'by libvips itself', peer_ms: null, ratio: null },
  })
  const small = Array.from({ length: 250 }, (_, f): SmallFrame => {
    const luma = Uint8Array.from({ length: 64 * 36 }, (_, i) => ((i * 7 + f * 13) % 97) * 2)
    return { luma, alpha: new Uint8Array(64 * 36).fill(255) }
  })
  rows.push({
    ...{ name: 'best cut of 250 pictures', ours_ms: await median(() => bestCut(distancesOf(small)), undefined, 3) },
    ...{ peer: 'all distances, periods, cuts', peer_ms: null, ratio: null },
  })
  return rows
}
