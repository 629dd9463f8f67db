import type { Fault } from '../../errors'
import { WaxError } from '../../errors'
import { readTimecode } from '../../time/timecode'
import type { Rate } from '../../values/rate'
import type { Delivery, Measure } from './delivery'
import type { DeliveryOptions } from './option'

/** Why a delivery cannot be made of a render, said before its first frame; null where it can. */
export const cannotCarry = (delivery: Delivery, measure: Measure, options: DeliveryOptions): Fault | null =>
  delivery.refusal(measure, options) ?? oddStart(options.timecode ?? '', measure.rate)

/** A timecode that the rate does not have, or that no clock shows (SMPTE ST 12-1: hours go from 0 to 23). */
function oddStart(text: string, rate: Rate): Fault | null {
  if (text === '') return null
  try {
    readTimecode(text, rate)
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    return { ...error.fault, place: 'timecode' }
  }
  if (/^(\d{1,2}:){3}\d+$|^(\d{1,2}:){2}\d{1,2}[;.]\d+$/.test(text.trim()) && Number(text.split(':')[0]) < 24)
    return null
  return {
    code: 'no-timecode',
    place: 'timecode',
    message: `“${text}” is not written as a clock shows it.`,
    remedy: 'Write hours from 0 to 23, minutes, seconds and frames: 01:00:00:00.',
  }
}
