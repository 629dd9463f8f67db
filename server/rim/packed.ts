import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'

const [pressBrotli, pressGzip] = [promisify(brotliCompress), promisify(gzip)]

/** Answers shorter than this gain nothing: they go in one packet anyway. */
const LEAST = 1400
/** Quick: an answer is packed each time it is asked for. */
const QUALITY = 4

/**
 * A text as it is sent to a caller that takes it packed (RFC 9110 §12.5.3): by Brotli where that is taken, else by gzip. Null where it
 * stays as it is.
 */
export async function packed(
  text: string,
  accepts: string | undefined,
): Promise<{ encoding: 'br' | 'gzip'; bytes: Buffer } | null> {
  const taken = new Set(
    (accepts ?? '')
      .toLowerCase()
      .split(',')
      .map((one) => one.split(';'))
      .filter(([, weight]) => !/^\s*q=0(\.0*)?\s*$/.test(weight ?? ''))
      .map(([name]) => name!.trim()),
  )
  if (text.length < LEAST) return null
  if (taken.has('br')) {
    const bytes = await pressBrotli(text, { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } })
    return { encoding: 'br', bytes }
  }
  return taken.has('gzip') ? { encoding: 'gzip', bytes: await pressGzip(text) } : null
}
