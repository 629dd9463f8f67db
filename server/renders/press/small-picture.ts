import { writeFile } from 'node:fs/promises'
import sharp from 'sharp'
import type { FramePicture } from '../../../core/frame/engine'
import { perSecond } from '../../../core/values/rate'
import type { FilePlan } from '../encoders/encoder'
import { forDisplay } from '../edit/straight'
import { seenInPixels } from '../encoders/seen-pixels'

// A render as a small moving picture, for lists: a WebP file with straight alpha, played over whatever one likes.

/** Px across, for a picture of 16:9; others have as many pixels. */
const ACROSS = 240
const PIXELS = ACROSS * ((ACROSS * 9) / 16)
/** Pictures that it has at the most. */
const MOST = 36
/** Pixels of the frame that are looked at for one of the small picture, along a side. */
const LOOKS = 4

/** Gathers some of the frames that go by. */
export class SmallPicture {
  private readonly pictures: Buffer[] = []
  private readonly size: { width: number; height: number }
  private readonly step: number

  constructor(private readonly plan: FilePlan) {
    const scale = Math.min(1, Math.sqrt(PIXELS / (plan.width * plan.height)))
    this.size = {
      width: Math.max(1, Math.round(plan.width * scale)),
      height: Math.max(1, Math.round(plan.height * scale)),
    }
    this.step = Math.max(1, plan.frames / MOST)
  }

  /** Whether a frame was taken. */
  take(picture: FramePicture, at: number): boolean {
    if (at < this.pictures.length * this.step) return false
    this.pictures.push(shrunk(picture, this.plan, this.size))
    return true
  }

  /** All frames so far, moving; or the last one alone. */
  async write(path: string, moving: boolean): Promise<void> {
    const { width, height } = this.size
    const shown = moving ? this.pictures : this.pictures.slice(-1)
    const raw = { width, height: height * shown.length, channels: 4 as const, pageHeight: height }
    const delay = Math.round((this.step * 1000) / perSecond(this.plan.rate))
    const image = sharp(Buffer.concat(shown), { raw })
    await writeFile(
      path,
      await image.webp({ quality: 82, effort: 2, loop: 0, delay: shown.map(() => delay) }).toBuffer(),
    )
  }
}

interface Size {
  width: number
  height: number
}

/** Means of pixels of a frame, weighted by alpha; straight, for the display, in 8 bits. */
function shrunk(picture: FramePicture, { form, width, height }: FilePlan, small: Size): Buffer {
  const made = Buffer.alloc(small.width * small.height * 4)
  const seen = seenInPixels(picture.pixels, picture)
  const sums = new Float32Array(small.width * 4)
  const isStraight = form.alpha === 'straight'
  for (let v = 0; v < small.height; v++) {
    sums.fill(0)
    for (let j = 0; j < LOOKS; j++) {
      const row = seen.row(Math.floor(((v + (j + 0.5) / LOOKS) / small.height) * height), 0, width)
      for (let u = 0, to = 0; u < small.width; u++, to += 4) {
        for (let i = 0; i < LOOKS; i++) {
          const at = Math.floor(((u + (i + 0.5) / LOOKS) / small.width) * width) * 4
          const alpha = row[at + 3]!
          const weight = isStraight ? alpha : 1
          for (let c = 0; c < 3; c++) sums[to + c]! += row[at + c]! * weight
          sums[to + 3]! += alpha
        }
      }
    }
    for (let u = 0, at = v * small.width * 4; u < small.width; u++, at += 4) {
      const alpha = sums[u * 4 + 3]!
      if (alpha === 0) continue
      for (let c = 0; c < 3; c++) {
        const value = sums[u * 4 + c]! / alpha
        made[at + c] = Math.round(255 * Math.min(1, form.light === 'linear' ? forDisplay(value) : value))
      }
      made[at + 3] = Math.round((255 * alpha) / LOOKS ** 2)
    }
  }
  return made
}
