import type { Encoder } from './encoder'
import { shownOverMatte } from './matte'
import { MOV, readPlanes, SAID_709, TAGS_709, timecodeArgs, toYuv } from './movie'
import { pipeInto, rawInput, rawName } from './piped'

/** Frames travel as 16-bit RGB to planes of BT.709. The codec keeps alpha in 16 bits without loss of its 10. */
export const proRes4444: Encoder = {
  tags: TAGS_709,
  shown: shownOverMatte,
  open: (plan) =>
    Promise.resolve(
      pipeInto([
        ...rawInput(plan, rawName(16)),
        ...['-vf', `format=gbrap16le,${toYuv('yuva444p10le')},${SAID_709}`],
        ...['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '16', '-qscale:v', '1', '-vendor', 'apl0'],
        ...[...timecodeArgs(plan), ...MOV, '-y', plan.paths[0]!],
      ]),
    ),
  read: (plan) => readPlanes(plan.paths[0]!),
}
