import type { Fault } from '../../../core/errors'
import { WaxError } from '../../../core/errors'

/** Milliseconds after which a server counts as away; and while a file goes to and fro. */
const PATIENCE = 30_000
const FILE_PATIENCE = 15 * 60_000

/** Calls of a server by a token. What it refuses is a WaxError; where it is away, another one, and is tried again. */
export class ServerCalls {
  constructor(
    private readonly address: string,
    private readonly token: string,
  ) {}

  async json<T>(path: string, body: unknown): Promise<T> {
    const headers = { 'content-type': 'application/json' }
    const response = await this.fetch(path, { method: 'POST', body: JSON.stringify(body), headers }, PATIENCE)
    return (await response.json()) as T
  }

  async put<T>(path: string, body: BodyInit): Promise<T> {
    const headers = { 'content-type': 'application/octet-stream' }
    const response = await this.fetch(path, { method: 'PUT', body, headers }, FILE_PATIENCE)
    return (await response.json()) as T
  }

  /** An answer with its body; null where there is no such thing. */
  async get(path: string): Promise<Response | null> {
    try {
      return await this.fetch(path, {}, FILE_PATIENCE)
    } catch (error) {
      if (error instanceof WaxError && error.fault.code === 'not-found') return null
      throw error
    }
  }

  private async fetch(path: string, { headers, ...rest }: RequestInit, patience: number): Promise<Response> {
    const authorization = `Bearer ${this.token}`
    const response = await fetch(new URL(`/api${path}`, this.address), {
      ...rest,
      headers: { ...(headers as Record<string, string>), authorization },
      signal: AbortSignal.timeout(patience),
      // A file is sent as it is read.
      ...({ duplex: 'half' } as object),
    })
    if (response.ok) return response
    const answer = (await response.json().catch(() => null)) as { data?: Fault } | null
    const fault = answer?.data
    // A server that is stopping, or whose database is away, comes back.
    if (!fault || response.status >= 500) throw new Error(fault?.message ?? `The server answers ${response.status}.`)
    throw new WaxError(fault.code, fault.place, fault.message, fault.remedy)
  }
}
