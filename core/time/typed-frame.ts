import type { Frames } from '../units'
import type { Rate } from '../values/rate'
import { perSecond } from '../values/rate'
import { nominalRate } from './timecode'

/**
 * The frame that somebody typed: `75` or `frame 75`, `2.5 s`, or seconds and frames as the ribbon shows them, `3:07`. Null for anything
 * else, and for frames beyond the loop.
 */
export function typedFrame(text: string, rate: Rate, length: Frames): Frames | null {
  const words = text.trim().toLowerCase()
  const frame = frameIn(words, rate)
  return frame !== null && frame < length ? frame : null
}

function frameIn(words: string, rate: Rate): Frames | null {
  const plain = /^(?:frame\s+)?(\d+)$/.exec(words)
  if (plain) return Number(plain[1])
  const seconds = /^(\d+(?:\.\d+)?)\s*s(?:econds?)?$/.exec(words)
  if (seconds) return Math.floor(Number(seconds[1]) * perSecond(rate))
  const shown = /^(\d+):(\d{1,2})$/.exec(words)
  return shown ? Number(shown[1]) * nominalRate(rate) + Number(shown[2]) : null
}
