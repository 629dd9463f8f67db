import * as Comlink from 'comlink'
import type { BestCut, FrameDistances } from '#core/judge/best-cut'
import type { Fault } from '#core/errors'
import type { CutFace } from '~/workers/cut.worker'
import { ApiError, SILENT } from './api'

export interface ComparedSequence {
  distances: FrameDistances
  cut: BestCut
}

/** All pictures of a sequence, compared with each other; ends with the signal. Throws as `api` does. */
export async function compareSequence(id: string, signal: AbortSignal): Promise<ComparedSequence> {
  const response = await fetch(`/api/sequences/${id}/small`, { signal }).catch(() => null)
  if (!response?.ok) {
    const answer = (await response?.json().catch(() => null)) as { data?: Fault } | null
    throw new ApiError(response?.status ?? 0, answer?.data ?? SILENT)
  }
  const side = (name: string) => Number(response.headers.get(name))
  const bytes = new Uint8Array(await response.arrayBuffer())
  const worker = new Worker(new URL('../workers/cut.worker.ts', import.meta.url), { type: 'module' })
  const stop = () => worker.terminate()
  signal.addEventListener('abort', stop)
  try {
    const face = Comlink.wrap<CutFace>(worker)
    const { cut, count, values } = await face.compare(
      Comlink.transfer(bytes, [bytes.buffer]),
      side('x-width') * side('x-height'),
    )
    return { cut, distances: { count, values } }
  } finally {
    signal.removeEventListener('abort', stop)
    worker.terminate()
  }
}
