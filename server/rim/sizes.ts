import type { Fault } from '../../core/errors'

// How large files may be that are brought in: the settings say so, in megabytes (docs/running.md).

const MEGABYTE = 1024 * 1024

/** The most bytes by a setting, and the fault that says so. */
export function sizeAllowed(
  what: 'picture' | 'sequence',
  standard: number,
  place: string,
): { most: number; fault: Fault } {
  const set = Number(process.env[`WAX_MOST_${what.toUpperCase()}`])
  const most = Number.isFinite(set) && set > 0 ? set * MEGABYTE : standard
  return {
    most,
    fault: {
      code: `${what}-too-large`,
      place,
      message: 'The file is too large.',
      remedy: `${what === 'picture' ? 'Pictures' : 'Sequences'} may have up to ${most / MEGABYTE} MB.`,
    },
  }
}
