import { timecode, readTimecode, droppedNumbers } from '../../../core/time/timecode'
import type { BurnIn } from '../burn-in'
import { burnIn } from '../burn-in'
import { backdropOf } from './backdrop'
import type { Encoder, FilePlan, Shown } from './encoder'
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

async function shown(plan: FilePlan): Promise<Shown> {
  const { options, width, height, rate, first } = plan
  const words: BurnIn | null = options.burn === false ? null : await burnIn(plan.title, width, height)
  const drop = options.timecode?.includes(';') ?? false
  const start = options.timecode ? readTimecode(options.timecode, rate) : first
  const backdrop = backdropOf(plan)
  return {
    of: async (picture, index) => {
      const pixels = laidOver(picture.pixels, await backdrop.picture(index))
      words?.write(pixels, timecode(start + index, rate, drop && droppedNumbers(rate) > 0))
      return { ...picture, pixels }
    },
    end: () => backdrop.end(),
  }
}

/** Premultiplied over solid (W3C Compositing 1, source-over). */
function laidOver(over: Uint8Array, under: Uint8Array): Uint8Array<ArrayBuffer> {
  const pixels = new Uint8Array(under)
  for (let at = 0; at < pixels.length; at += 4) {
    if (over[at + 3] === 0) continue
    const clear = 255 - over[at + 3]!
    for (let c = at; c < at + 3; c++) pixels[c] = over[c]! + (((under[c]! * clear + 127) / 255) | 0)
  }
  return pixels
}
