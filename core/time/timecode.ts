import { WaxError } from '../errors'
import type { Frames } from '../units'
import type { Rate } from '../values/rate'
import { perSecond } from '../values/rate'

// SMPTE ST 12-1: hours, minutes, seconds and frames counted at the nominal rate. With drop-frame counting, which is for
// 30000/1001 and 60000/1001, the first 2 (or 4) numbers of each minute are left out but for every tenth minute.

/** Frame numbers in a second: 30 at 29.97. */
export const nominalRate = (rate: Rate): number => Math.max(1, Math.round(perSecond(rate)))

/** Numbers that drop-frame counting leaves out at the start of a minute; 0 for rates that have none. */
export function droppedNumbers(rate: Rate): number {
  const nominal = nominalRate(rate)
  return rate.denominator === 1001 && nominal % 30 === 0 ? nominal / 15 : 0
}

/** Whether a timecode is written as one of drop-frame counting. */
export const isDropped = (text: string): boolean => /[;.]\d+\s*$/.test(text)

/** `01:02:03:04`, with a semicolon before the frames where numbers are dropped. */
export function timecode(frame: Frames, rate: Rate, drop = false): string {
  const nominal = nominalRate(rate)
  const dropped = drop ? droppedNumbers(rate) : 0
  const whole = Math.floor(Math.abs(frame))
  const number = dropped > 0 ? numbered(whole, nominal, dropped) : whole
  const seconds = Math.floor(number / nominal)
  const parts = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(':')
  return `${frame < 0 ? '-' : ''}${parts}${dropped > 0 ? ';' : ':'}${two(number % nominal)}`
}

const two = (value: number) => String(value).padStart(2, '0')

/** The number that a frame carries when numbers are left out. */
function numbered(frame: Frames, nominal: number, dropped: number): number {
  const minute = nominal * 60 - dropped
  const tenMinutes = nominal * 600 - dropped * 9
  const tens = Math.floor(frame / tenMinutes)
  const rest = frame % tenMinutes
  const minutes = rest < nominal * 60 ? 0 : 1 + Math.floor((rest - nominal * 60) / minute)
  return frame + dropped * (9 * tens + minutes)
}

/**
 * The frame of a timecode, of `seconds:frames`, or of a plain frame number. A semicolon (or dot) before the frames
 * means drop-frame counting. Throws a WaxError for what is none, or for a number that is left out.
 */
export function readTimecode(text: string, rate: Rate): Frames {
  const trimmed = text.trim()
  if (/^\d+$/.test(trimmed)) return Number(trimmed)
  const match = /^(?:(?:(\d+):)?(\d+):)?(\d+)([:;.])(\d+)$/.exec(trimmed)
  const refuse = (message: string) =>
    new WaxError('no-timecode', text, message, 'Write frames, seconds:frames, or hours:minutes:seconds:frames.')
  if (!match) throw refuse('This is no timecode.')
  const [hours, minutes, seconds, frames] = [match[1], match[2], match[3], match[5]].map((part) =>
    Number(part ?? 0),
  ) as [number, number, number, number]
  const nominal = nominalRate(rate)
  if (frames >= nominal || (match[2] !== undefined && seconds > 59) || (match[1] !== undefined && minutes > 59)) {
    throw refuse(`A second has ${nominal} frames, a minute 60 seconds, an hour 60 minutes.`)
  }
  const number = ((hours * 60 + minutes) * 60 + seconds) * nominal + frames
  const dropped = match[4] === ':' ? 0 : droppedNumbers(rate)
  if (dropped === 0) return number
  const total = Math.floor(number / (nominal * 60))
  if (total % 10 !== 0 && number % (nominal * 60) < dropped) {
    throw refuse('Drop-frame counting leaves this number out.')
  }
  return number - dropped * (total - Math.floor(total / 10))
}
