import type { Card } from '#core/card/schema'
import type { Engine, FramePicture } from '#core/frame/engine'

export const equalPictures = (a: FramePicture, b: FramePicture): boolean =>
  Buffer.from(a.pixels).equals(Buffer.from(b.pixels))

/** A part of every frame that these tests render. */
const PART = { x: 64, y: 64, w: 128, h: 64 }

/** Throws where a frame is another one with nothing kept, or where a part of it is not that of the whole. */
export function expectSamePicture(engine: Engine, bare: Engine, card: Card, frame: number, label: string): void {
  const whole = engine.render(card, frame)
  if (!equalPictures(whole, bare.render(card, frame))) throw new Error(`${label}: other with nothing kept`)
  const part = engine.render({ ...card }, frame, { region: PART })
  for (let y = 0; y < PART.h; y++) {
    const row = part.pixels.subarray(y * PART.w * 4, (y + 1) * PART.w * 4)
    const at = ((y + PART.y) * whole.width + PART.x) * 4
    const same = Buffer.from(row).equals(Buffer.from(whole.pixels.subarray(at, at + PART.w * 4)))
    if (!same) throw new Error(`${label}: row ${y} differs`)
  }
}
