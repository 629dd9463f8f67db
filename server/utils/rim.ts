import type { H3Event } from 'h3'
import { createError, defineEventHandler, getRouterParam } from 'h3'
import type { Fault } from '../../core/errors'
import { WaxError } from '../../core/errors'
import type { Database } from '../database/connect'
import { connect } from '../database/connect'
import { logOf } from '../rim/log'
import { DISK_FULL, isDiskFull } from '../rim/full-disk'
import { isOddText, ODD_TEXT } from '../rim/odd-text'
import { isLostDatabase } from '../rim/lost-database'

const LOG = logOf('server')
let database: Database | undefined

/** The server's connections to the database. */
export function useDatabase(): Database {
  database ??= connect(useRuntimeConfig().databaseUrl).database
  return database
}

/** The rim of the server: every fault leaves it with a code, a place and a remedy. */
export function route<T>(handler: (event: H3Event) => Promise<T>) {
  return defineEventHandler(async (event) => {
    try {
      return await handler(event)
    } catch (error) {
      throw asHttp(error)
    }
  })
}

function asHttp(error: unknown) {
  if (error instanceof WaxError) return refusal(422, error.fault)
  if ((error as { statusCode?: number }).statusCode) return error as Error
  if (isOddText(error)) return refusal(422, ODD_TEXT)
  if (isLostDatabase(error)) {
    const message = 'The database cannot be reached.'
    return refusal(503, {
      code: 'no-database',
      place: 'database',
      message,
      remedy: 'Nothing is lost: it is tried again by itself.',
    })
  }
  if (isDiskFull(error)) return refusal(507, DISK_FULL)
  LOG.error({ event: 'failed', error })
  const message = 'The server failed at this.'
  return refusal(500, {
    code: 'server',
    place: 'server',
    message,
    remedy: 'Try again; the server’s messages say more.',
  })
}

/** An HTTP error that carries a fault as its data. */
export const refusal = (statusCode: number, fault: Fault) =>
  createError({ statusCode, statusMessage: fault.code, message: fault.message, data: fault })

export const notFound = (what: string) =>
  refusal(404, {
    code: 'not-found',
    place: what,
    message: `This ${what} does not exist.`,
    remedy: 'It may have been deleted: go back and look.',
  })

/** A file to be saved under a name, which may have letters of any script (RFC 6266, RFC 8187). */
export const attachment = (fileName: string): string =>
  `attachment; filename*=UTF-8''${encodeURIComponent(fileName).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16)}`)}`

export const routeId = (event: H3Event): string => getRouterParam(event, 'id') ?? ''
