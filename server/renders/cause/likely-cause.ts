import type { FramePicture } from '../../../core/frame/engine'
import type { SeenPicture } from '../encoders/encoder'
import { seenIn } from '../encoders/seen'
import { seenInPixels } from '../encoders/seen-pixels'
import type { Finished } from '../verify'
import { orderCause, REACH } from './order-cause'
import { pixelCause } from './pixel-cause'

/** Frames from which a cause is told: whoever made the mistake made it from the start, or it is looked for in vain. */
const MOST = 600
/** Cells of a small picture of a frame, across and down. */
const ACROSS = 24
const DOWN = 14

/** A frame in small: the means of RGBA in its cells, colours times alpha. */
type Small = Float32Array

/**
 * What was likely done to a file that failed: it is read once more, and each frame is held against those around it and against what
 * other programs are known to do. Null where nothing known explains it.
 */
export async function likelyCause({ encoder, plan, order, made }: Finished): Promise<string | null> {
  const { width, height, form } = plan
  const file = await encoder.read(plan)
  if (file.width !== width || file.height !== height) return null
  const shown = await encoder.shown?.(plan)
  const count = Math.min(order.length, MOST)
  const meant: Small[] = []
  const found: Small[] = []
  let worst: { by: number; cause: () => string | null } = { by: 0, cause: () => null }
  try {
    const meantAt = async (at: number): Promise<FramePicture> => {
      const pixels = (await made.pixels(order[at]!)) as Uint8Array<ArrayBuffer>
      const picture = { width, height, bits: form.bits, pixels }
      return (await shown?.of(picture, at)) ?? picture
    }
    for await (const raw of file.frames) {
      const at = found.length
      if (at >= count + REACH) break
      const seen = seenIn(raw, file.stored, plan)
      found.push(inSmall(seen, width, height))
      if (at >= count) continue
      const picture = await meantAt(at)
      meant.push(inSmall(seenInPixels(picture.pixels, picture), width, height))
      const by = smallApart(found[at]!, meant[at]!)
      if (by <= worst.by) continue
      // Both are used again for the next one.
      const [stored, own] = [Uint8Array.from(raw), { ...picture, pixels: picture.pixels.slice() }]
      worst = {
        by,
        cause: () => pixelCause(seenInPixels(own.pixels, own), seenIn(stored, file.stored, plan), width, height),
      }
    }
    for (let at = meant.length; at < count; at++) {
      const picture = await meantAt(at)
      meant.push(inSmall(seenInPixels(picture.pixels, picture), width, height))
    }
  } finally {
    shown?.end?.()
  }
  return orderCause((at, place) => smallApart(found[at]!, meant[place]!), found.length, meant.length) ?? worst.cause()
}

function inSmall(seen: SeenPicture, width: number, height: number): Small {
  const small = new Float32Array(ACROSS * DOWN * 4)
  // A few rows of each cell tell enough.
  const step = Math.max(1, Math.floor(height / (DOWN * 4)))
  for (let y = 0; y < height; y += step) {
    const row = seen.row(y, 0, width)
    const line = Math.floor((y * DOWN) / height) * ACROSS
    for (let x = 0; x < width; x++) {
      const cell = (line + Math.floor((x * ACROSS) / width)) * 4
      const alpha = row[x * 4 + 3]!
      for (let c = 0; c < 3; c++) small[cell + c]! += row[x * 4 + c]! * alpha
      small[cell + 3]! += alpha
    }
  }
  const area = (width * height) / (step * ACROSS * DOWN)
  return small.map((sum) => sum / area)
}

function smallApart(a: Small, b: Small): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += Math.abs(a[i]! - b[i]!)
  return sum / a.length
}
