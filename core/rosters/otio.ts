import type { Frames } from '../units'
import type { Rate } from '../values/rate'
import { perSecond } from '../values/rate'

// OpenTimelineIO (Academy Software Foundation), its JSON form, from memory of its published serialised-data schema: Timeline.1,
// Stack.1, Track.1, Gap.1, Clip.1 with ExternalReference.1. Clip.1 is read by every version, later ones raise it by themselves.

export interface PlacedFile {
  name: string
  /** Relative to the timeline file. */
  file: string
  /** Where it begins on the programme's clock. */
  start: Frames
  frames: Frames
  /** The timecode that the file itself begins with, in frames. */
  mediaStart: Frames
  note: string
}

export interface TimelineFile {
  name: string
  rate: Rate
  /** In the order of time; none overlap. */
  entries: readonly PlacedFile[]
}

/** A timeline with one track of video on which every file stands at its place; it begins with the first. */
export function timelineOf({ name, rate, entries }: TimelineFile): object {
  const perSec = perSecond(rate)
  const time = (value: Frames) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: perSec, value })
  const range = (start: Frames, duration: Frames) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    duration: time(duration),
    start_time: time(start),
  })
  const item = { metadata: {}, effects: [], markers: [] }
  const begin = entries[0]?.start ?? 0
  let at = begin
  const children = entries.flatMap((entry) => {
    const gap = entry.start - at
    at = entry.start + entry.frames
    const clip = {
      ...{ OTIO_SCHEMA: 'Clip.1', ...item, name: entry.name, source_range: range(entry.mediaStart, entry.frames) },
      metadata: entry.note === '' ? {} : { note: entry.note },
      media_reference: {
        ...{ OTIO_SCHEMA: 'ExternalReference.1', metadata: {}, name: entry.file },
        available_range: range(entry.mediaStart, entry.frames),
        target_url: encodeURI(entry.file),
      },
    }
    return gap > 0 ? [{ OTIO_SCHEMA: 'Gap.1', ...item, name: '', source_range: range(0, gap) }, clip] : [clip]
  })
  const track = { OTIO_SCHEMA: 'Track.1', ...item, name: 'Titles', kind: 'Video', source_range: null, children }
  return {
    ...{ OTIO_SCHEMA: 'Timeline.1', metadata: {}, name, global_start_time: time(begin) },
    tracks: { OTIO_SCHEMA: 'Stack.1', ...item, name: 'tracks', source_range: null, children: [track] },
  }
}
