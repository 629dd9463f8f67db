import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { readFile, stat } from 'node:fs/promises'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import { deliveryOf } from '../../core/formats/deliveries/table'
import { renderOptionsSchema } from '../../core/formats/deliveries/render-options'
import { rateSchema } from '../../core/values/rate'
import { output } from '../sequences/programs'
import type { Rendered } from './render-file'

// A small JSON beside a delivery: what was made from what, and the hashes by which it is known again later, without the
// application.

const hash = z.string().regex(/^[0-9a-f]{64}$/)

export const sidecarSchema = z.object({
  format: z.literal('wax-ribbon-sidecar'),
  version: z.literal(1),
  /** `revision` is null for a card from a file; `document` is the hash of its JSON, its keys in order. */
  card: z.object({ name: z.string(), id: z.string().nullable(), revision: z.number().nullable(), document: hash }),
  delivery: z.string(),
  options: renderOptionsSchema,
  frame: z.object({ width: z.number(), height: z.number() }),
  rate: rateSchema,
  files: z.array(z.object({ name: z.string(), bytes: z.number(), sha256: hash })),
  /** A hash for each frame: of its pixels as the engine handed them over (`form`), and as they were read from the file. */
  frames: z.object({
    form: z.object({
      bits: z.union([z.literal([8, 16]), z.literal(['half', 'float'])]),
      alpha: z.string(),
      light: z.string(),
    }),
    made: z.array(hash),
    read: z.array(hash),
  }),
  checks: z.array(
    z.object({ name: z.string(), label: z.string(), found: z.string(), expected: z.string(), passed: z.boolean() }),
  ),
  made: z.object({ at: z.iso.datetime(), application: z.string(), node: z.string(), ffmpeg: z.string() }),
})
export type Sidecar = z.infer<typeof sidecarSchema>

export interface Origin {
  card: Card
  id: string | null
  revision: number | null
}

/** The sidecar of a finished render. `files`: where each lies, and the name that people see. */
export async function sidecarOf(
  { card, id, revision }: Origin,
  { report, options, plan, made, read }: Rendered,
  files: readonly { path: string; name: string }[],
): Promise<Sidecar> {
  return {
    ...{ format: 'wax-ribbon-sidecar', version: 1 },
    card: { name: card.name, id, revision, document: documentHash(card) },
    delivery: deliveryOf(options.format).label,
    options,
    frame: { width: plan.width, height: plan.height },
    rate: plan.rate,
    files: await Promise.all(files.map(async ({ path, name }) => ({ name, ...(await fileFacts(path)) }))),
    frames: { form: plan.form, made, read },
    checks: report.checks,
    made: {
      at: new Date().toISOString(),
      application: await version(),
      node: process.versions.node,
      ffmpeg: await ffmpegVersion(),
    },
  }
}

/** Throws a WaxError for what is no sidecar. */
export function readSidecar(text: string, place: string): Sidecar {
  const refuse = (message: string) =>
    new WaxError('no-sidecar', place, message, 'Use the JSON file that was offered beside the render.')
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw refuse('It is no JSON.')
  }
  const read = sidecarSchema.safeParse(value)
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw refuse(`It is no sidecar of a render: ${issue!.path.join('.') || 'all of it'}: ${issue!.message}.`)
}

/** SHA-256 of a card's document, whatever the order of its keys. */
export function documentHash(card: Card): string {
  const ordered = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(ordered)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(
      Object.entries(value)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([key, inner]) => [key, ordered(inner)]),
    )
  }
  return createHash('sha256')
    .update(JSON.stringify(ordered(card)))
    .digest('hex')
}

/** Length and hash of a file. A folder of frames has neither: its frames are known by theirs. */
async function fileFacts(path: string): Promise<{ bytes: number; sha256: string }> {
  const { size } = await stat(path)
  return { bytes: size, sha256: await fileHash(path) }
}

export async function fileHash(path: string): Promise<string> {
  const sum = createHash('sha256')
  await pipeline(createReadStream(path), sum)
  return sum.digest('hex')
}

async function version(): Promise<string> {
  return (JSON.parse(await readFile('package.json', 'utf8')) as { version: string }).version
}

const ffmpegVersion = async (): Promise<string> =>
  /version (\S+)/.exec((await output('ffmpeg', ['-version']))?.toString() ?? '')?.[1] ?? 'unknown'
