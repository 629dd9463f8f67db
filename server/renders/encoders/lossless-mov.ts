import type { Encoder, FilePlan } from './encoder'
import { shownOverMatte } from './matte'
import { MOV, readRgba, SAID_SRGB, timecodeArgs } from './movie'
import { pipeInto, rawInput, rawName } from './piped'

// Codecs of MOV that keep RGBA to the byte.

const lossless = (bits: (plan: FilePlan) => 8 | 16, codec: (bits: 8 | 16) => string[]): Encoder => ({
  tags: null,
  shown: shownOverMatte,
  open: (plan) =>
    Promise.resolve(
      pipeInto([
        ...[...rawInput(plan, rawName(bits(plan))), '-vf', SAID_SRGB, ...codec(bits(plan))],
        ...[...timecodeArgs(plan), ...MOV, '-y', plan.paths[0]!],
      ]),
    ),
  read: (plan) => readRgba(plan.paths[0]!, bits(plan) === 8 ? 'rgba' : 'rgba64le'),
})

export const runLength = lossless(
  () => 8,
  () => ['-pix_fmt', 'argb', '-c:v', 'qtrle'],
)

/** Packed lightly: more takes four times as long for a tenth less. */
const LIGHTLY = ['-pred', 'sub', '-compression_level', '1']

export const pngInMov = lossless(
  ({ options }) => (options.bits === 16 ? 16 : 8),
  (bits) => ['-c:v', 'png', ...LIGHTLY, '-pix_fmt', bits === 8 ? 'rgba' : 'rgba64be'],
)
