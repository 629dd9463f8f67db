import { and, eq, isNull, lt, or, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { getCookie, getRequestHeader } from 'h3'
import { tokens } from '../database/schema'
import { bearer, tokenHash } from '../rim/tokens'

/** A token as the page of tokens lists it. */
export const LISTED_TOKEN = {
  id: tokens.id,
  name: tokens.name,
  createdAt: tokens.createdAt,
  usedAt: tokens.usedAt,
}

/** The cookie in which a browser has its token: no page can read it. */
export const TOKEN_COOKIE = 'wax-token'

/** Refuses a request that brings no token, or one that was withdrawn. */
export async function requireToken(event: H3Event): Promise<void> {
  const token = bearer(getRequestHeader(event, 'authorization')) ?? getCookie(event, TOKEN_COOKIE) ?? null
  if (token && (await isToken(token))) return
  throw refusal(401, {
    code: 'wrong-token',
    place: 'token',
    message: token ? 'This token is not known here: it may have been withdrawn.' : 'This needs a token.',
    remedy: 'Make one in the press room, under Workers, and send it as Authorization: Bearer.',
  })
}

/** Whether a token lets in; notes that it was used. */
export async function isToken(token: string): Promise<boolean> {
  const [row] = await useDatabase()
    .select({ id: tokens.id })
    .from(tokens)
    .where(eq(tokens.hash, tokenHash(token)))
  if (!row) return false
  const since = or(isNull(tokens.usedAt), lt(tokens.usedAt, sql`now() - interval '1 minute'`))
  await useDatabase()
    .update(tokens)
    .set({ usedAt: new Date() })
    .where(and(eq(tokens.id, row.id), since))
  return true
}

/** A route that only programs with a token may call. */
export const programRoute = <T>(handler: (event: H3Event) => Promise<T>) =>
  route(async (event) => {
    await requireToken(event)
    return handler(event)
  })
