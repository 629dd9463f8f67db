import { and, eq, isNull, lt, or, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { getRequestHeader } from 'h3'
import { tokens } from '../database/schema'
import { bearer, tokenHash } from '../rim/tokens'

/** A token as the page of tokens lists it. */
export const LISTED_TOKEN = {
  id: tokens.id,
  name: tokens.name,
  createdAt: tokens.createdAt,
  usedAt: tokens.usedAt,
}

/** Refuses a request that brings no token, or one that was withdrawn. */
export async function requireToken(event: H3Event): Promise<void> {
  const token = bearer(getRequestHeader(event, 'authorization'))
  const [row] = token
    ? await useDatabase()
        .select({ id: tokens.id })
        .from(tokens)
        .where(eq(tokens.hash, tokenHash(token)))
    : []
  if (!row) {
    throw refusal(401, {
      code: 'wrong-token',
      place: 'token',
      message: token ? 'This token is not known here: it may have been withdrawn.' : 'This needs a token.',
      remedy: 'Make one on the page of tokens of the server, and send it as Authorization: Bearer.',
    })
  }
  await useDatabase()
    .update(tokens)
    .set({ usedAt: new Date() })
    .where(and(eq(tokens.id, row.id), or(isNull(tokens.usedAt), lt(tokens.usedAt, sql`now() - interval '1 minute'`))))
}

/** A route that only programs with a token may call. */
export const programRoute = <T>(handler: (event: H3Event) => Promise<T>) =>
  route(async (event) => {
    await requireToken(event)
    return handler(event)
  })
