import { PACKING } from '../packed-frame'
import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { z } from 'zod'
import { THREAD } from '../frame-thread'

// What a worker elsewhere and the server say to each other.

const id = z.string().regex(/^[\w-]{1,60}$/)
const whole = z.number().int().nonnegative()

export const workerSchema = z.object({
  id,
  name: z.string().min(1).max(60),
  lanes: z.number().int().min(1).max(256),
  /** The hash of its engine: only one that makes the same bytes is let in. */
  engine: z.string(),
})
export type FarWorker = z.infer<typeof workerSchema>

export const runTrySchema = z.object({ render: id, index: whole, attempt: whole })

export const takeSchema = z.object({
  worker: workerSchema,
  /** The render that the lane's engine is warm for. */
  warm: id.nullable(),
  /** Renders whose cards the worker has. */
  known: z.array(id).max(256),
})
export const beatSchema = z.object({
  worker: workerSchema,
  runs: z.array(runTrySchema.extend({ framesDone: whole })).max(256),
})
export const faultSchema = z.object({
  worker: id,
  run: runTrySchema,
  fault: z.object({ code: z.string(), place: z.string(), message: z.string(), remedy: z.string() }),
  isFinal: z.boolean(),
})
export const giveBackSchema = z.object({ worker: id, run: runTrySchema })
/** Beside a segment, in the address. `hash`: of all its bytes, BLAKE2b-512 in hex. */
export const segmentSchema = z.object({
  worker: id,
  attempt: z.coerce.number().int().nonnegative(),
  hash: z.string().regex(/^[0-9a-f]{128}$/),
})

export const SEGMENT_HASH = 'blake2b512'

/** A hash of the engine as it was built, and of how frames are packed: the same sources make the same one on every machine. */
export async function engineHash(): Promise<string> {
  const built = await readFile(THREAD, 'utf8')
  // What is beside the program itself knows where it was built.
  const program = built.replace(/\n\/\/# sourceMappingURL=[\s\S]*$/, '')
  return createHash('sha256').update(program).update(PACKING).digest('hex')
}
