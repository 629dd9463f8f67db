import { bled } from './bleed'
import type { Encoder } from './encoder'
import { readPlanes, SAID_709, TAGS_709 } from './movie'
import { pipeInto, rawInput, rawName } from './piped'

// Alpha goes its own way: swscale would turn 128 into 129 between RGBA and planes of 8 bits.
const FILTER = [
  '[0:v]split[a][b]',
  '[b]alphaextract[alpha]',
  '[a]scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int+full_chroma_inp,format=yuv420p[colour]',
  `[colour][alpha]alphamerge,${SAID_709}`,
].join(';')

export const webm: Encoder = {
  tags: TAGS_709,
  shown: () => Promise.resolve({ of: bled }),
  open: (plan) =>
    Promise.resolve(
      pipeInto([
        ...[...rawInput(plan, rawName(8)), '-filter_complex', FILTER],
        ...['-c:v', 'libvpx-vp9', '-crf', '10', '-b:v', '0', '-deadline', 'good', '-cpu-used', '4'],
        ...['-row-mt', '1', '-tile-columns', '2', '-auto-alt-ref', '0', '-g', '60', '-f', 'webm', '-y', plan.paths[0]!],
      ]),
    ),
  // ffmpeg's own decoder drops alpha.
  read: (plan) => readPlanes(plan.paths[0]!, ['-c:v', 'libvpx-vp9'], 'yuva420p'),
}
