import type { Fault } from '../../core/errors'

/** What a request says of where it comes from. */
export interface Caller {
  host: string | undefined
  origin: string | undefined
  method: string
}

const READS = ['GET', 'HEAD', 'OPTIONS']

/**
 * Why a request is not answered; null where it is. Only names of this machine are known, and those of the allow-list
 * (`NUXT_ALLOWED_HOSTS`): a page elsewhere whose name leads here finds nothing (DNS rebinding). What writes must come
 * from a page of ours or from no page at all.
 */
export function callerFault({ host, origin, method }: Caller, allowed: readonly string[]): Fault | null {
  if (!host || !isKnown(host, allowed)) {
    return {
      code: 'unknown-host',
      place: host ?? 'host',
      message: 'The server is not known by this name.',
      remedy: 'Use its address on this machine, or add the name to NUXT_ALLOWED_HOSTS.',
    }
  }
  if (READS.includes(method) || origin === undefined || hostOf(origin) === host) return null
  return {
    code: 'foreign-page',
    place: origin,
    message: 'A page from elsewhere may not change anything here.',
    remedy: 'Use the application’s own pages.',
  }
}

const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase()

/**
 * Whether a request comes from this machine and was sent to it by one of its own names: then no token is asked for. The name alone says
 * nothing, anybody may write it; the address alone neither, since a proxy on this machine hands on what comes from elsewhere.
 */
export const isFromHere = (host: string | undefined, address: string | undefined): boolean =>
  isLoopback(host) && isLoopbackAddress(address ?? '')

/** IPv4 addresses may come in the clothes of IPv6 (RFC 4291 §2.5.5.2). */
const isLoopbackAddress = (address: string): boolean =>
  address === '::1' || /^(::ffff:)?127(\.\d{1,3}){3}$/i.test(address)

function isLoopback(host: string | undefined): boolean {
  const name = nameOf(host ?? '')
  return name === 'localhost' || name === '[::1]' || /^127(\.\d{1,3}){3}$/.test(name)
}

const isKnown = (host: string, allowed: readonly string[]): boolean =>
  isLoopback(host) || allowed.some((other) => other.toLowerCase() === nameOf(host))

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}
