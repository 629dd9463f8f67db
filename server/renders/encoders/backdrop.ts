import { resolve } from 'node:path'
import { FOOTAGE } from '../../../core/formats/footage'
import { readColour } from '../../../core/values/colour'
import { rawFrames } from '../ffmpeg'
import type { FilePlan } from './encoder'

/** What lies behind the card in a review copy. */
export interface Backdrop {
  /** RGBA of 8 bits, solid, at a place in the run. Places are asked for in their order, some may be left out. */
  picture(index: number): Promise<Uint8Array>
  end(): void
}

export function backdropOf(plan: FilePlan): Backdrop {
  const footage = FOOTAGE.find(({ id }) => id === plan.options.backdrop)
  if (footage) return new FootageBehind(resolve(`public/footage/${footage.id}.webm`), plan)
  const still = stillOf(plan)
  return { picture: () => Promise.resolve(still), end: () => {} }
}

/** Squares of a checker, in px at 1080 lines. */
const SQUARE = 24
const CHECKER = [0x74, 0x8a] as const

/** One colour, or a checker. */
function stillOf({ options, width, height }: FilePlan): Uint8Array {
  const pixels = new Uint8Array(width * height * 4).fill(255)
  const colour = readColour(options.matte ?? '#000000').map((value) => Math.round(value * 255))
  const square = Math.max(2, Math.round((SQUARE * height) / 1080))
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      const grey = CHECKER[((x / square) & 1) ^ ((y / square) & 1) ? 1 : 0]!
      for (let c = 0; c < 3; c++) pixels[at + c] = options.backdrop === 'checker' ? grey : colour[c]!
    }
  }
  return pixels
}

/** Footage from its beginning, as often as it takes, at the rate of the run; it fills the frame, whatever its shape. */
class FootageBehind implements Backdrop {
  private readonly frames: AsyncGenerator<Buffer>
  private next = 0
  private last: Promise<unknown> = Promise.resolve()

  constructor(path: string, { width, height, rate }: FilePlan) {
    const size = `${width}:${height}`
    const filters = [
      `fps=${rate.numerator}/${rate.denominator}`,
      // The same numbers on every machine, whatever its processor is best at.
      `scale=${size}:force_original_aspect_ratio=increase:flags=bicubic+accurate_rnd+full_chroma_int+bitexact`,
      `crop=${size}`,
    ]
    this.frames = rawFrames(path, 'rgba', width * height * 4, ['-stream_loop', '-1'], ['-vf', filters.join()])
  }

  picture(index: number): Promise<Uint8Array> {
    const found = this.last.then(() => this.skipTo(index))
    this.last = found.catch(() => {})
    return found
  }

  end(): void {
    void this.frames.return(undefined)
  }

  private async skipTo(index: number): Promise<Uint8Array> {
    for (;;) {
      const { value, done } = (await this.frames.next()) as IteratorResult<Buffer, undefined>
      if (done) throw new Error('The footage behind the card has ended.')
      // Its bytes are used again for the next one.
      if (this.next++ === index) return new Uint8Array(value)
    }
  }
}
