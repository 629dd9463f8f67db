import type { FramePicture } from '../../../core/frame/engine'
import { timecode, readTimecode, droppedNumbers } from '../../../core/time/timecode'
import { readColour } from '../../../core/values/colour'
import type { BurnIn } from '../burn-in'
import { burnIn } from '../burn-in'
import type { Encoder, FilePlan } from './encoder'
import { FAITHFUL_H264, readPlanes, SAID_709, TAGS_709, timecodeArgs, toYuv } from './movie'
import { pipeInto, rawInput, rawName } from './piped'

// What clients look at: over a backdrop, with its name and timecode. It is not transparent, and says so nowhere else than where
// it is chosen: its file has no alpha at all.

export const reviewCopy: Encoder = {
  tags: TAGS_709,
  shown,
  open: (plan) =>
    Promise.resolve(
      pipeInto([
        ...[...rawInput(plan, rawName(8)), '-vf', `format=gbrp,${toYuv('yuv420p')},${SAID_709}`],
        ...['-c:v', 'libx264', '-preset', 'fast', '-crf', '10', ...FAITHFUL_H264, '-movflags', '+faststart'],
        ...[...timecodeArgs(plan), '-f', 'mp4', '-y', plan.paths[0]!],
      ]),
    ),
  read: (plan) => readPlanes(plan.paths[0]!),
}

async function shown(plan: FilePlan): Promise<(picture: FramePicture, index: number) => FramePicture> {
  const { options, width, height, rate, first } = plan
  const under = backdrop(plan)
  const words: BurnIn | null = options.burn === false ? null : await burnIn(plan.title, width, height)
  const drop = options.timecode?.includes(';') ?? false
  const start = options.timecode ? readTimecode(options.timecode, rate) : first
  return (picture, index) => {
    const pixels = under.slice()
    const { pixels: over } = picture
    for (let at = 0; at < pixels.length; at += 4) {
      if (over[at + 3] === 0) continue
      const clear = 255 - over[at + 3]!
      // Premultiplied over solid (W3C Compositing 1, source-over).
      for (let c = at; c < at + 3; c++) pixels[c] = over[c]! + (((under[c]! * clear + 127) / 255) | 0)
    }
    words?.write(pixels, timecode(start + index, rate, drop && droppedNumbers(rate) > 0))
    return { ...picture, pixels }
  }
}

/** Squares of a checker, in px at 1080 lines. */
const SQUARE = 24
const CHECKER = [0x74, 0x8a] as const

/** RGBA of what lies behind. */
function backdrop({ options, width, height }: FilePlan): Uint8Array {
  const pixels = new Uint8Array(width * height * 4)
  const colour = readColour(options.matte ?? '#000000').map((value) => Math.round(value * 255))
  const square = Math.max(2, Math.round((SQUARE * height) / 1080))
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      const grey = CHECKER[((x / square) & 1) ^ ((y / square) & 1) ? 1 : 0]!
      pixels[at + 3] = 255
      for (let c = 0; c < 3; c++) pixels[at + c] = options.backdrop === 'checker' ? grey : colour[c]!
    }
  }
  return pixels
}
