import { stat, writeFile } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { basename, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import type { Card } from '../core/card/schema'
import { WaxError } from '../core/errors'
import type { DeliveredFile } from '../core/formats/deliveries/delivery'
import { fileNameOf, nameFrom } from '../core/formats/deliveries/file-name'
import { deliveryOf } from '../core/formats/deliveries/table'
import { heldLength, zonesOf } from '../core/time/held'
import { holdsFor } from '../core/time/hold-still'
import { readTimecode } from '../core/time/timecode'
import type { CheckResult } from '../server/renders/report'
import { renderFile } from '../server/renders/render-file'
import { sidecarOf } from '../server/renders/sidecar'
import { allFonts, allPictures } from './assets'
import { openCard } from './card-file'
import { DELIVERY_FLAGS, deliveryWish } from './delivery-flags'
import { FILE_OPTIONS } from './engine'
import { allSequences } from './sequences'

const OPTIONS = {
  out: { type: 'string' },
  frames: { type: 'string' },
  length: { type: 'string' },
  sidecar: { type: 'string' },
  ...DELIVERY_FLAGS,
  ...FILE_OPTIONS,
  threads: { type: 'string' },
} as const

/** `wax render CARD --out PATH …`: the files are read again before they get their names; exit code 1 where they differ. */
export async function render(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, allowNegative: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const { card } = opened
  if (!values.out) throw new WaxError('no-path', '--out', 'No place for the file was named.', 'Give a path.')
  const holds = values.length === undefined ? 1 : holdsOf(values.length, card)
  const options = deliveryWish(values, { ...frameRange(values.frames, heldLength(card, holds)), holds })
  const stem = basename(positionals[0]!).replace(/(\.card)?\.(json|zip)$/, '')
  const named = nameFrom(options.name, { card: card.name, row: '', take: 1 })
  const files = deliveryOf(options.format).files(options)
  const paths = await placesFor(values.out, files, named)
  const rendered = await renderFile({
    card,
    fonts: await allFonts(opened, values.font),
    pictures: await allPictures(opened, values.picture),
    sequences: await allSequences(opened, values.sequence),
    options,
    paths,
    stem,
    threads: values.threads ? Math.max(1, Number(values.threads) || 1) : availableParallelism(),
    onProgress: (stage, done) => {
      if (process.stderr.isTTY)
        process.stderr.write(`\r${stage === 'running' ? 'frame' : 'checked'} ${done} of ${options.to - options.from} `)
    },
  })
  if (process.stderr.isTTY) process.stderr.write('\n')
  printChecks(rendered.report.checks)
  if (!rendered.report.passed) {
    console.log('not written')
    return 1
  }
  const { render, check } = rendered.report.seconds
  console.log(`rendered in ${render.toFixed(1)} s, read again and checked in ${check.toFixed(1)} s`)
  if (values.sidecar) {
    const whole = []
    // A folder of frames has no hash of its own.
    for (const path of paths) if ((await stat(path)).isFile()) whole.push({ path, name: basename(path) })
    const sidecar = await sidecarOf({ card, id: null, revision: null }, rendered, whole)
    await writeFile(resolve(values.sidecar), `${JSON.stringify(sidecar, null, 1)}\n`)
  }
  return 0
}

export function printChecks(checks: readonly CheckResult[]): void {
  for (const { label, found, expected, passed } of checks) {
    console.log(`${passed ? 'ok  ' : 'FAIL'} ${label}: ${found}${passed ? '' : ` (expected ${expected})`}`)
  }
}

/** Where the files go: named by the pattern where `out` is a folder that is there, and told apart where there are several. */
async function placesFor(out: string, files: readonly DeliveredFile[], named: string): Promise<string[]> {
  const path = resolve(out)
  const [first] = files
  const isFolder = (await stat(path).catch(() => null))?.isDirectory() ?? false
  // A folder is also where single frames may go, as they did before names were made from patterns.
  if (isFolder && !(files.length === 1 && first!.ending === '.zip'))
    return files.map((file) => join(path, fileNameOf(named, file)))
  if (files.length === 1) return [path]
  const stem = path.replace(/\.[a-z0-9]+$/i, '')
  return files.map((file) => fileNameOf(stem, file))
}

/** Holds that come nearest to a length in frames or timecode: whole ones where the hold moves. */
export function holdsOf(text: string, card: Card): number {
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
export function frameRange(text: string | undefined, length: number): { from: number; to: number } {
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
