import type { H3Event } from 'h3'
import { LARGEST_CARD_BYTES } from '../../core/card/read'
import type { Fault } from '../../core/errors'

/** What a body may have beside the document that it carries. */
const ENVELOPE = 64 * 1024

/**
 * The bytes of a request. They are counted as they come, whatever its header says; the first one too many ends it with
 * `fault` (413).
 */
export async function bodyBytes(event: H3Event, most: number, fault: Fault): Promise<Uint8Array> {
  const request = event.node.req
  const parts: Buffer[] = []
  let length = 0
  for await (const part of request as AsyncIterable<Buffer>) {
    length += part.length
    if (length > most) {
      // What still comes is not wanted: the connection ends with the answer.
      event.node.res.setHeader('connection', 'close')
      throw refusal(413, fault)
    }
    parts.push(part)
  }
  return new Uint8Array(Buffer.concat(parts, length))
}

/** The JSON object in the body of a request; an empty body is an empty one. */
export async function bodyJson(event: H3Event): Promise<Record<string, unknown>> {
  const megabytes = LARGEST_CARD_BYTES / 1024 / 1024
  const bytes = await bodyBytes(event, LARGEST_CARD_BYTES + ENVELOPE, {
    code: 'too-large',
    place: 'request',
    message: 'What was sent is too large.',
    remedy: `A document may have up to ${megabytes} MB: take parts out of it.`,
  })
  if (bytes.length === 0) return {}
  let value: unknown
  try {
    value = JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    value = null
  }
  if (typeof value === 'object' && value !== null && !Array.isArray(value)) return value as Record<string, unknown>
  throw refusal(400, {
    code: 'not-json',
    place: 'request',
    message: 'What was sent is no JSON object.',
    remedy: 'Send one, as application/json.',
  })
}

/** A revision in a request: a whole number that the database can hold; undefined for anything else. */
export const revisionIn = (value: unknown): number | undefined =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) < 2 ** 31 ? (value as number) : undefined
