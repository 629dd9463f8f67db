// How a render is cut. Short runs are soon ready for the encoder and little is lost with one; but each has its price in the
// database. With these a render of ten seconds has some fifty, and the longest one some twenty thousand.

const SHORTEST = 4
const LONGEST = 24
/** Runs that a render is cut into, where their lengths allow it. */
const MANY = 48

/** Frames of a run of a render of so many; its last run may have fewer. */
export const runLength = (frames: number): number => Math.min(LONGEST, Math.max(SHORTEST, Math.ceil(frames / MANY)))

export const runCount = (frames: number): number => Math.ceil(frames / runLength(frames))

/** Which run the frame at a place belongs to. */
export const runAt = (place: number, frames: number): number => Math.floor(place / runLength(frames))

/** The frames of a run, of all that are to be made. */
export function framesOfRun(shown: readonly number[], index: number): readonly number[] {
  const length = runLength(shown.length)
  return shown.slice(index * length, (index + 1) * length)
}
