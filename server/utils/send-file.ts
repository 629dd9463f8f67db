import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import type { H3Event } from 'h3'
import { getRequestHeader, sendStream, setHeader, setResponseStatus } from 'h3'

/**
 * Sends a file, or the part of it that is asked for (RFC 9110 §14: one range of bytes), so that a player can seek and a download go on.
 * `what` is said where it is gone.
 */
export async function sendFile(event: H3Event, path: string, what: string): Promise<void> {
  const found = await stat(path).catch(() => null)
  if (!found) throw notFound(what)
  const { size } = found
  setHeader(event, 'accept-ranges', 'bytes')
  const range = partOf(getRequestHeader(event, 'range'), size)
  if (range === 'none') {
    setHeader(event, 'content-range', `bytes */${size}`)
    throw refusal(416, {
      code: 'no-such-part',
      place: 'range',
      message: `The ${what} has ${size} bytes: this part is not in it.`,
      remedy: 'Ask for a part within it, or for all.',
    })
  }
  const { start, end } = range ?? { start: 0, end: size - 1 }
  if (range) {
    setResponseStatus(event, 206)
    setHeader(event, 'content-range', `bytes ${start}-${end}/${size}`)
  }
  setHeader(event, 'content-length', end - start + 1)
  return sendStream(event, createReadStream(path, size > 0 ? { start, end } : {}))
}

/** The part that a header asks for; null for all, where it asks for none or for several. */
function partOf(header: string | undefined, size: number): { start: number; end: number } | 'none' | null {
  const asked = /^bytes=(\d*)-(\d*)$/.exec(header?.trim() ?? '')
  if (!asked || (asked[1] === '' && asked[2] === '')) return null
  const [, first, last] = asked as unknown as [string, string, string]
  // Without a first byte it is the number of bytes at the end.
  const start = first === '' ? Math.max(0, size - Number(last)) : Number(first)
  const end = first === '' || last === '' ? size - 1 : Math.min(size - 1, Number(last))
  return start > end ? 'none' : { start, end }
}
