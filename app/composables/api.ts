import type { Fault } from '#core/errors'

/** A request that failed: what the server said, or that it said nothing. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly fault: Fault,
  ) {
    super(fault.message)
  }
}

export const SILENT: Fault = {
  code: 'no-server',
  place: 'server',
  message: 'The server cannot be reached.',
  remedy: 'Nothing is lost: it is tried again by itself.',
}

/** Milliseconds that an answer may take; files take as long as they are long. */
const LIMIT = 60_000
/** And that of a save, which is sent again with its own id. */
export const SAVE_LIMIT = 20_000

/** An answer, or null where none comes in time: a connection that hangs says nothing by itself. */
async function answerOf(url: string, init: RequestInit, limit: number): Promise<Response | null> {
  const control = new AbortController()
  let late: ReturnType<typeof setTimeout> | undefined
  const never = new Promise<null>((go) => {
    if (!Number.isFinite(limit)) return
    late = setTimeout(() => {
      control.abort()
      go(null)
    }, limit)
  })
  try {
    return await Promise.race([fetch(url, { ...init, signal: control.signal }).catch(() => null), never])
  } finally {
    clearTimeout(late)
  }
}

/** Calls the server; throws an ApiError with the fault that it gives. What only asks is asked once more where no answer came. */
export async function api<T>(
  path: string,
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE' = 'GET',
  body?: unknown,
  limit = body instanceof Blob ? Infinity : LIMIT,
): Promise<T> {
  const raw = body instanceof Blob
  const init: RequestInit = {
    method,
    ...(body === undefined ? {} : { body: raw ? body : JSON.stringify(body) }),
    ...(body === undefined || raw ? {} : { headers: { 'content-type': 'application/json' } }),
  }
  const ask = () => answerOf(`/api${path}`, init, limit)
  const response = (await ask()) ?? (method === 'GET' ? await ask() : null)
  if (!response) throw new ApiError(0, SILENT)
  if (response.ok) return (await response.json()) as T
  const answer = (await response.json().catch(() => null)) as { data?: Fault; message?: string } | null
  // By another name than the machine's own a token is asked for.
  if (response.status === 401 && path !== '/sign-in') window.location.assign('/sign-in')
  const fault = answer?.data ?? { ...SILENT, code: 'server', message: answer?.message ?? 'The server failed at this.' }
  throw new ApiError(response.status, fault)
}

export function faultOf(error: unknown): Fault {
  if (error instanceof ApiError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  return { code: 'page', place: 'page', message, remedy: 'Load the page again.' }
}
