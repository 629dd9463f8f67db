import type { Fault } from '../../core/errors'

/** Whether work failed because there is no room on the disk, as Node or a program that it ran says. */
export const isDiskFull = (error: unknown): boolean =>
  /ENOSPC|No space left on device/.test(error instanceof Error ? error.message : String(error))

export const DISK_FULL: Fault = {
  code: 'disk-full',
  place: 'disk',
  message: 'The disk is full.',
  remedy: 'Free some space, then do it again.',
}
