import type { Fault } from '../../core/errors'
import { WaxError } from '../../core/errors'
import { DISK_FULL, isDiskFull } from '../rim/full-disk'

/** What went wrong in a render, in words for its row. */
export function faultOf(error: unknown): Fault {
  if (error instanceof WaxError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  if (isDiskFull(error)) {
    return { ...DISK_FULL, remedy: 'Free some space, then try again: the frames that are done stay.' }
  }
  if (/ENOENT.*ff(mpeg|probe)|spawn ff/.test(message)) {
    return {
      code: 'no-encoder',
      place: 'ffmpeg',
      message: 'The encoder ffmpeg is not installed.',
      remedy: 'Install Debian’s package ffmpeg.',
    }
  }
  return {
    code: 'render',
    place: 'render',
    message,
    remedy: 'Try again; if it happens again, report it with the card.',
  }
}

/** Whether the same work would fail in the same way again. */
export const isFinal = (error: unknown): boolean => error instanceof WaxError || isDiskFull(error)
