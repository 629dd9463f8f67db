import type { Fault } from '../../core/errors'

/**
 * The path of an address as the router will read it: decoded once (RFC 3986 §2.4), as h3 does. Null where it could be read in two ways,
 * by whoever stands before the router and by the router: encoded twice, an empty or a dotted segment, parameters after a semicolon,
 * signs that end a path, signs that no address needs. Nothing of ours has such an address.
 */
export function routedPath(url: string): string | null {
  const [written = ''] = url.split('?')
  let path: string
  try {
    path = decodeURIComponent(written)
  } catch {
    return null
  }
  if (!path.startsWith('/') || /[%;?#\\\p{Cc}]|\/\/|\/\.{1,2}(\/|$)/u.test(path)) return null
  return path
}

export const ODD_ADDRESS: Fault = {
  code: 'odd-address',
  place: 'address',
  message: 'The address is not written plainly.',
  remedy: 'Write it as the API’s guide does: no empty or dotted parts, and nothing encoded twice.',
}

/** What answers without a token from elsewhere. */
export interface OpenDoors {
  /** Pages, as the router names them: `/card/:id()`. They are the same for everybody and hold nothing. */
  pages: readonly string[]
  /** Names at the root of what is served as files: of the build, fonts, footage, the mark. */
  files: readonly string[]
}

const READS = ['GET', 'HEAD']
/** Here a browser brings its token. */
const SIGN_IN = '/api/sign-in'

/**
 * Whether a request needs no token: a page, a file of the application, or the question whether a token is one. All else needs one,
 * also what does not exist, so that a new route is closed until it is named here.
 *
 * `path`: as {@link routedPath} gives it.
 */
export function isOpen(method: string, path: string, { pages, files }: OpenDoors): boolean {
  if (method === 'POST') return path === SIGN_IN
  if (!READS.includes(method)) return false
  const [, first = ''] = path.split('/')
  return files.includes(first) || pages.some((page) => pagePattern(page).test(path))
}

/** Pages have no letters of other cases and no deeper addresses than those of their files. */
const pagePattern = (page: string) => new RegExp(`^${page.replace(/:\w+\(\)/g, '[^/]+')}/?$`)
