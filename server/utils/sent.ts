import type { H3Event } from 'h3'
import type { z } from 'zod'

/** What was sent, as a schema has it; the first fault is named by its place. */
export function expectSent<T extends z.ZodType>(schema: T, value: unknown): z.output<T> {
  const read = schema.safeParse(value)
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw refusal(422, {
    code: 'not-as-described',
    place: issue!.path.join('.') || 'request',
    message: `${issue!.message}.`,
    remedy: 'The page of the API tells what is expected.',
  })
}

/** The JSON body of a request, as a schema has it. */
export const bodyAs = async <T extends z.ZodType>(event: H3Event, schema: T): Promise<z.output<T>> =>
  expectSent(schema, await bodyJson(event))
