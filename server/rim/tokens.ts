import { createHash, randomBytes } from 'node:crypto'

// Tokens let programs in. They are random and long: their plain hash cannot be turned back, and is all that is kept.

const START = 'wax_'

/** A new token. */
export const newToken = (): string => START + randomBytes(24).toString('base64url')

export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex')

/** The token in a header `Authorization: Bearer …` (RFC 6750 §2.1); null where there is none. */
export const bearer = (header: string | undefined): string | null =>
  /^Bearer\s+(\S+)\s*$/i.exec(header ?? '')?.[1] ?? null
