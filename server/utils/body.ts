import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import type { H3Event } from 'h3'
import { LARGEST_CARD_BYTES } from '../../core/card/read'
import type { Fault } from '../../core/errors'
import { BodyRoom } from '../rim/body-room'
import { refusal } from './rim'

/** What a body may have beside the document that it carries. */
const ENVELOPE = 64 * 1024

const room = new BodyRoom()

/** Waits until there is room in memory for the body of a request; it is given back when that is answered, or gone. */
async function expectRoom({ node: { req, res } }: H3Event, most: number): Promise<void> {
  const said = Number(req.headers['content-length'])
  const giveBack = await room.take(Number.isInteger(said) && said >= 0 ? Math.min(said, most) : most)
  if (!giveBack) throw refusal(503, BUSY)
  if (res.closed || res.destroyed) giveBack()
  else res.once('close', giveBack)
}

/**
 * The bytes of a request. They are counted as they come, whatever its header says; the first one too many ends it with
 * `fault` (413). Bodies of many requests are limited together: where there is no room in time it is refused (503).
 */
export async function bodyBytes(event: H3Event, most: number, fault: Fault): Promise<Uint8Array> {
  const { req, res } = event.node
  await expectRoom(event, most)
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = []
    let length = 0
    // Not by iterating: leaving a loop early would end the connection before it has been answered.
    const take = (part: Buffer) => {
      length += part.length
      if (length <= most) {
        parts.push(part)
        return
      }
      req.off('data', take)
      req.pause()
      // What still comes is not wanted: the connection ends with the answer.
      res.setHeader('connection', 'close')
      reject(refusal(413, fault))
    }
    req.on('data', take)
    req.on('end', () => resolve(new Uint8Array(Buffer.concat(parts, Math.min(length, most)))))
    req.on('error', () => reject(refusal(400, CUT_OFF)))
    req.on('close', () => reject(refusal(400, CUT_OFF)))
    // It may have gone while it waited for room.
    if (req.destroyed && !req.complete) reject(refusal(400, CUT_OFF))
  })
}

/** Writes the body of a request into a file, which may be larger than the memory; gives its hash. As `bodyBytes` else. */
export async function bodyFile(
  event: H3Event,
  path: string,
  most: number,
  fault: Fault,
  algorithm: string,
): Promise<string> {
  const hash = createHash(algorithm)
  const { req, res } = event.node
  const file = createWriteStream(path)
  try {
    await new Promise<void>((resolve, reject) => {
      let length = 0
      file.on('error', reject)
      file.on('finish', resolve)
      file.on('drain', () => req.resume())
      const take = (part: Buffer) => {
        length += part.length
        if (length <= most) {
          if (!file.write(part)) req.pause()
          hash.update(part)
          return
        }
        req.off('data', take)
        req.pause()
        // What still comes is not wanted: the connection ends with the answer.
        res.setHeader('connection', 'close')
        reject(refusal(413, fault))
      }
      req.on('data', take)
      req.on('end', () => file.end())
      req.on('error', () => reject(refusal(400, CUT_OFF)))
      req.on('close', () => {
        if (!req.complete) reject(refusal(400, CUT_OFF))
      })
    })
    return hash.digest('hex')
  } catch (error) {
    file.destroy()
    throw error
  }
}

const BUSY: Fault = {
  code: 'busy',
  place: 'request',
  message: 'Too much is being sent to the server at once.',
  remedy: 'Send it again in a moment.',
}

const CUT_OFF: Fault = {
  code: 'cut-off',
  place: 'request',
  message: 'The connection ended before all was sent.',
  remedy: 'Send it again.',
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
