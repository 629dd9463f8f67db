import { readFile, rm, mkdtemp } from 'node:fs/promises'
import { tmpdir, availableParallelism } from 'node:os'
import { basename, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { deliveryOf } from '../core/formats/deliveries/table'
import { heldLength } from '../core/time/held'
import { encoderOf } from '../server/renders/encoders/table'
import { renderFrames } from '../server/renders/frame-pool'
import { formatOf } from '../server/renders/known-format'
import { planFor } from '../server/renders/plan'
import { SegmentWriter } from '../server/renders/segment'
import { readSidecar } from '../server/renders/sidecar'
import type { CheckResult } from '../server/renders/report'
import { verifyFile } from '../server/renders/verify'
import { verifyAgainst } from '../server/renders/verify-later'
import { allFonts, allPictures } from './assets'
import { openCard } from './card-file'
import { DELIVERY_FLAGS, deliveryWish } from './delivery-flags'
import { FILE_OPTIONS } from './engine'
import { frameRange, holdsOf, printChecks } from './render'
import { allSequences } from './sequences'

const OPTIONS = {
  against: { type: 'string' },
  json: { type: 'boolean', default: false },
  frames: { type: 'string' },
  length: { type: 'string' },
  ...DELIVERY_FLAGS,
  // What is not said is read from the files.
  format: { type: 'string' },
  ...FILE_OPTIONS,
} as const

type Values = ReturnType<typeof parse>['values']

const parse = (args: string[]) => parseArgs({ args, allowPositionals: true, allowNegative: true, options: OPTIONS })

/** `wax verify FILE… --against SIDECAR|CARD`: exit code 1 where the files are not what was made. */
export async function verify(args: string[]): Promise<number> {
  const { values, positionals } = parse(args)
  if (positionals.length === 0) throw new WaxError('no-file', 'FILE', 'No file was named.', 'Give its path.')
  if (!values.against) {
    throw new WaxError(
      'no-sidecar',
      '--against',
      'There is nothing to hold it against.',
      'Name its sidecar, or the card.',
    )
  }
  const paths = positionals.map((path) => resolve(path))
  const isCard = /\.card\.(json|zip)$/i.test(values.against)
  const checks = isCard ? await againstCard(paths, values.against, values) : await againstSidecar(paths, values.against)
  const passed = checks.every((check) => check.passed)
  if (values.json) console.log(JSON.stringify({ passed, checks }))
  else printChecks(checks)
  return passed ? 0 : 1
}

async function againstSidecar(paths: string[], path: string): Promise<CheckResult[]> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new WaxError(
      'no-sidecar',
      basename(path),
      'It cannot be read.',
      'Use the JSON file that was offered beside the render.',
    )
  })
  return verifyAgainst(readSidecar(text, basename(path)), paths)
}

/** The card is rendered once more, and the files are held against its frames. */
async function againstCard(paths: string[], against: string, values: Values): Promise<CheckResult[]> {
  const opened = await openCard(against)
  const { card } = opened
  const holds = values.length === undefined ? 1 : holdsOf(values.length, card)
  const range = { ...frameRange(values.frames, heldLength(card, holds)), holds }
  const known = values.format === undefined ? await formatOf(paths) : { format: values.format }
  const options = deliveryWish({ ...known, ...values }, range)
  const { plan, order, loops } = planFor({ document: card, options, programme: null }, { paths, stem: '' })
  const folder = await mkdtemp(join(tmpdir(), 'wax-verify-'))
  const segment = await SegmentWriter.create(join(folder, 'frames'))
  try {
    const frames = [...new Set(order)]
    const pictures = renderFrames({
      ...{ card, form: plan.form, scale: options.scale, frames, threads: availableParallelism() },
      fonts: await allFonts(opened, values.font),
      pictures: await allPictures(opened, values.picture),
      sequences: await allSequences(opened, values.sequence),
    })
    let at = 0
    for await (const { pixels } of pictures) await segment.add(frames[at++]!, pixels)
    const { format } = options
    return (
      await verifyFile({ delivery: deliveryOf(format), encoder: encoderOf(format), plan, order, made: segment, loops })
    ).checks
  } finally {
    await segment.abort()
    await rm(folder, { recursive: true })
  }
}
