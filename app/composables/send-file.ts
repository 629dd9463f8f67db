import type { Fault } from '#core/errors'
import { ApiError, SILENT } from './api'

/** Sends a file that may be large; tells how much of it has gone, 0–1. Throws as `api` does. */
export function sendFile<T>(path: string, file: File, onShare: (share: number) => void): Promise<T> {
  // fetch does not say how far it is.
  const request = new XMLHttpRequest()
  return new Promise((resolve, reject) => {
    request.open('POST', `/api${path}`)
    request.responseType = 'json'
    request.upload.addEventListener('progress', ({ loaded, total }) => onShare(total > 0 ? loaded / total : 0))
    request.addEventListener('error', () => reject(new ApiError(0, SILENT)))
    request.addEventListener('load', () => {
      if (request.status < 300) {
        resolve(request.response as T)
        return
      }
      const answer = request.response as { data?: Fault; message?: string } | null
      const message = answer?.message ?? 'The server failed at this.'
      reject(new ApiError(request.status, answer?.data ?? { ...SILENT, code: 'server', message }))
    })
    request.send(file)
  })
}
