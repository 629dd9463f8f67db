import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import type { Cut } from '../core/judge/best-cut'
import { bestCut, distancesOf, LEAST_CUT } from '../core/judge/best-cut'
import { smallSequence } from '../server/sequences/small-frames'

/** `wax cut FILE`: where a sequence repeats itself, and the cut whose seam shows least. Exit code 1 where it shows. */
export async function cut(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { json: { type: 'boolean', default: false } },
  })
  const [path] = positionals
  if (!path)
    throw new WaxError('no-file', 'FILE', 'A sequence is expected.', 'Name a file, or a folder of numbered PNG files.')
  const { frames, width, height, rate } = await smallSequence(path)
  if (frames.length < LEAST_CUT)
    throw new WaxError('still', path, 'It has a single frame: nothing to cut.', 'Choose a sequence of several frames.')
  const found = bestCut(distancesOf(frames))
  if (values.json) console.log(JSON.stringify({ width, height, rate, ...found }, tidied))
  else {
    const periods = found.periods.map(({ length }) => length).join(', ')
    console.log(`${found.frames} frames of ${width}×${height} px`)
    const isWhole = found.best.in === 0 && found.best.out === found.frames
    const none = isWhole ? 'It is a loop as it is.' : 'Nothing in it repeats itself.'
    console.log(periods ? `Repeats itself after ${periods} frames.` : none)
    console.log(`Best cut: ${words(found.best)}`)
  }
  return found.best.shows ? 1 : 0
}

const words = ({ in: from, out, seam, step, shows }: Cut) =>
  `frames ${from} to ${out - 1}, ${out - from} long; the seam is a step of ${tidy(seam)} of 255, others are ${tidy(step)}: it ${shows ? 'shows' : 'does not show'}.`

const tidy = (value: number) => Math.round(value * 100) / 100
const tidied = (_: string, value: unknown) => (typeof value === 'number' ? tidy(value) : value)
