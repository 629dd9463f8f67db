import { availableParallelism } from 'node:os'
import { basename, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import type { Card } from '../core/card/schema'
import { WaxError } from '../core/errors'
import { RENDER_FORMATS } from '../core/formats/deliveries'
import { heldLength, holdsFor, zonesOf } from '../core/time/held'
import { readTimecode } from '../core/time/timecode'
import { renderOptionsSchema } from '../server/renders/options'
import { renderFile } from '../server/renders/render-file'
import { allFonts, allPictures } from './assets'
import { openCard } from './card-file'
import { FILE_OPTIONS } from './engine'
import { allSequences } from './sequences'

const OPTIONS = {
  out: { type: 'string' },
  format: { type: 'string', default: 'png' },
  bits: { type: 'string', default: '8' },
  frames: { type: 'string' },
  length: { type: 'string' },
  ...FILE_OPTIONS,
  threads: { type: 'string' },
} as const

/** `wax render CARD --out PATH …`: the file is read again before it gets its name; exit code 1 where it differs. */
export async function render(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const { card } = opened
  if (!values.out) throw new WaxError('no-path', '--out', 'No place for the file was named.', 'Give a path.')
  const holds = values.length === undefined ? 1 : holdsOf(values.length, card)
  const { from, to } = frameRange(values.frames, heldLength(card, holds))
  const options = renderOptionsSchema.safeParse({ format: values.format, bits: Number(values.bits), from, to, holds })
  if (!options.success) {
    throw new WaxError(
      'unknown-format',
      '--format, --bits',
      `“${values.format}” with ${values.bits} bits is not made here.`,
      `Use ${RENDER_FORMATS.join(' or ')}, with 8 or 16 bits.`,
    )
  }
  const report = await renderFile({
    card,
    fonts: await allFonts(opened, values.font),
    pictures: await allPictures(opened, values.picture),
    sequences: await allSequences(opened, values.sequence),
    options: options.data,
    path: resolve(values.out),
    stem: basename(positionals[0]!).replace(/(\.card)?\.(json|zip)$/, ''),
    threads: values.threads ? Math.max(1, Number(values.threads) || 1) : availableParallelism(),
    onProgress: (stage, done) => {
      if (process.stderr.isTTY)
        process.stderr.write(`\r${stage === 'running' ? 'frame' : 'checked'} ${done} of ${to - from} `)
    },
  })
  if (process.stderr.isTTY) process.stderr.write('\n')
  for (const { label, found, expected, passed } of report.checks) {
    console.log(`${passed ? 'ok  ' : 'FAIL'} ${label}: ${found}${passed ? '' : ` (expected ${expected})`}`)
  }
  return report.passed ? 0 : 1
}

/** Whole holds that come nearest to a length in frames or timecode. */
function holdsOf(text: string, card: Card): number {
  if (!zonesOf(card)) {
    throw new WaxError(
      'no-zones',
      '--length',
      'The card has no zones, so there is no hold to repeat.',
      'Set its zones on the ribbon, or leave --length out.',
    )
  }
  return holdsFor(card, readTimecode(text, card.rate))
}

/** `0-59` is 60 frames, both ends included; a single number is one frame. */
function frameRange(text: string | undefined, length: number): { from: number; to: number } {
  if (text === undefined) return { from: 0, to: length }
  const match = /^(\d+)(?:-(\d+))?$/.exec(text)
  if (!match)
    throw new WaxError(
      'not-a-range',
      '--frames',
      `“${text}” is no range of frames.`,
      'Write FIRST-LAST, for example 0-59.',
    )
  const from = Number(match[1])
  const last = Number(match[2] ?? match[1])
  if (last < from) {
    throw new WaxError(
      'no-frames',
      '--frames',
      `From ${from} to ${last} there is no frame to render.`,
      'The last frame comes after the first.',
    )
  }
  return { from, to: last + 1 }
}
