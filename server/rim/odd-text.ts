import type { Fault } from '../../core/errors'

/** Codes of PostgreSQL for text that it cannot keep: NUL, and what is no UTF-8. */
const ODD = /^(22021|22P05)$/

/** Whether the database refused a text that came from outside: an id, a name, a token. */
export function isOddText(error: unknown): boolean {
  const { code, cause } = Object(error) as { code?: unknown; cause?: { code?: unknown } | null }
  return [code, cause?.code].some((one) => typeof one === 'string' && ODD.test(one))
}

export const ODD_TEXT: Fault = {
  code: 'odd-text',
  place: 'request',
  message: 'A text in the request holds a character that cannot be kept: NUL, or half of a pair.',
  remedy: 'Write it again without that character.',
}
